//! Every page, light and dark: nothing complains and axe finds nothing.

use upland_journeys::{Browser, DESK, Scheme, Server};

use crate::go_to;

/// Addresses of every page that the demo data has.
async fn pages(b: &Browser) -> Vec<String> {
    let mut found: Vec<String> = [
        "/",
        "/places",
        "/places/new",
        "/places/import",
        "/rounds",
        "/ahead",
        "/replay",
        "/account",
        "/company",
        "/weather",
        "/reference",
        "/reference/parts",
    ]
    .map(String::from)
    .to_vec();
    let links = "return [...new Set([...document.querySelectorAll('main a')].map((a) => a.getAttribute('href')))]";
    b.go("/places").await;
    for href in b.script(links, vec![]).await.as_array().unwrap() {
        found.push(href.as_str().unwrap().to_owned());
    }
    b.go("/weather").await;
    for href in b.script(links, vec![]).await.as_array().unwrap() {
        found.push(href.as_str().unwrap().to_owned());
    }
    let hours = "return document.querySelector('.crumbs a[href*=\"/hours\"]')?.getAttribute('href') ?? null";
    for series in found.clone().iter().filter(|page| page.starts_with("/weather/")) {
        b.go(series).await;
        found.extend(b.script(hours, vec![]).await.as_str().map(String::from));
    }
    assert!(found.iter().any(|page| page.contains("/hours?day=")), "a station of the demo has hours");
    b.go("/replay").await;
    for href in b.script(links, vec![]).await.as_array().unwrap() {
        found.extend(href.as_str().filter(|h| h.starts_with("/places/")).map(String::from));
    }
    for year in found.clone().iter().filter(|p| p.ends_with("/year")) {
        for step in ["", "/stations", "/door-card"] {
            found.push(year.replace("/year", step));
        }
        found.push(format!("{year}?month=7&figure=delivered"));
    }
    // One controller with everything and one with nothing, at every step.
    for name in ["Boiler-room cabinet", "Pump house"] {
        go_to(b, name, "").await;
        let controller = b.path().await;
        for step in [
            "/week",
            "/week?program=B&at=highest",
            "/week/proposals?grouping=by_need",
            "/ways",
            "/stations/compare",
            "/by-hand",
            "/as-found",
            "/sensors",
            "/sensors?kind=freeze",
            "/sensors?kind=soil",
            "/sensors?kind=et",
            "/temporary",
            "/why?station=1&date=2026-06-09",
            "/log",
            "/dial-in",
            "/round",
            "/replay",
            "/replay?period=all&scale=40&price=2.5",
        ] {
            found.push(format!("{controller}{step}"));
        }
        if name == "Boiler-room cabinet" {
            let id = controller.trim_start_matches("/controllers/");
            found.push(format!("/jobs/later?controller={id}&job=sensor.1.0"));
            found.push(format!("{controller}/why"));
            let cans: String = (0..16).map(|n| format!("&can_{}_{}={}", n / 4, n % 4, 2 + n % 5)).collect();
            found.push(format!("{controller}/stations/3/measure?minutes=10{cans}"));
            found.push(format!("{controller}/stations/4/measure?by=meter"));
            found.push(format!("{controller}/stations/4/feel"));
        }
        found.push(format!("{controller}/dial-in?marks={}", "d".repeat(120)));
    }
    let places: Vec<String> = found
        .iter()
        .filter_map(|p| p.strip_suffix("/weather"))
        .filter(|p| p.starts_with("/places/"))
        .map(String::from)
        .collect();
    found.extend(places.iter().map(|place| format!("{place}/rules")));
    for weather in found.clone().iter().filter(|p| p.starts_with("/places/") && p.ends_with("/weather")) {
        found.push(format!("{weather}/normals"));
    }
    found.push("/nowhere".into());
    found.sort();
    found.dedup();
    found
}

async fn look_at_everything(scheme: Scheme) {
    let server = Server::with_demo(&Server::built_binary()).await;
    let b = Browser::open(&server, DESK, scheme).await;
    b.go("/sign-in").await;
    b.check_page().await;
    b.sign_in("oda@averstane.example").await;
    let pages = pages(&b).await;
    assert!(pages.len() > 60, "{pages:?}");
    for page in pages {
        b.go(&page).await;
        if page == "/nowhere" {
            // The browser itself notes the status; the page is still checked.
            assert_eq!(b.axe().await, Vec::<String>::new());
        } else {
            b.check_page().await;
        }
    }
    b.close().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn in_the_light_scheme() {
    look_at_everything(Scheme::Light).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn in_the_dark_scheme() {
    look_at_everything(Scheme::Dark).await;
}
