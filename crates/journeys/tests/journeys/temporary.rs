//! 9. Everything temporary ends.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::{go_to, open};

#[tokio::test(flavor = "multi_thread")]
async fn an_off_with_its_reason_and_end_stops_the_week_and_is_due_when_it_is_over() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/temporary").await;
    b.choose("#kind", "off").await;
    b.fill("#since", "2026-06-08").await;
    b.fill("#until", "2026-06-12").await;
    b.press_button("Save").await;
    b.wait_for_text("#reason-error", "Why?").await;
    b.fill("#reason", "new turf on the lawn").await;
    b.press_button("Save").await;
    b.wait_for_text(".duelist", "8 June to 12 June").await;
    b.check_page().await;
    go_to(&b, "Boiler-room cabinet", "/week").await;
    b.wait_for_text("#live-week", "new turf on the lawn").await;
    go_to(&b, "Boiler-room cabinet", "/temporary").await;
    b.press_button("Switched on again").await;
    b.wait_for_text("main", "No temporary settings").await;
    // One that is over already: due on Today, first of all.
    b.choose("#kind", "bypass").await;
    b.choose("#sensor", "1").await;
    b.fill("#since", "2026-05-20").await;
    b.fill("#until", "2026-06-01").await;
    b.fill("#reason", "overseeding").await;
    b.press_button("Save").await;
    b.wait_for_text(".duelist", "ended, to be put back").await;
    b.go("/").await;
    b.wait_for_text("main", "bypassed: Rain sensor, Tool-shed post").await;
    b.check_page().await;
    b.close().await;
}
