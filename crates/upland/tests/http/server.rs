//! Health, assets, restarts, and a database that goes away.

use std::process::Command;
use std::sync::Arc;
use std::time::{Duration, Instant};

use tokio::task::spawn_blocking;
use upland_journeys::Server;

use crate::client::{Client, binary};
use crate::valve::Valve;

#[tokio::test(flavor = "multi_thread")]
async fn it_is_healthy_and_ready_and_stops_well() {
    let mut server = Server::start(binary()).await;
    let client = Client::new(&server);
    assert_eq!((client.get("/healthz").status, client.get("/readyz").status), (200, 200));
    assert!(server.stop());
}

#[tokio::test(flavor = "multi_thread")]
async fn assets_are_compressed_and_kept_for_ever() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    let css = client.get("/sign-in").link("/assets/", "almanac.css");
    let brotli = client.get_with(&css, &[("accept-encoding", "gzip, br")]);
    assert_eq!((brotli.status, brotli.header("content-encoding")), (200, "br"));
    assert!(brotli.header("cache-control").contains("immutable"));
    assert_eq!(brotli.header("content-type"), "text/css; charset=utf-8");
    assert!(client.get(&css).body.contains("bulma"));
    assert_eq!(client.get("/assets/0000/almanac.css").header("cache-control"), "no-cache");
    assert_eq!(client.get("/assets/0000/nothing.css").status, 404);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_session_survives_a_restart_and_ends_on_sign_out() {
    let mut server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let before = server.address.clone();
    server.restart();
    // The cookie goes to the same host; only the port is another.
    let client = client.at(&server.address);
    assert_ne!(before, server.address);
    let page = client.get("/places");
    assert_eq!(page.status, 200, "{}", page.brief());
    let token = page.field("token");
    assert_eq!(client.post("/sign-out", &[("token", &token)]).location(), "/sign-in");
    assert_eq!(client.get("/places").location(), "/sign-in?next=/places");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_database_that_is_away_gives_a_designed_page_and_comes_back_by_itself() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let name = server.database_url.rsplit('/').next().unwrap().to_owned();
    let set = async |allowed: bool| {
        upland_store::testing::admin(&format!("ALTER DATABASE {name} ALLOW_CONNECTIONS {allowed}")).await.unwrap();
        upland_store::testing::admin(&format!(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{name}'"
        ))
        .await
        .unwrap();
    };
    set(false).await;
    let away = client.get("/places");
    assert_eq!(away.status, 503, "{}", away.brief());
    assert!(away.body.contains("The database is not answering"));
    assert!(away.header("content-security-policy").contains("default-src 'none'"));
    assert_eq!(client.get("/readyz").status, 503);
    assert_eq!(client.get("/healthz").status, 200);
    set(true).await;
    assert_eq!(client.get("/places").status, 200);
}

/// The server may start before its database: it is ready once that is there and at the newest version.
#[tokio::test(flavor = "multi_thread")]
async fn a_database_that_comes_late_is_brought_up_to_date() {
    let there = upland_store::testing::fresh_database().await.unwrap();
    let (host, name) = there.rsplit_once('/').unwrap();
    let (late, url) = (format!("{name}_late"), format!("{host}/{name}_late"));
    let server = Server::alone(binary(), url);
    let client = Client::new(&server);
    assert_eq!((client.get("/healthz").status, client.get("/readyz").status), (200, 503));
    assert_eq!(client.get("/sign-in").status, 503);
    upland_store::testing::admin(&format!("CREATE DATABASE {late}")).await.unwrap();
    let started = Instant::now();
    while client.get("/readyz").status != 200 {
        assert!(started.elapsed() < Duration::from_secs(60), "never ready");
        tokio::time::sleep(Duration::from_millis(200)).await;
    }
    server.add_user("Averstane Grounds", "Oda", "oda@example.com");
    assert_eq!(Client::signed_in(&server, "oda@example.com").get("/places").status, 200);
}

fn doctor(url: &str) -> (bool, String) {
    let out = Command::new(binary()).args(["doctor", "--workers", "2", "--database-url", url]).output().unwrap();
    (out.status.success(), String::from_utf8(out.stdout).unwrap())
}

#[tokio::test(flavor = "multi_thread")]
async fn the_doctor_tells_what_is_not_in_order() {
    let there = upland_store::testing::fresh_database().await.unwrap();
    let (well, said) = doctor(&there);
    assert!(well && said.contains("ok     migrations: all applied"), "{said}");
    let (host, name) = there.rsplit_once('/').unwrap();
    upland_store::testing::admin(&format!("CREATE DATABASE {name}_empty")).await.unwrap();
    let (well, said) = doctor(&format!("{host}/{name}_empty"));
    assert!(!well && said.contains("run: upland migrate"), "{said}");
    let (well, said) = doctor(&format!("{host}/{name}_not_there"));
    assert!(!well && said.contains("FAULT  database: not reached") && said.contains("DATABASE_URL"), "{said}");
}

/// A page is given up after 8 s, and `/readyz` after 2.5 s, however many wait. The bounds are wide: they tell one
/// time limit from two of them in a row.
#[tokio::test(flavor = "multi_thread")]
async fn a_database_that_hangs_keeps_nobody_waiting() {
    let valve = Valve::before(&upland_store::testing::fresh_database().await.unwrap());
    let server = Server::on(binary(), valve.database_url.clone());
    let client = Arc::new(Client::signed_in(&server, "oda@example.com"));
    let ask = |path: &'static str| {
        let client = client.clone();
        spawn_blocking(move || {
            let started = Instant::now();
            (client.get(path).status, started.elapsed())
        })
    };
    assert_eq!(ask("/places").await.unwrap().0, 200);
    valve.set_shut(true);
    let pages: Vec<_> = (0..12).map(|_| ask("/places")).collect();
    let (ready, took) = ask("/readyz").await.unwrap();
    assert!(ready == 503 && took < Duration::from_secs(6), "/readyz: {ready} after {took:?}");
    for page in pages {
        let (status, took) = page.await.unwrap();
        assert!(status == 503 && took < Duration::from_secs(12), "{status} after {took:?}");
    }
    valve.set_shut(false);
    assert_eq!(ask("/places").await.unwrap().0, 200);
}
