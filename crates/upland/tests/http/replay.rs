//! The replay of a controller: shown, tried, searched, applied, given out.

use upland_journeys::Server;

use crate::client::{Client, binary};

async fn demo() -> (Server, Client, String) {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let replay = client.get("/replay").link("/controllers/", "/replay");
    let library = client.get("/replay").body;
    // The library's cabinet is the one with a panel as found and a rain sensor.
    let at = library.find("Boiler-room cabinet").unwrap();
    let href = library[..at].rsplit("href=\"").next().unwrap().split('"').next().unwrap().to_owned();
    assert!(replay.starts_with("/controllers/"));
    (server, client, href)
}

/// A row of the table of strategies, as text between its cells.
fn row(body: &str, name: &str) -> Vec<String> {
    let row =
        body.split("<tr").find(|r| r.contains("scope=\"row\"") && r.contains(name)).unwrap_or_else(|| panic!("{name}"));
    row.split("<td").skip(1).map(|c| c.split_once('>').unwrap().1.split("</td>").next().unwrap().to_owned()).collect()
}

fn number(text: &str) -> f64 {
    let plain: String = text.chars().filter(|c| c.is_ascii_digit() || *c == '.').collect();
    plain.parse().unwrap_or_else(|_| panic!("{text}"))
}

/// Where a search leads to: at once, or from its own page when it is done, on a machine that is slow.
fn found_at(client: &Client, begun: &str) -> String {
    let mut at = begun.to_owned();
    for _ in 0..600 {
        if !at.contains("/best/") {
            return at;
        }
        let page = client.get(&at);
        if page.status == 303 {
            at = page.location().to_owned();
        } else {
            std::thread::sleep(std::time::Duration::from_millis(200));
        }
    }
    panic!("the search at {at} does not end")
}

#[tokio::test(flavor = "multi_thread")]
async fn every_strategy_stands_beside_the_present() {
    let (_server, client, href) = demo().await;
    let page = client.get(&format!("{href}?period=2025&price=2.5"));
    assert_eq!(page.status, 200, "{}", page.brief());
    for name in
        ["Present", "Fixed", "By month", "ET sensor", "Rain sensor", "Soil sensor", "Refill by depletion", "The plan"]
    {
        row(&page.body, name);
    }
    let applied = |name: &str| number(&row(&page.body, name)[0]);
    assert!(applied("Rain sensor") < applied("By month") && applied("By month") < applied("Fixed"));
    // What is tried as nothing is the plan under its own sensors.
    assert_eq!(row(&page.body, "The plan")[0], row(&page.body, "Rain sensor")[0]);
    let nowhere = client.get(&href.replace("/controllers/", "/controllers/0"));
    assert_eq!(nowhere.status, 404);
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_tried_is_answered_alike_by_the_page_and_live() {
    let (_server, client, href) = demo().await;
    let shown = client.get(&format!("{href}?period=2025&scale=60&days=2&trip=6&wait=1"));
    let page = client.get(&href);
    let mut form = page.form(&href);
    form.push(("token".into(), page.field("token")));
    form.retain(|(name, _)| !["scale", "days", "trip", "wait"].contains(&name.as_str()));
    let live = client.submit(
        &format!("{href}/preview"),
        form,
        &[("scale", "60"), ("days", "2"), ("trip", "6"), ("wait", "1")],
    );
    assert_eq!(live.status, 200, "{}", live.brief());
    assert_eq!(row(&shown.body, "As tried"), row(&live.body, "As tried"));
    assert!(live.body.contains("Days: Mon, Thu; now Mon, Wed, Fri."), "{}", live.brief());
    assert!(live.body.contains("6\u{a0}mm, 1 d; now 13\u{a0}mm, 0 d"), "{}", live.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn the_best_setting_is_found_applied_once_and_undone() {
    let (_server, client, href) = demo().await;
    let page = client.get(&format!("{href}?period=2025"));
    let best = client.submit(&format!("{href}/best"), page.form(&format!("{href}/best")), &[]);
    assert_eq!(best.status, 303, "{}", best.brief());
    let found = client.get(&found_at(&client, best.location()));
    let [tried, present] = ["As tried", "Present"].map(|name| row(&found.body, name));
    assert!(number(&tried[0]) < number(&present[0]), "{tried:?} {present:?}");
    assert!(!tried[5].contains("short"), "it is enough: {tried:?}");
    let apply = format!("{href}/apply");
    let form = found.form(&apply);
    let applied = client.submit(&apply, form.clone(), &[]);
    assert_eq!((applied.status, applied.location()), (303, href.as_str()), "{}", applied.brief());
    assert_eq!(client.submit(&apply, form, &[]).status, 303, "pressed twice");
    // It is the plan now, and the season says so.
    let after = client.get(&format!("{href}?period=2025"));
    assert_eq!(row(&after.body, "The plan")[0], tried[0]);
    let undo = client.submit("/undo", after.form("/undo"), &[]);
    assert_eq!(undo.status, 303);
    let before = client.get(&format!("{href}?period=2025"));
    assert_eq!(row(&before.body, "The plan"), row(&page.body, "The plan"));
}

/// A search that takes its time can be left, is found again from Replay, and can be cancelled; another user does not
/// see it.
#[tokio::test(flavor = "multi_thread")]
async fn a_search_can_be_left_found_again_and_cancelled() {
    let (server, client, href) = demo().await;
    let best = format!("{href}/best");
    let page = client.get(&format!("{href}?period=all&enough=0.99"));
    let begun = client.submit(&best, page.form(&best), &[("period", "all")]);
    assert_eq!(begun.status, 303, "{}", begun.brief());
    let at = begun.location().to_owned();
    assert!(at.starts_with(&format!("{best}/")), "three years take more than a moment without optimisation: {at}");
    let other = Client::new(&server);
    assert_eq!(other.sign_in("tam@averstane.example", "upland-demo").status, 303);
    assert_eq!(other.get(&at).location(), href, "not theirs");
    assert!(!other.get(&href).body.contains("See how far it is"));
    // An answer that nobody has fetched is found from Replay too, so this holds on a machine of any speed.
    assert!(client.get(&href).body.contains("See how far it is"));
    let search = client.get(&at);
    assert!(search.status == 303 || search.body.contains(" tried in "), "{}", search.brief());
    let token = page.field("token");
    assert_eq!(client.post(&at, &[("token", &token)]).location(), href);
    assert!(!client.get(&href).body.contains("See how far it is"));
    assert_eq!(client.get(&at).location(), href, "nothing is there any more");
}

/// A place's water is that of its controllers together; its figures lead to theirs.
#[tokio::test(flavor = "multi_thread")]
async fn a_place_is_replayed_as_the_sum_of_its_controllers() {
    let (_server, client, _) = demo().await;
    let list = client.get("/replay");
    let cemetery = list.body.split("/places/").skip(1).find(|part| part.contains(">Grevane Hill Cemetery<")).unwrap();
    let href = format!("/places/{}", &cemetery[..cemetery.find('"').unwrap()]);
    let place = client.get(&format!("{href}?period=2025&price=2"));
    let volume = |page: &str, name: &str| number(&row(page, name)[1]);
    for name in ["Present", "Fixed", "Refill by depletion", "The plan"] {
        let mut sum = 0.0;
        for part in place.body.split("<a href=\"/controllers/").skip(1) {
            let controller = format!("/controllers/{}", &part[..part.find('"').unwrap()]);
            let programs = client.get(&format!("{controller}?period=2025"));
            sum += volume(&programs.body, name);
        }
        // Each page rounds to whole m³.
        let whole = volume(&place.body, name);
        assert!((whole - sum).abs() <= 1.5, "{name}: {whole} against {sum}");
        assert!(whole > 0.0 || name == "Present", "{name}");
    }
    assert!(place.body.contains("Chapel wall") && place.body.contains("Upper gate"));
    let broken = client.get(&format!("{href}?enough=x&period=1812"));
    assert_eq!((broken.status, broken.body.matches("class=\"errm\"").count()), (200, 1));
}

/// Minutes of a station, the vent and the refill point are tried like the rest.
#[tokio::test(flavor = "multi_thread")]
async fn minutes_vent_and_refill_point_are_tried() {
    let (_server, client, href) = demo().await;
    let plain = client.get(&format!("{href}?period=2025"));
    let shown = client.get(&format!("{href}?period=2025&minutes=5&vent=closed&refill=40"));
    let applied = |page: &str, name: &str| number(&row(page, name)[0]);
    assert!(applied(&shown.body, "As tried") < applied(&plain.body, "The plan"));
    assert!(shown.body.contains("Station 1: 5.0 min; now"), "{}", shown.brief());
    assert_ne!(row(&shown.body, "Refill by depletion"), row(&plain.body, "Refill by depletion"));
    assert!(shown.body.contains("class=\"trymore\" open"), "what is tried is not folded away");
}

/// The disc of a rain sensor is stated on Sensors; what is remembered of a replay does not outlive the change.
#[tokio::test(flavor = "multi_thread")]
async fn a_rain_sensor_whose_disc_was_measured_is_replayed_as_it_is() {
    let (_server, client, href) = demo().await;
    let address = href.replace("/replay", "/sensors");
    let form = client.get(&format!("{address}?sensor=1")).form(&address);
    for bad in [[("capacity", "1"), ("release", "50")], [("capacity", "25"), ("release", "150")]] {
        let refused = client.submit(&address, form.clone(), &bad);
        assert_eq!((refused.status, refused.body.matches("class=\"errm\"").count()), (422, 1), "{}", refused.brief());
    }
    let before = client.get(&format!("{href}?period=2025"));
    assert!(before.body.contains("holds 25.0\u{a0}mm"), "{}", before.brief());
    let set = client.submit(&address, form, &[("capacity", "40"), ("release", "10")]);
    assert_eq!(set.status, 303, "{}", set.brief());
    assert_eq!(client.get(&format!("{address}?sensor=1")).field("release"), "10");
    let after = client.get(&format!("{href}?period=2025"));
    assert!(after.body.contains("holds 40.0\u{a0}mm") && after.body.contains("lets go below 10 % of"));
    let applied = |page: &str| number(&row(page, "Rain sensor")[0]);
    assert!(applied(&after.body) < applied(&before.body), "it dries longer and holds more");
}

#[tokio::test(flavor = "multi_thread")]
async fn what_makes_no_sense_is_said_at_its_place() {
    let (_server, client, href) = demo().await;
    let page =
        client.get(&format!("{href}?scale=9000&days=x&wait=-1&price=much&enough=7&period=1812&station=99&trip=1e9"));
    assert_eq!(page.status, 200);
    assert_eq!(page.body.matches("class=\"errm\"").count(), 5, "{}", page.brief());
    assert!(page.body.contains("value=\"9000\""), "what was typed stands");
    let broken = client.get(&format!("{href}?set=1,2,3&program=%00&part=%F0%9F%8C%A7"));
    assert_eq!(broken.status, 200);
    // A panel in tens cannot be set to 33 %.
    let page = client.get(&format!("{href}?period=2025&set=33,33,33,33,33,33,33,33,33,33,33,33"));
    let apply = format!("{href}/apply");
    let refused = client.submit(&apply, page.form(&apply), &[]);
    assert_eq!(refused.status, 422, "{}", refused.brief());
    assert!(refused.body.contains("This cannot be set: program "), "{}", refused.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn the_drawing_goes_out_as_it_stands_on_the_page() {
    let (_server, client, href) = demo().await;
    let query = "period=2023&station=3&scale=40";
    let file = client.get(&format!("{href}.svg?{query}"));
    assert_eq!((file.status, file.header("content-type")), (200, "image/svg+xml"));
    assert!(file.body.starts_with("<?xml") && file.body.trim_end().ends_with("</svg>"));
    // Nothing of it is elsewhere: no class without a rule, nothing that is fetched.
    assert!(file.body.contains("<style>") && !file.body.contains("url(") && !file.body.contains("href"));
    // The line of what is tried is that of the page.
    let line = |body: &str| {
        let (before, _) = body.split_once("\" class=\"ln-b\"").unwrap();
        before.rsplit("d=\"").next().unwrap().to_owned()
    };
    assert_eq!(line(&file.body), line(&client.get(&format!("{href}?{query}")).body));
}

#[tokio::test(flavor = "multi_thread")]
async fn the_days_are_given_out_and_add_up() {
    let (_server, client, href) = demo().await;
    let file = client.get(&format!("{href}.csv?period=2023&station=3&part=average"));
    assert_eq!(file.status, 200);
    assert!(file.header("content-disposition").contains("replay-station-3-2023.csv"));
    let mut lines = file.body.lines();
    let columns: Vec<&str> = lines.next().unwrap().split(',').collect();
    let at = |name: &str| columns.iter().position(|c| *c == name).unwrap_or_else(|| panic!("{name} in {columns:?}"));
    let rows: Vec<Vec<&str>> = lines.map(|l| l.split(',').collect()).collect();
    assert_eq!((rows.len(), rows[0][0]), (365, "2023-01-01"));
    for pair in rows.windows(2) {
        let of = |row: &[&str], name: &str| row[at(name)].parse::<f64>().unwrap();
        let change = of(&pair[0], "tried_depletion_mm") - of(&pair[1], "tried_depletion_mm");
        let flows = of(&pair[1], "rain_mm") + of(&pair[1], "tried_applied_mm")
            - of(&pair[1], "tried_runoff_mm")
            - of(&pair[1], "tried_percolation_mm")
            - of(&pair[1], "tried_et_actual_mm");
        assert!((change - flows).abs() < 1e-6, "{pair:?}");
    }
}

/// Ways to water and Replay ask the same balance.
#[tokio::test(flavor = "multi_thread")]
async fn the_ways_to_water_tell_what_replay_tells() {
    let (_server, client, replay) = demo().await;
    let controller = replay.trim_end_matches("/replay").to_owned();
    let ways = client.get(&format!("{controller}/ways?program=A"));
    assert_eq!(ways.status, 200, "{}", ways.brief());
    assert!(ways.body.contains("Program A in July: its plants need"), "{}", ways.brief());
    let page = client.get(&format!("{replay}?program=A&period=2025"));
    let twins = [("Set days", "The plan"), ("Refill by depletion", "Refill by depletion"), ("By hand", "By hand")];
    for (way, strategy) in twins {
        // Applied, lost, dry days and adequacy, after the rhythm and three figures of the week.
        let (way, strategy) = (&row(&ways.body, way)[4..8], row(&page.body, strategy));
        let [applied, lost, stress, adequacy] = [0, 2, 3, 5].map(|i| strategy[i].clone());
        assert_eq!(way, [applied, lost, stress, adequacy]);
    }
    let tried = client.get(&format!("{replay}?program=A&period=2025&days=1"));
    assert_eq!(row(&ways.body, "Deep and seldom")[4], row(&tried.body, "As tried")[0]);
    // A program that is not there is the first that is.
    let other = client.get(&format!("{controller}/ways?program=%00"));
    assert!(other.body.contains("Program A in July"), "{}", other.brief());
}

/// A program that is left to a person: every view says so, and one start gives it back to the panel.
#[tokio::test(flavor = "multi_thread")]
async fn a_program_is_handed_over_to_a_person_and_back() {
    let (_server, client, replay) = demo().await;
    let controller = replay.trim_end_matches("/replay").to_owned();
    let (ways, week) = (format!("{controller}/ways?program=A"), format!("{controller}/week"));
    let change = format!("{week}/change");
    let page = client.get(&ways);
    assert_eq!(page.body.matches(">now</span>").count(), 1, "the days that are set");
    let handed = client.submit(&change, page.form(&change), &[]);
    assert_eq!(handed.status, 303, "{}", handed.brief());
    let after = client.get(&ways);
    assert!(!after.body.contains("Water A by hand"), "{}", after.brief());
    assert_eq!(row(&after.body, "By hand")[..4], row(&page.body, "By hand")[..4]);
    let view = client.get(&format!("{week}?program=A"));
    assert!(view.body.contains("A person starts each run of this program."), "{}", view.brief());
    assert!(!view.body.contains("A starts twice"));
    let dial = client.get(&format!("{controller}/dial-in?from=start"));
    assert!(!dial.body.contains("04:30"), "{}", dial.brief());
    let today = client.get("/");
    assert!(today.body.contains("Boiler-room cabinet: water by hand this week"), "{}", today.brief());
    let card = client.get(&format!("{controller}/by-hand"));
    assert_eq!(card.body.matches("<td class=\"bigf r\">").count(), 3, "the stations of A");
    let door = client.get(&format!("{controller}/door-card"));
    assert_eq!(door.body.matches("by hand, for as long as the week’s card says").count(), 2, "days and percents");
    let year = client.get(&format!("{controller}/year?program=A"));
    assert!(year.body.contains("Nothing to dial."), "{}", year.brief());
    // Replay waters it as the person does, but in the months that are off: a little less in a year.
    let replayed = client.get(&format!("{replay}?program=A&period=2025"));
    let [plan, by_hand] = ["The plan", "By hand"].map(|name| number(&row(&replayed.body, name)[0]));
    assert!(plan < by_hand && plan > 0.7 * by_hand, "{plan} {by_hand}");
    // One start gives it back.
    let form = view.forms(&change).into_iter().find(|f| f.iter().any(|(name, _)| name == "start0")).unwrap();
    let back = client.submit(&change, form, &[("on0", "yes"), ("start0", "05:00")]);
    assert_eq!(back.status, 303, "{}", back.brief());
    assert!(client.get(&ways).body.contains("Water A by hand"));
    assert!(!client.get("/").body.contains("water by hand this week"));
}

#[tokio::test(flavor = "multi_thread")]
async fn the_card_of_runs_by_hand_needs_no_weather() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    let card = client.get(&format!("{controller}/by-hand"));
    assert_eq!(card.status, 200, "{}", card.brief());
    assert!(card.body.contains("8 June to 14 June"), "{}", card.brief());
    assert!(card.body.contains("no fresh weather is on record"), "{}", card.brief());
    assert!(card.body.contains("Days left on which watering is allowed this week: Thursday"), "{}", card.brief());
    let minutes = card.body.matches("<td class=\"bigf r\">").count();
    assert_eq!(minutes, 7, "each station has its minutes");
    // A controller without stations has no ways yet, and says what is missing.
    let empty = client.make_controller(&place, "Shed");
    let ways = client.get(&format!("{empty}/ways"));
    assert!(ways.body.contains("The ways are compared once"), "{}", ways.brief());
    assert_eq!(client.get(&format!("{empty}/by-hand")).status, 200);
}
