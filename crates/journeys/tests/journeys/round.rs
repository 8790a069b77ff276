//! 8. Look again: a round at the width of a phone, and the one next change.

use upland_journeys::{Browser, PHONE, Scheme, Server};

use crate::{open, tick};

#[tokio::test(flavor = "multi_thread")]
async fn a_round_gives_one_change_that_is_accepted_dialled_and_logged() {
    let server = Server::with_demo(&Server::built_binary()).await;
    assert_eq!(PHONE, (390, 844));
    let b = Browser::open(&server, PHONE, Scheme::Light).await;
    open(&b, "Boiler-room cabinet", "/round").await;
    b.wait_for_text(".onechange", "nothing has been judged yet").await;
    b.check_page().await;
    // The panel stands at another percent: that comes before anything else.
    b.click(".seen [data-by='-10']").await;
    b.wait_for_text(".onechange", "Put it back before judging anything else").await;
    b.click(".seen [data-by='10']").await;
    for station in 1..=7 {
        tick(&b, &format!("j{station}"), if station == 3 { "dry" } else { "right" }).await;
    }
    b.wait_for_text(".onechange", "7 of 7 seen").await;
    b.wait_for_text(".onechange", "only this one is dry (right: 6)").await;
    b.wait_for_text(".onechange .move", "Steps bank").await;
    // Thumb-sized.
    let small = "return [...document.querySelectorAll('.judge, .sq, .racts .button')].filter((e) => e.getBoundingClientRect().height < 44).length";
    assert_eq!(b.script(small, vec![]).await, 0);
    b.check_page().await;
    b.press_button("Not now").await;
    b.wait_for_text("#reason-error", "Why not?").await;
    b.wait_for("input[name=j3][value=dry]:checked").await;
    let take = b.text(".racts .is-ink").await;
    assert!(take.starts_with("Change to "), "{take}");
    b.press_button(&take).await;
    b.wait_for_text("h1", "Dial in").await;
    b.check_page().await;
    let controller = b.path().await.split("/dial-in").next().unwrap().to_owned();
    b.go(&format!("{controller}/log")).await;
    b.wait_for_text(".logday", "accepted").await;
    b.check_page().await;
    b.close().await;
}
