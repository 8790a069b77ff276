//! 10. A whole place as a file, imported after a preview.

use upland_journeys::{Browser, DESK, Scheme, Server};

const CEMETERY: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/hill-cemetery.json");

#[tokio::test(flavor = "multi_thread")]
async fn a_site_file_is_previewed_and_imported() {
    let server = Server::start(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, Scheme::Light).await;
    b.sign_in("oda@example.com").await;
    b.go("/places").await;
    b.press_button("Import site file").await;
    b.check_page().await;
    // A file that is none: said beside the field.
    let other = concat!(env!("CARGO_MANIFEST_DIR"), "/Cargo.toml");
    b.find("#file").await.send_keys(other).await.unwrap();
    b.press_button("Preview").await;
    b.wait_for_text("#file-error", "line 1").await;
    let file = std::fs::canonicalize(CEMETERY).unwrap();
    b.find("#file").await.send_keys(file.to_str().unwrap()).await.unwrap();
    b.press_button("Preview").await;
    b.wait_for_text("h1", "Grevane Hill Cemetery").await;
    b.wait_for_text("main", "Upper gate").await;
    b.check_page().await;
    b.press_button("Import").await;
    b.wait_for_text("main", "Export site file").await;
    b.go("/places").await;
    b.wait_for_text("main", "Chapel wall").await;
    b.close().await;
}
