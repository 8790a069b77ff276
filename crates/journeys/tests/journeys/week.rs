//! 5. The Week: drawn to scale, dragged, mended.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::open;

const RIGHT: &str = "\u{e014}";
const ENTER: &str = "\u{e007}";
const CONTROL: &str = "\u{e009}";
const NULL: &str = "\u{e000}";

/// The starts of a program, as the page has them.
async fn starts(b: &Browser, program: &str) -> Vec<String> {
    let script = "return [...document.querySelectorAll(`.starth[role=slider][data-program=${arguments[0]}]`)].map((h) => h.dataset.start)";
    let found = b.script(script, vec![program.into()]).await;
    found.as_array().unwrap().iter().map(|s| s.as_str().unwrap().to_owned()).collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_start_is_dragged_and_moved_by_keys_and_findings_are_repaired_and_undone() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/week").await;
    b.wait_for_text(".findings", "A starts twice").await;
    b.wait_for_text(".findings", "C runs on Sun").await;
    b.check_page().await;

    // A quarter of an hour to the right with the arrow, kept with Enter.
    b.script("document.getElementById('start-C-390').focus()", vec![]).await;
    b.keys(RIGHT).await;
    b.wait_for("#start-C-405").await;
    b.keys(ENTER).await;
    b.wait_for_text(".keep", "just now").await;
    assert_eq!(starts(&b, "C").await, ["06:45"]);
    // The plate has about 33 px an hour: an hour and more to the right.
    b.drag("#start-C-405", (36, 0)).await;
    for _ in 0..100 {
        if starts(&b, "C").await != ["06:45"] {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    let moved = starts(&b, "C").await;
    assert!(moved[0].as_str() > "07:15" && moved[0].as_str() < "08:30", "{moved:?}");

    // A finding's button is its repair; it is one action, and is undone as one.
    b.press_button("Remove 22:00").await;
    b.wait_for_text("main", "Week").await;
    assert_eq!(starts(&b, "A").await, ["04:30"]);
    b.keys(&format!("{CONTROL}z{NULL}")).await;
    b.wait_for_text(".findings", "A starts twice").await;
    assert_eq!(starts(&b, "A").await, ["04:30", "22:00"]);
    b.press_button("Repair all").await;
    b.wait_for_text("main", "No findings: this week keeps the rules").await;
    b.check_page().await;

    // A day is toggled by a press.
    b.click("button[aria-label='B: Thursday']").await;
    b.wait_for("button[aria-label='B: Thursday'][aria-pressed=true]").await;
    b.close().await;
}
