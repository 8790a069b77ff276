//! Figures that follow while something is typed or dragged, worked out by the server.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::open;

#[tokio::test(flavor = "multi_thread")]
async fn minutes_follow_the_rate_and_errors_stand_under_their_row() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/stations").await;
    let base = b.text("#live-3-base").await;
    b.fill("#s3_rate_mm_h", "15").await;
    // Half the rate takes twice the minutes, to a step.
    let (before, doubled): (f64, f64) = (base.parse().unwrap(), 2.0 * base.parse::<f64>().unwrap());
    for _ in 0..100 {
        if (b.text("#live-3-base").await.parse::<f64>().unwrap() - doubled).abs() <= 1.0 {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    let after: f64 = b.text("#live-3-base").await.parse().unwrap();
    assert!((after - doubled).abs() <= 1.0, "{before} to {after}");
    b.wait_for_text("#working-title", "3 Steps bank").await;
    b.fill("#s3_rate_mm_h", "0.84").await;
    b.wait_for_text("#live-3-errors", "Enter 1 to 150 mm/h").await;
    // The figure is kept from what was saved, and drawn in outline.
    b.wait_for("#live-3-base.is-out").await;
    assert_eq!(b.text("#live-3-base").await, base);
    b.check_page().await;
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_month_in_hand_says_what_it_would_give() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/year").await;
    b.click("#slider-9 .hit").await;
    // A press without a move opens the month.
    b.wait_for_text("#dial-title", "Dial for September").await;
    b.script("document.getElementById('slider-9').focus()", vec![]).await;
    b.keys("\u{e013}").await;
    b.wait_for_text(".inhand", "September, editing").await;
    b.wait_for_text(".inhand", "over demand").await;
    b.check_page().await;
    b.close().await;
}

/// On the Year and on the Week alike: Escape puts back what is dragged, and of two things only one is in hand.
#[tokio::test(flavor = "multi_thread")]
async fn what_is_in_hand_goes_back_with_escape_and_when_another_is_taken() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/year").await;
    let percent = async |month: u8| {
        let of_slider = format!("return document.getElementById('slider-{month}').getAttribute('aria-valuenow')");
        b.script(&of_slider, vec![]).await.as_str().unwrap().to_owned()
    };
    let saved = [percent(8).await, percent(9).await];
    b.drag_and_escape("#slider-9 .hd", (0, -60)).await;
    assert_eq!(percent(9).await, saved[1]);
    b.script("document.getElementById('slider-8').focus()", vec![]).await;
    b.keys("\u{e013}").await;
    b.wait_for_text(".inhand", "August, editing").await;
    assert_ne!(percent(8).await, saved[0]);
    b.script("document.getElementById('slider-9').focus()", vec![]).await;
    b.keys("\u{e013}").await;
    b.wait_for_text(".inhand", "September, editing").await;
    assert_eq!(percent(8).await, saved[0]);
    b.keys("\u{e00c}").await;
    assert_eq!([percent(8).await, percent(9).await], saved);

    open(&b, "Boiler-room cabinet", "/week").await;
    let focused = async || b.script("return document.activeElement.id", vec![]).await.as_str().unwrap().to_owned();
    b.drag_and_escape("#start-C-390", (36, 0)).await;
    assert_eq!(focused().await, "start-C-390", "it has the focus where it stood");
    b.keys("\u{e014}").await;
    b.wait_for("#start-C-405").await;
    b.script("document.getElementById('start-B-495').focus()", vec![]).await;
    b.keys("\u{e014}").await;
    b.wait_for("#start-B-510").await;
    b.wait_for("#start-C-390").await;
    b.keys("\u{e00c}").await;
    b.wait_for("#start-B-495").await;
    b.check_page().await;
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_season_is_drawn_anew_while_a_slider_moves() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/replay").await;
    let before = b.text("#live-result").await;
    b.script("document.querySelector('[data-of=scale]').focus()", vec![]).await;
    // Three steps of five percent to the left.
    b.keys("\u{e012}\u{e012}\u{e012}").await;
    b.wait_for_text("#live-side h2", "This saves").await;
    assert_eq!(b.script("return document.getElementById('scale').value", vec![]).await.as_str(), Some("85"));
    assert_ne!(b.text("#live-result").await, before);
    // The reading line goes by the keys, a week at a time with Shift.
    b.script("document.querySelector('.seasonw').focus()", vec![]).await;
    b.keys("\u{e014}\u{e008}\u{e014}\u{e008}").await;
    b.wait_for_text(".rdtext", "Wed, 8 Jan 2025").await;
    b.click("#live-side form[action$='/apply'] button").await;
    b.wait_for_text("#live-side h2", "The plan saves").await;
    b.check_page().await;
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_record_is_stepped_through_by_keys_and_by_its_frame() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    b.sign_in("oda@averstane.example").await;
    b.go("/weather").await;
    let record = "return document.querySelector('main a[href^=\"/weather/\"]').getAttribute('href')";
    let href = b.script(record, vec![]).await;
    b.go(href.as_str().unwrap()).await;
    b.wait_for_text("#live-chart .sub", "1 January 2026 to 10 June 2026").await;
    b.script("document.querySelector('.recordw').focus()", vec![]).await;
    b.keys("+").await;
    b.wait_for_text("#live-chart .sub", "to 10 June 2026").await;
    b.wait_for_text("#live-chart .sub", "22 March 2026").await;
    // The chart has the focus still: back by a step, and wider.
    b.keys("\u{e012}").await;
    b.wait_for_text("#live-chart .sub", "10 February 2026 to 1 May 2026").await;
    b.keys("-").await;
    b.wait_for_text("#live-chart .sub", "21 November 2025 to 1 May 2026").await;
    let before = b.text("#live-chart .sub").await;
    b.drag(".rec-grip[data-edge=from]", (-120, 0)).await;
    for _ in 0..100 {
        if b.text("#live-chart .sub").await != before {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    assert!(b.text("#live-chart .sub").await.ends_with("to 1 May 2026"), "{}", b.text("#live-chart .sub").await);
    assert_ne!(b.text("#live-chart .sub").await, before);
    // The lost sign of April is excluded, and the year's last frost goes back to February.
    b.press_button("Exclude").await;
    b.wait_for_text("#flags-h", "No flags").await;
    b.wait_for_text(".rec-note", "last frost").await;
    b.check_page().await;
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_rate_follows_the_cans_as_they_are_read() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/stations/1/measure").await;
    b.fill("#minutes", "10").await;
    for (field, catch) in [("#can_0_0", "4"), ("#can_0_1", "5"), ("#can_0_2", "6"), ("#can_0_3", "5")] {
        b.fill(field, catch).await;
    }
    b.wait_for_text("#live-result .dial", "30.0").await;
    b.wait_for_text("#live-result", "4 cans; 16 or more give a sound figure.").await;
    b.press_button("Save rate").await;
    b.wait_for_text("#working-title", "1 Reading lawn").await;
    b.check_page().await;
    b.close().await;
}
