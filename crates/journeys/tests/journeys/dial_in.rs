//! 6. Dial it in: one huge value at a time, then read back.

use upland_journeys::{Browser, PHONE, Scheme, Server};

use crate::open;

#[tokio::test(flavor = "multi_thread")]
async fn every_value_of_the_panel_is_ticked_read_back_and_dialled_on() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, PHONE, Scheme::Light).await;
    open(&b, "Chapel wall", "/dial-in").await;
    // The year first.
    b.wait_for_text(".huge", "11 June 2026").await;
    b.check_page().await;
    let all = b.script("return document.querySelectorAll('.ledger rect').length", vec![]).await.as_i64().unwrap();
    for step in 0..all {
        let before = b.path().await;
        // One that the panel will not take; all others read as they must.
        if step == 3 {
            b.press_button("Cannot set it").await;
        } else {
            b.click(".dialin .big a").await;
        }
        for _ in 0..100 {
            if b.path().await != before {
                break;
            }
            tokio::time::sleep(std::time::Duration::from_millis(20)).await;
        }
    }
    b.wait_for_text(".readback h2", &format!("Read all {all} back")).await;
    b.wait_for_text(".readback", "not set").await;
    b.wait_for_text(".readback", "One value is not set").await;
    b.check_page().await;
    b.choose("#agrees", "other").await;
    b.press_button("Save as dialled in").await;
    b.wait_for_text(".formerr", "Enter what the panel shows").await;
    b.fill("#panel_next", "Mon 15 June, 05:00").await;
    b.press_button("Save as dialled in").await;
    b.wait_for_text(".shead", "Posted").await;
    b.wait_for_text(".shead", "11 June 2026").await;
    b.check_page().await;
    b.go("/").await;
    b.wait_for_text("main", "Chapel wall: values to dial in").await;
    b.close().await;
}
