//! 7. Why did it not water?

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::open;

#[tokio::test(flavor = "multi_thread")]
async fn the_first_cause_stands_first_and_what_cannot_be_known_is_said() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/week").await;
    b.press_button("Why did it not water?").await;
    b.choose("#station", "1").await;
    b.fill("#date", "2026-06-09").await;
    b.press_button("Show").await;
    b.wait_for_text(".findings", "Not a day of A").await;
    b.wait_for_text(".side", "Whether it had power").await;
    // A day in February on record: the rain held it, and the month is off.
    b.fill("#date", "2026-02-18").await;
    b.press_button("Show").await;
    b.wait_for_text(".findings", "February is off").await;
    b.wait_for_text(".findings", "Held back by the Rain sensor, Tool-shed post").await;
    b.check_page().await;
    // A date picker gives no such date; an address can.
    let address = b.path().await;
    let page = address.split('?').next().unwrap();
    b.go(&format!("{page}?station=1&date=2026-02-31")).await;
    b.wait_for_text("#date-error", "Enter a date").await;
    b.close().await;
}
