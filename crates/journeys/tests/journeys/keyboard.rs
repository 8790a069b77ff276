//! A path without a mouse: sign in, go to a controller, move a month, take it back.

use upland_journeys::{Browser, DESK, Scheme, Server};

const TAB: &str = "\u{e004}";
const ENTER: &str = "\u{e007}";
const UP: &str = "\u{e013}";
const ESCAPE: &str = "\u{e00c}";
const CONTROL: &str = "\u{e009}";
const NULL: &str = "\u{e000}";

async fn focused(b: &Browser, what: &str) -> String {
    let script = format!("const e = document.activeElement; return {what};");
    b.script(&script, vec![]).await.as_str().unwrap_or("").to_owned()
}

/// Presses Tab until the focused element's text or label is this.
async fn tab_to(b: &Browser, label: &str) {
    for _ in 0..80 {
        b.keys(TAB).await;
        let text =
            focused(b, "(e.getAttribute('aria-label') || e.textContent || e.id || '').replace(/\\s+/g, ' ').trim()")
                .await;
        if text == label {
            return;
        }
    }
    panic!("no way to {label:?} by Tab");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_month_is_moved_saved_and_undone_by_keys_alone() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    b.go("/sign-in").await;
    // The first field has the focus.
    b.keys("oda@averstane.example").await;
    b.keys(TAB).await;
    b.keys("upland-demo").await;
    b.keys(ENTER).await;
    b.wait_for("nav .views").await;
    tab_to(&b, "Boiler-room cabinet").await;
    b.keys(ENTER).await;
    b.wait_for_text("#dial-title", "Dial for June").await;

    // J goes to the first month; the focus can be seen.
    for _ in 0..5 {
        b.keys("j").await;
    }
    assert_eq!(focused(&b, "e.id").await, "slider-5");
    let now = async || focused(&b, "e.getAttribute('aria-valuenow')").await.parse::<u16>().unwrap();
    let before = now().await;

    // Up one step, and Escape puts it back.
    b.keys(UP).await;
    b.wait_for_text(".inhand", "May, editing").await;
    assert_eq!(now().await, before + 10);
    b.keys(ESCAPE).await;
    assert_eq!(now().await, before);

    // Up again, and Enter keeps it.
    b.keys(UP).await;
    b.wait_for_text(".inhand", "May, editing").await;
    b.keys(ENTER).await;
    b.wait_for_text("#dial-title", "Dial for May").await;
    b.wait_for(".yeartab .chosen").await;

    // Control and Z take it back.
    b.keys(&format!("{CONTROL}z{NULL}")).await;
    b.wait_for_text("#dial-title", "Dial for").await;
    let kept = b.script("return document.getElementById('slider-5').getAttribute('aria-valuenow')", vec![]).await;
    assert_eq!(kept, before.to_string());

    // ? lists the keys; g and p go to the places.
    b.keys("?").await;
    b.wait_for("dialog[open]").await;
    b.check_page().await;
    b.keys(ESCAPE).await;
    b.keys("g").await;
    b.keys("p").await;
    b.wait_for_text("h1", "Places").await;
    assert_eq!(b.path().await, "/places");
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn stations_are_entered_by_keys_alone() {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    b.sign_in("oda@averstane.example").await;
    tab_to(&b, "Enter stations: Pump house needs stations").await;
    b.keys(ENTER).await;
    b.wait_for_text("h1", "Stations").await;
    tab_to(&b, "Working of station 1").await;
    b.keys(TAB).await;
    b.keys("Young apples").await;
    b.keys(TAB).await;
    b.keys("B").await;
    b.keys(TAB).await;
    b.keys("tre").await;
    b.keys(ENTER).await;
    b.wait_for_text(".keep", "Saved just now").await;
    let saved = b.script("return [document.getElementById('s1_name').value, document.getElementById('s1_program').value, document.getElementById('s1_plant').value]", vec![]).await;
    assert_eq!(saved, serde_json::json!(["Young apples", "B", "trees"]));
    b.close().await;
}
