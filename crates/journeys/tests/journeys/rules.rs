//! 2. Rules of the place bind everything below.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::{go_to, open, tick};

#[tokio::test(flavor = "multi_thread")]
async fn days_by_the_house_number_and_closed_hours_bind_the_week() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/week").await;
    b.click(".spine a").await;
    b.press_button("Water rules").await;
    b.wait_for_text("h1", "Water rules").await;
    b.wait_for_text(".side", "never on Sun").await;
    b.choose("#by", "parity").await;
    // Number 14 is even: Tuesday and Saturday.
    tick(&b, "even1", "1").await;
    tick(&b, "even5", "1").await;
    tick(&b, "odd0", "1").await;
    b.fill("#h0from", "9.30").await;
    b.fill("#h0to", "25:00").await;
    b.check_page().await;
    b.press_button("Save").await;
    b.wait_for_text("#h0to-error", "Enter a time").await;
    b.fill("#h0to", "20:00").await;
    b.press_button("Save").await;
    b.wait_for_text(".side", "no watering 09:30 to 20:00; never on Mon, Wed, Thu, Fri, Sun").await;
    b.check_page().await;
    go_to(&b, "Boiler-room cabinet", "/week").await;
    b.wait_for_text(".findings", "A runs on Mon, Wed, Fri").await;
    b.wait_for_text(".findings", "Averstane water office").await;
    b.close().await;
}
