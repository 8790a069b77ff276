//! 1. As found: the panel is written down on a phone before anything is changed.

use upland_journeys::{Browser, PHONE, Scheme, Server};

use crate::{open, tick};

#[tokio::test(flavor = "multi_thread")]
async fn a_panel_is_written_down_on_a_phone_and_its_findings_stand_beside_it_at_once() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, PHONE, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/as-found").await;
    b.wait_for_text("h1", "As found").await;
    b.check_page().await;
    b.fill("#clock_date", "2025-06-11").await;
    b.fill("#clock_time", "06:12").await;
    // The weekday of 11 June 2025 is Wednesday, today is Thursday; the clock is an hour behind.
    b.wait_for_text("#live-found", "The year is 2025").await;
    b.wait_for_text("#live-found", "One hour behind").await;
    for (station, minutes) in [(1, "50"), (2, "47"), (3, "24")] {
        b.fill(&format!("#m{station}"), minutes).await;
    }
    tick(&b, "onA0", "1").await;
    tick(&b, "onA2", "1").await;
    b.fill("#startA0", "04:30").await;
    b.fill("#startA1", "22:00").await;
    b.wait_for_text("#live-found", "A gives too much water").await;
    b.wait_for_text("#live-found", "needed.").await;
    b.click(".stepper [data-by='10']").await;
    b.wait_for_text("#live-program-A", "110").await;
    tick(&b, "sensor", "bypassed").await;
    b.wait_for_text("#live-found", "The sensor is bypassed").await;
    b.check_page().await;

    // A start that cannot be: it stays where it was typed, with its error beside it.
    b.fill("#startA2", "25:00").await;
    b.press_button("Save as found").await;
    b.wait_for_text("#startA2-error", "Enter a time").await;
    assert_eq!(b.script("return document.getElementById('m1').value", vec![]).await, "50");
    b.fill("#startA2", "").await;
    b.press_button("Save as found").await;
    b.wait_for_text(".head .sub", "11 June 2026").await;
    b.wait_for_text("main", "Mon, Wed").await;
    b.check_page().await;
    b.press_button("Write it down again").await;
    b.wait_for_text(".side", "11 June 2026 07:12").await;
    b.close().await;
}
