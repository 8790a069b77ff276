//! The worksheet of many stations: a block from a spreadsheet, the same in all rows, a copy of another station.

use upland_journeys::{Browser, DESK, PHONE, Scheme, Server};

use crate::open;

/// Pastes a text into a field, as a browser tells it.
const PASTE: &str =
    "const [field, text] = arguments; const data = new DataTransfer(); data.setData('text/plain', text);
    const cell = document.getElementById(field); cell.focus();
    cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));";

/// Presses a key with Alt in a field.
const ALT: &str = "const [field, key] = arguments; const cell = document.getElementById(field); cell.focus();
    cell.dispatchEvent(new KeyboardEvent('keydown', { key, altKey: true, bubbles: true, cancelable: true }));";

#[tokio::test(flavor = "multi_thread")]
async fn a_block_is_pasted_a_value_filled_down_and_a_station_copied() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/stations").await;
    let value = async |field: &str| {
        let script = "return document.getElementById(arguments[0]).value";
        b.script(script, vec![field.into()]).await.as_str().unwrap().to_owned()
    };
    // Plant, its coefficient (hidden, so passed over), sprinkler, rate: as words of the page or of a file.
    let block = "Shrubs\tmulti-stream\t12.5\nfruit_trees\tdrip\t9\npeat\tspray\t30\n";
    b.script(PASTE, vec!["s4_plant".into(), block.into()]).await;
    for (field, expected) in [
        ("s4_plant", "shrubs"),
        ("s4_sprinkler", "multi_stream"),
        ("s4_rate_mm_h", "12.5"),
        ("s5_plant", "fruit_trees"),
        ("s5_rate_mm_h", "9"),
        ("s6_plant", "trees"),
        ("s6_sprinkler", "spray"),
    ] {
        assert_eq!(value(field).await, expected, "{field}");
    }
    b.wait_for_text("#paste-note", "1 values are no choice").await;
    // The figures follow.
    b.wait_for_text("#live-5-plant", "0.95").await;
    // The same soil for all stations from the second on; a spare line stays as it is.
    b.script("document.getElementById('s2_soil').value = 'sandy_clay'", vec![]).await;
    let spare = value("s8_soil").await;
    b.script(ALT, vec!["s2_soil".into(), "ArrowDown".into()]).await;
    assert_eq!((value("s1_soil").await.as_str(), value("s7_soil").await.as_str()), ("loam", "sandy_clay"));
    assert_eq!(value("s8_soil").await, spare);
    b.script(ALT, vec!["s2_soil".into(), "ArrowUp".into()]).await;
    assert_eq!(value("s2_soil").await, "loam");
    // Another station as a whole, without what belongs to one alone.
    b.script("document.getElementById('s2_name').focus()", vec![]).await;
    b.choose(".copyof select", "7").await;
    assert_eq!((value("s2_plant").await.as_str(), value("s2_roofed").await.as_str()), ("bare", "yes"));
    assert_eq!((value("s2_name").await.as_str(), value("s2_rate_mm_h").await.as_str()), ("Long terrace", "14.1"));
    b.check_page().await;
    b.press_button("Save stations").await;
    b.wait_for_text("#live-sub", "7 of 8 in use").await;
    assert_eq!(value("s7_soil").await, "sandy_clay");
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_phone_shows_one_station_at_a_time_and_the_one_with_the_error_first() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, PHONE, Scheme::Dark).await;
    open(&b, "Boiler-room cabinet", "/stations").await;
    let shown = async || {
        let script = "return [...document.querySelectorAll('#sheet tr[data-station]')]
            .filter((row) => row.offsetParent !== null).map((row) => row.dataset.station).join()";
        b.script(script, vec![]).await.as_str().unwrap().to_owned()
    };
    assert_eq!(shown().await, "1");
    for _ in 0..4 {
        b.press_button("Next station").await;
    }
    assert_eq!(shown().await, "5");
    b.fill("#s5_rate_mm_h", "0.84").await;
    b.wait_for_text("#live-5-errors", "Enter 1 to 150 mm/h").await;
    b.check_page().await;
    b.press_button("Previous station").await;
    b.press_button("Save stations").await;
    // Nothing is saved, and the station that is the reason is the one in sight.
    b.wait_for(".formerr").await;
    assert_eq!(shown().await, "5");
    b.fill("#s5_rate_mm_h", "8").await;
    b.press_button("Save stations").await;
    b.wait_for_text("#live-sub", "7 of 8 in use").await;
    b.check_page().await;
    b.close().await;
}
