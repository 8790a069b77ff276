//! The day's work at a controller: found, guarded, temporarily changed, dialled in, judged on a round.

use upland_journeys::Server;

use crate::client::{Answer, Client, binary};

async fn library() -> (Server, Client, String) {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    (server, client, controller)
}

fn errors(answer: &Answer) -> usize {
    answer.body.matches("class=\"errm\"").count()
}

/// A controller's version, as its sensors' form carries it.
fn version(client: &Client, controller: &str) -> String {
    client.get(&format!("{controller}/sensors")).field("version")
}

#[tokio::test(flavor = "multi_thread")]
async fn a_panel_is_kept_once_and_never_written_over() {
    let (_server, client, controller) = library().await;
    let address = format!("{controller}/as-found");
    let form = client.get(&address).form(&address);
    let panel =
        [("clock_date", "2025-06-11"), ("clock_time", "06:12"), ("m1", "50"), ("startA0", "04:30"), ("onA0", "1")];
    let kept = client.submit(&address, form.clone(), &panel);
    assert_eq!(kept.status, 303, "{}", kept.brief());
    assert_eq!(client.submit(&address, form.clone(), &panel).location(), kept.location(), "sent twice");
    // Sent again with other minutes: what was written down first stays, and that is said.
    let again = client.submit(&address, form, &[&panel[..], &[("m1", "99")]].concat());
    assert_eq!(again.status, 409, "{}", again.brief());
    let page = client.get(kept.location());
    assert!(page.body.contains("50 min") && !page.body.contains("99 min"), "{}", page.brief());
    assert!(page.body.contains("The year is 2025") && page.body.contains("One hour behind"), "{}", page.brief());
    // The one of the site file and this one.
    assert_eq!(client.get(&address).body.matches("as-found?of=").count(), 2);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_panel_that_cannot_be_is_not_stored_and_nothing_typed_is_lost() {
    let (_server, client, controller) = library().await;
    let address = format!("{controller}/as-found");
    let form = client.get(&address).form(&address);
    let bad = [
        ("clock_date", "2026-02-31"),
        ("clock_time", "25:00"),
        ("m1", "50"),
        ("m2", "9999"),
        ("m9", "5"),
        ("startA0", "25:00"),
        ("startB0", "05:00"),
        ("startB1", "05:00"),
        ("note", "mud on the panel"),
    ];
    let refused = client.submit(&address, form, &bad);
    assert_eq!(refused.status, 422);
    assert_eq!(errors(&refused), 6, "{}", refused.brief());
    assert!(refused.body.contains("Station 9 of 8"), "{}", refused.brief());
    for (field, value) in bad.iter().filter(|(f, _)| *f != "m9") {
        assert_eq!(refused.field(field), *value);
    }
    assert_eq!(client.get(&address).body.matches("as-found?of=").count(), 1, "only that of the file");
}

#[tokio::test(flavor = "multi_thread")]
async fn rules_by_the_house_number_need_one_and_then_bind_the_week() {
    let (_server, client, controller) = library().await;
    let place = client.get("/places").link("/places/", "/weather").trim_end_matches("/weather").to_owned();
    let address = format!("{place}/rules");
    let even =
        [("by", "parity"), ("even1", "1"), ("even3", "1"), ("odd0", "1"), ("h1from", "25:00"), ("h1to", "09:00")];
    let form = client.get(&address).form(&address);
    let refused = client.submit(&address, form.clone(), &even);
    assert_eq!((refused.status, refused.field("h1from").as_str()), (422, "25:00"));
    assert_eq!(client.submit(&address, form, &[&even[..], &[("h1from", ""), ("h1to", "")]].concat()).status, 303);
    // The number is 14: Tuesday and Thursday are left.
    let week = client.get(&format!("{controller}/week"));
    assert!(week.body.contains("A runs on Mon, Wed, Fri"), "{}", week.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_sensor_takes_only_its_own_settings_and_goes_with_its_bypass() {
    let (_server, client, controller) = library().await;
    let address = format!("{controller}/sensors");
    let form = client.get(&format!("{address}?sensor=1")).form(&address);
    let refused = client.submit(&address, form.clone(), &[("settings", "3; 6; 10"), ("proven_on", "2026-02-30")]);
    assert_eq!(refused.status, 422);
    assert!(refused.body.contains("has no such setting") && refused.field("settings") == "3; 6; 10");
    assert_eq!(client.submit(&address, form, &[("threshold", "6"), ("delay", "2")]).status, 303);
    assert!(client.get(&address).body.contains("6\u{a0}mm, 2 days of delay"));
    let temporary = format!("{controller}/temporary");
    let bypass = [("kind", "bypass"), ("sensor", "1"), ("reason", "overseeding"), ("until", "2026-06-20")];
    let set = client.submit(&temporary, client.get(&temporary).form(&temporary), &bypass);
    assert_eq!(set.status, 303, "{}", set.brief());
    assert!(client.get(&address).body.contains("Bypassed since 11 June until 20 June by Oda: overseeding"));
    let gone = format!("{address}/remove");
    let form = client.get(&format!("{address}?sensor=1")).form(&gone);
    assert_eq!(client.submit(&gone, form, &[]).status, 303);
    let page = client.get(&temporary);
    assert!(page.body.contains("No temporary settings."), "{}", page.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn everything_temporary_has_a_reason_and_an_end_and_is_due_when_it_is_over() {
    let (_server, client, controller) = library().await;
    let address = format!("{controller}/temporary");
    let form = client.get(&address).form(&address);
    let refused = client.submit(&address, form.clone(), &[("percent", "83"), ("until", ""), ("reason", "")]);
    assert_eq!((refused.status, errors(&refused)), (422, 3), "{}", refused.brief());
    assert_eq!(refused.field("percent"), "83");
    let long = [("kind", "rain_delay"), ("reason", "seed"), ("until", "2026-07-30")];
    assert_eq!(client.submit(&address, form.clone(), &long).status, 422, "longer than the panel's own delay");
    let off = [("kind", "off"), ("reason", "new lawn"), ("since", "2026-06-01"), ("until", "2026-06-10")];
    assert_eq!(client.submit(&address, form, &off).status, 303);
    let today = client.get("/");
    assert!(today.body.contains("the controller is Off") && today.body.contains("Ended 10 June (new lawn)"));
    // It goes on stopping the water until somebody puts it back.
    let why = client.get(&format!("{controller}/why?station=1&date=2026-06-10"));
    assert!(why.body.contains("The controller was Off since 1 June"), "{}", why.brief());
    let back = format!("{address}/put-back");
    let form = client.get(&address).form(&back);
    assert_eq!(client.submit(&back, form, &[]).status, 303);
    assert!(!client.get("/").body.contains("the controller is Off"));
}

#[tokio::test(flavor = "multi_thread")]
async fn dialled_on_is_kept_with_date_and_name_and_a_later_change_is_due() {
    let (_server, client, controller) = library().await;
    let address = format!("{controller}/dial-in");
    let marks = "d".repeat(80);
    let page = client.get(&format!("{address}?marks={marks}"));
    let stale = client.submit(&address, page.form(&address), &[("version", "77")]);
    assert_eq!(stale.status, 422, "{}", stale.brief());
    let dialled = client.submit(&address, page.form(&address), &[("agrees", "same")]);
    assert_eq!(dialled.location(), format!("{controller}/door-card"), "{}", dialled.brief());
    let card = client.get(dialled.location());
    assert!(card.body.contains("<dt>Posted</dt><dd>11 June 2026</dd>"), "{}", card.brief());
    assert!(!client.get("/").body.contains(": values to dial in"));
    // A start goes out of the program: the clock, which is always checked, and that value are offered.
    let change = format!("{controller}/week/change");
    let repair = client.get(&format!("{controller}/week")).form(&change);
    let token = client.get("/places").field("token");
    let version = version(&client, &controller);
    let out =
        [("token", token.as_str()), ("version", &version), ("do", "repair"), ("finding", "second_start.A.0.22:00")];
    assert_eq!(client.post(&change, &out).status, 303, "{repair:?}");
    assert!(client.get("/").body.contains("Program A, start 2: off"), "{}", client.get("/").brief());
    assert!(client.get(&address).body.contains("The clock and the changed value only"));
    let only = client.get(&format!("{address}?only=changed"));
    let to_set = only.body.matches("class=\"lg-todo\"").count() + only.body.matches("class=\"lg-cur\"").count();
    assert_eq!(to_set, 3, "date, time and the start: {}", only.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn an_off_is_dialled_and_dialling_in_puts_back_what_is_over() {
    let (_server, client, controller) = library().await;
    let (temporary, address) = (format!("{controller}/temporary"), format!("{controller}/dial-in"));
    let all = |mark: &str| client.get(&format!("{address}?marks={}", mark.repeat(90)));
    let set = |since: &str, until: &str| {
        let form = client.get(&temporary).form(&temporary);
        let off = [("kind", "off"), ("reason", "new lawn"), ("since", since), ("until", until)];
        assert_eq!(client.submit(&temporary, form, &off).status, 303);
    };
    let dial = |mark: &str| assert_eq!(client.submit(&address, all(mark).form(&address), &[]).status, 303);
    set("2026-06-10", "2026-06-20");
    let page = all("d");
    assert!(page.body.contains("Until 20 June, then run"), "{}", page.brief());
    dial("d");
    assert!(!client.get("/").body.contains(": values to dial in"), "the panel is off, as it should be");
    // Ended early: the switch is to dial again.
    let back = format!("{temporary}/put-back");
    assert_eq!(client.submit(&back, client.get(&temporary).form(&back), &[]).status, 303);
    assert!(client.get("/").body.contains("Panel, switch: run"), "{}", client.get("/").brief());
    dial("d");
    // An off that was to end yesterday: dialling the panel in puts it back, and that is undone with it.
    set("2026-06-01", "2026-06-10");
    assert!(client.get("/").body.contains("the controller is Off"));
    assert!(all("d").body.contains("Puts back what was to end on 10 June."));
    dial("c");
    assert!(client.get("/").body.contains("the controller is Off"), "what could not be set is not put back");
    dial("d");
    assert!(!client.get("/").body.contains("the controller is Off"));
    assert!(client.get(&temporary).body.contains("No temporary settings."));
}

#[tokio::test(flavor = "multi_thread")]
async fn a_panel_of_twelve_hours_shows_and_takes_its_own_times() {
    let (_server, client, controller) = library().await;
    let (week, save) = (format!("{controller}/week?program=A"), format!("{controller}/week/change"));
    let form = client.get(&controller).form(&controller);
    assert_eq!(client.submit(&controller, form, &[("clock_face", "hours_12"), ("panel_order", "x")]).status, 422);
    let form = client.get(&controller).form(&controller);
    assert_eq!(client.submit(&controller, form, &[("clock_face", "hours_12")]).status, 303);
    let page = client.get(&week);
    assert_eq!(page.field("start0"), "4:30\u{a0}am");
    let (token, version) = (page.field("token"), version(&client, &controller));
    let base = [("token", token.as_str()), ("version", &version), ("program", "A"), ("do", "program"), ("split", "1")];
    let own = [("mode", "weekdays"), ("on0", "1"), ("start0", "4:15 pm"), ("m1", "20"), ("m2", "20"), ("m4", "20")];
    let answer = client.post(&save, &[&base[..], &own[..]].concat());
    assert_eq!(answer.status, 303, "{}", answer.brief());
    for view in [format!("{controller}/door-card"), week, format!("{controller}/dial-in?marks={}", "d".repeat(90))] {
        let page = client.get(&view);
        assert!(page.body.contains("4:15\u{a0}pm") && !page.body.contains(">16:15"), "{view}: {}", page.brief());
    }
}

/// The form of a round with the lawn's stations judged.
fn round(client: &Client, controller: &str, dry: &str) -> Vec<(String, String)> {
    let address = format!("{controller}/round");
    let mut form = client.get(&address).form(&address);
    form.retain(|(name, _)| !name.starts_with('j') && name != "offered");
    for n in 1..=7 {
        form.push((format!("j{n}"), if n.to_string() == dry { "dry" } else { "right" }.to_owned()));
    }
    form
}

#[tokio::test(flavor = "multi_thread")]
async fn an_accepted_change_is_a_new_version_and_a_value_to_dial_and_a_rejected_one_has_a_reason() {
    let (_server, client, controller) = library().await;
    let address = format!("{controller}/round");
    let form = round(&client, &controller, "3");
    let look = client.submit(&format!("{address}/preview"), form.clone(), &[]);
    let offered = look.field("offered");
    assert_eq!(offered, "trim.3.0.13");
    assert!(look.body.contains("only this one is dry (right: 6)"), "{}", look.brief());
    let before = version(&client, &controller);
    let other = client.submit(&address, form.clone(), &[("answer", "accept"), ("offered", "trim.3.0.29")]);
    assert_eq!(other.status, 422, "what was offered is not what follows from what was seen");
    let unreasoned = client.submit(&address, form.clone(), &[("answer", "reject"), ("offered", &offered)]);
    assert_eq!(unreasoned.status, 422);
    assert_eq!(version(&client, &controller), before);
    let rejected = [("answer", "reject"), ("offered", offered.as_str()), ("reason", "the mower was there")];
    assert_eq!(client.submit(&address, form, &rejected).location(), format!("{controller}/log"));
    assert_eq!(version(&client, &controller), before);
    let accepted = [("answer", "accept"), ("offered", offered.as_str())];
    let form = round(&client, &controller, "3");
    let answer = client.submit(&address, form.clone(), &accepted);
    assert_eq!(answer.location(), format!("{controller}/dial-in?only=changed"), "{}", answer.brief());
    assert!(version(&client, &controller) > before);
    // Sent twice, nothing more happens, though the proposal is another one now.
    let stands = version(&client, &controller);
    assert_eq!(client.submit(&address, form, &accepted).location(), answer.location());
    assert_eq!(version(&client, &controller), stands);
    let log = client.get(&format!("{controller}/log"));
    assert!(log.body.contains("not now, the mower was there") && log.body.contains("accepted"), "{}", log.brief());
    assert!(log.body.contains("panel recorded as found"), "{}", log.brief());
    assert!(log.body.contains("Ground on rounds") && log.body.contains("is-dry\">Dry"), "{}", log.brief());
    assert!(client.get(&format!("{controller}/log.csv")).body.contains("3 Steps bank,,Dry"));
}

#[tokio::test(flavor = "multi_thread")]
async fn two_on_a_round_at_once_get_a_choice_and_no_round_is_kept_in_part() {
    let (server, oda, controller) = library().await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let tam = Client::signed_in(&server, "tam@example.com");
    let address = format!("{controller}/round");
    let form = round(&oda, &controller, "3");
    let offered = oda.submit(&format!("{address}/preview"), form.clone(), &[]).field("offered");
    // Tam moves the court to another start meanwhile: another version, the same proposal.
    let change = format!("{controller}/week/change");
    let token = tam.get("/places").field("token");
    let version = version(&tam, &controller);
    let moved = [
        ("token", token.as_str()),
        ("version", &version),
        ("do", "move"),
        ("program", "C"),
        ("from", "06:30"),
        ("to", "240"),
    ];
    assert_eq!(tam.post(&change, &moved).status, 303);
    let conflict = oda.submit(&address, form, &[("answer", "accept"), ("offered", &offered)]);
    assert_eq!(conflict.status, 409, "{}", conflict.brief());
    assert!(!oda.get(&format!("{controller}/log")).body.contains("stations checked"));
}

#[tokio::test(flavor = "multi_thread")]
async fn the_week_refuses_what_the_panel_cannot_hold() {
    let (_server, client, controller) = library().await;
    let change = format!("{controller}/week/change");
    let week = client.get(&format!("{controller}/week?program=A"));
    let token = week.field("token");
    let version = version(&client, &controller);
    let base = [("token", token.as_str()), ("version", &version), ("program", "A"), ("do", "program"), ("split", "1")];
    let bad = [("mode", "every"), ("every", "30"), ("next", "2026-02-31"), ("start0", "04:37"), ("m1", "lots")];
    let refused = client.post(&change, &[&base[..], &bad[..]].concat());
    assert_eq!(
        (refused.status, refused.field("start0").as_str(), refused.field("m1").as_str()),
        (422, "04:37", "lots")
    );
    assert!(client.get(&format!("{controller}/week")).body.contains("04:30"), "nothing was stored");
}

impl Answer {
    /// The page from the first place on where something is said.
    fn after(&self, said: &str) -> Answer {
        let at = self.body.find(said).unwrap_or_else(|| panic!("nothing says {said} in {}", self.brief()));
        Answer { status: self.status, headers: self.headers.clone(), body: self.body[at..].to_owned() }
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_put_back_is_what_was_pressed_whatever_somebody_else_put_back_meanwhile() {
    let (server, oda, controller) = library().await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let tam = Client::signed_in(&server, "tam@example.com");
    let address = format!("{controller}/temporary");
    for (letter, reason) in [("A", "first"), ("B", "second"), ("C", "third")] {
        let form = oda.get(&address).form(&address);
        let set = oda.submit(&address, form, &[("program", letter), ("percent", "50"), ("reason", reason)]);
        assert_eq!(set.status, 303, "{}", set.brief());
    }
    let back = format!("{address}/put-back");
    let second = oda.get(&address).after("second (Oda)").form(&back);
    let first = tam.get(&address).after("first (Oda)").form(&back);
    assert_eq!(tam.submit(&back, first, &[]).status, 303);
    let conflict = oda.submit(&back, second, &[]);
    assert_eq!(conflict.status, 409, "{}", conflict.brief());
    assert_eq!(oda.submit(&back, conflict.form(&back), &[]).status, 303);
    let left = oda.get(&address);
    assert!(left.body.contains("third (Oda)") && !left.body.contains("second (Oda)"), "{}", left.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn the_sensor_that_is_taken_away_or_changed_is_the_one_that_was_open() {
    let (server, oda, controller) = library().await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let tam = Client::signed_in(&server, "tam@example.com");
    let address = format!("{controller}/sensors");
    let gone = format!("{address}/remove");
    for place in ["East wall", "West wall"] {
        let form = oda.get(&format!("{address}?kind=rain")).form(&address);
        let kept = oda.submit(&address, form, &[("place", place)]);
        assert_eq!(kept.status, 303, "{}", kept.brief());
    }
    let (east, west) = (oda.get(&format!("{address}?sensor=3")), oda.get(&format!("{address}?sensor=4")));
    // The first sensor goes meanwhile, and every other one moves up by one.
    let first = tam.get(&format!("{address}?sensor=1")).form(&gone);
    assert_eq!(tam.submit(&gone, first, &[]).status, 303);
    let conflict = oda.submit(&gone, east.form(&gone), &[]);
    assert_eq!(conflict.status, 409, "{}", conflict.brief());
    assert_eq!(oda.submit(&gone, conflict.form(&gone), &[]).status, 303);
    let left = oda.get(&address);
    assert!(left.body.contains("West wall") && !left.body.contains("East wall"), "{}", left.brief());
    let conflict = oda.submit(&address, west.form(&address), &[("place", "North wall")]);
    assert_eq!(conflict.status, 409, "{}", conflict.brief());
    assert_eq!(oda.submit(&address, conflict.form(&address), &[]).status, 303);
    let left = oda.get(&address);
    assert!(left.body.contains("North wall") && !left.body.contains("West wall"), "{}", left.brief());
    assert!(left.body.contains("Cabinet, north wall"), "the freeze sensor stays: {}", left.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn each_last_digit_has_days_of_its_own() {
    let (_server, client, controller) = library().await;
    let place = client.get(&controller).link("/places/", "");
    let address = format!("{place}/rules");
    let form = client.get(&address).form(&address);
    // The house number is 14: Monday and Thursday for the 4, all other digits on Friday.
    let mut ticked = vec![("by", "last_digit".to_owned())];
    let fields: Vec<String> = (0..10).filter(|d| *d != 4).map(|d| format!("d{d}_4")).collect();
    ticked.extend(fields.iter().map(|f| (f.as_str(), "1".to_owned())));
    ticked.extend([("d4_0", "1".to_owned()), ("d4_3", "1".to_owned())]);
    let ticked: Vec<(&str, &str)> = ticked.iter().map(|(k, v)| (*k, v.as_str())).collect();
    let page = client.get(&address);
    assert!(
        page.body.contains("name=\"d4_0\"") && page.body.contains("name=\"d9_6\""),
        "each digit posts its own name"
    );
    assert_eq!(client.submit(&address, form, &ticked).status, 303);
    let saved = client.get(&address).form(&address);
    let kept = |name: &str| saved.iter().any(|(field, _)| field == name);
    assert!(kept("d4_0") && kept("d4_3") && kept("d5_4") && !kept("d4_4"), "{saved:?}");
}
