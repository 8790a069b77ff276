//! Saving, undo, and two people at once.

use upland_journeys::Server;

use crate::client::{Client, binary};

fn lawn(number: u8) -> Vec<(String, String)> {
    [
        ("name", "Lawn"),
        ("plant", "cool_turf"),
        ("sprinkler", "spray"),
        ("rate_mm_h", "30"),
        ("uniformity", "0.62"),
        ("area_m2", "95"),
    ]
    .map(|(f, v)| (format!("s{number}_{f}"), v.to_owned()))
    .to_vec()
}

fn with_lawn(client: &Client, controller: &str) {
    let address = format!("{controller}/stations");
    let form = client.get(&address).form(&address);
    let fields = lawn(1);
    let changes: Vec<(&str, &str)> = fields.iter().map(|(a, b)| (a.as_str(), b.as_str())).collect();
    let answer = client.submit(&address, form, &changes);
    assert_eq!(answer.status, 303, "{}", answer.brief());
}

#[tokio::test(flavor = "multi_thread")]
async fn undo_undoes_one_action_after_another() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let controller = client.make_controller(&place, "Cabinet");
    with_lawn(&client, &controller);
    let stations = format!("{controller}/stations");
    assert_eq!(client.get(&stations).field("s1_name"), "Lawn");
    assert_eq!(client.undo(&stations).location(), stations);
    assert_eq!(client.get(&stations).field("s1_name"), "");
    // The controller was made by the action before: with it goes its page.
    assert_eq!(client.undo(&stations).location(), "/");
    assert_eq!(client.get(&controller).status, 404);
    client.undo("/");
    assert!(!client.get("/places").body.contains("Library"));
    // Nothing is left to undo.
    assert!(!client.get("/places").body.contains("id=\"undo\""));
}

#[tokio::test(flavor = "multi_thread")]
async fn undo_never_runs_over_somebody_elses_work() {
    let server = Server::start(binary()).await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let (oda, tam) = (Client::signed_in(&server, "oda@example.com"), Client::signed_in(&server, "tam@example.com"));
    let place = oda.make_place("Library");
    let form = tam.get(&place).form(&place);
    assert_eq!(tam.submit(&place, form, &[("name", "Library Terraces")]).status, 303);
    assert_eq!(oda.undo("/places").status, 409);
    assert!(oda.get("/places").body.contains("Library Terraces"));
}

#[tokio::test(flavor = "multi_thread")]
async fn two_people_saving_the_same_controller_get_a_choice() {
    let server = Server::start(binary()).await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let (oda, tam) = (Client::signed_in(&server, "oda@example.com"), Client::signed_in(&server, "tam@example.com"));
    let controller = oda.make_controller(&oda.make_place("Library"), "Cabinet");
    with_lawn(&oda, &controller);
    let address = format!("{controller}/stations");
    let (odas, tams) = (oda.get(&address).form(&address), tam.get(&address).form(&address));
    assert_eq!(tam.submit(&address, tams, &[("s1_rate_mm_h", "26")]).status, 303);
    let conflict = oda.submit(&address, odas, &[("s1_rate_mm_h", "27")]);
    assert_eq!(conflict.status, 409);
    assert!(conflict.body.contains("Tam saved this"), "{}", conflict.brief());
    assert!(conflict.body.contains("Station 1, Rate"), "{}", conflict.brief());
    assert_eq!(oda.get(&address).field("s1_rate_mm_h"), "26", "nothing was written over");
    // Choosing mine sends what was typed again, on the version that stands.
    let mine = conflict.form(&address);
    assert_eq!(oda.submit(&address, mine, &[]).status, 303);
    assert_eq!(oda.get(&address).field("s1_rate_mm_h"), "27");
}

#[tokio::test(flavor = "multi_thread")]
async fn sending_a_form_twice_saves_once() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let form = client.get("/places/new").form("/places");
    let fields = [("name", "Twice"), ("latitude", "1"), ("longitude", "2"), ("elevation", "3"), ("time_zone", "UTC")];
    client.submit("/places", form.clone(), &fields);
    client.submit("/places", form, &fields);
    assert_eq!(client.get("/places").body.matches("Twice</a></th>").count(), 1);
}

#[tokio::test(flavor = "multi_thread")]
async fn units_change_what_is_shown_and_never_what_is_stored() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let controller = client.make_controller(&place, "Cabinet");
    with_lawn(&client, &controller);
    let token = client.get("/places").field("token");
    let units = |units: &str| {
        assert_eq!(client.post("/units", &[("token", &token), ("units", units), ("back", "/")]).status, 303)
    };
    units("us");
    let address = format!("{controller}/stations");
    let page = client.get(&address);
    assert_eq!((page.field("s1_rate_mm_h").as_str(), page.field("s1_area_m2").as_str()), ("1.181", "1022.6"));
    assert_eq!(client.get(&place).field("elevation"), "689");
    // Saved in feet and inches without touching them, everything comes back as it was.
    assert_eq!(client.submit(&address, page.form(&address), &[]).status, 303);
    let form = client.get(&place).form(&place);
    assert_eq!(client.submit(&place, form, &[("units", "metric")]).status, 303);
    let page = client.get(&address);
    assert_eq!((page.field("s1_rate_mm_h").as_str(), page.field("s1_area_m2").as_str()), ("30", "95"));
    assert_eq!(client.get(&place).field("elevation"), "210");
}
