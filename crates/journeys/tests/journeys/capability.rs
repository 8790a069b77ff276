//! 3. Capability: nothing that is proposed exceeds what the panel can do.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::{go_to, open};

#[tokio::test(flavor = "multi_thread")]
async fn a_poorer_panel_is_refused_while_something_needs_more_and_binds_once_it_fits() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    open(&b, "Chapel wall", "").await;
    b.fill("#start_step", "0").await;
    b.press_button("Save").await;
    b.wait_for("#start_step-error").await;
    b.fill("#start_step", "30").await;
    b.fill("#programs", "2").await;
    b.fill("#starts", "1").await;
    b.choose("#cycle_soak", "no").await;
    b.fill("#every_max", "0").await;
    b.check_page().await;
    b.press_button("Save").await;
    go_to(&b, "Chapel wall", "/week").await;
    b.wait_for_text("main", "No schedule yet").await;
    b.script("document.querySelector('.acts0 .is-ink').click()", vec![]).await;
    b.wait_for(".weekplate").await;
    // One start slot, on the half hour; two programs at most; no cycles to set.
    let starts =
        "return [...document.querySelectorAll('.starth[role=slider]')].map((h) => h.dataset.program + h.dataset.start)";
    let starts = b.script(starts, vec![]).await;
    let starts: Vec<&str> = starts.as_array().unwrap().iter().map(|s| s.as_str().unwrap()).collect();
    assert!(!starts.is_empty() && starts.len() <= 2, "{starts:?}");
    assert!(starts.iter().all(|s| s.ends_with(":00") || s.ends_with(":30")), "{starts:?}");
    assert_eq!(b.script("return document.querySelectorAll('[name^=start]').length", vec![]).await, 1);
    assert_eq!(b.script("return document.querySelectorAll('[name=c1]').length", vec![]).await, 0);
    b.check_page().await;
    b.close().await;
}
