//! Pressed twice, eight times at once, and by two people.

use std::sync::Arc;

use tokio::task::spawn_blocking;
use upland_journeys::Server;

use crate::client::{Answer, Client, binary};

const SEATTLE: &[u8] = include_bytes!("../../../../docs/examples/seattle-weather.csv");

type Fields = Vec<(String, String)>;

fn with(mut form: Fields, changes: &[(&str, &str)]) -> Fields {
    for (name, value) in changes {
        form.retain(|(n, _)| n != name);
        form.push(((*name).to_owned(), (*value).to_owned()));
    }
    form
}

/// Presses a form eight times at once, and once more afterwards; gives where all of them led.
async fn press(client: &Arc<Client>, path: &str, form: Fields) -> String {
    let presses: Vec<_> = (0..8)
        .map(|_| {
            let (client, path, form) = (client.clone(), path.to_owned(), form.clone());
            spawn_blocking(move || client.submit(&path, form, &[]))
        })
        .collect();
    let mut answers: Vec<Answer> = Vec::new();
    for press in presses {
        answers.push(press.await.unwrap());
    }
    let (again, to, last) = (client.clone(), path.to_owned(), form);
    answers.push(spawn_blocking(move || again.submit(&to, last, &[])).await.unwrap());
    let led_to = answers[0].location().to_owned();
    for answer in &answers {
        assert_eq!((answer.status, answer.location()), (303, led_to.as_str()), "{path}: {}", answer.brief());
    }
    led_to
}

#[tokio::test(flavor = "multi_thread")]
async fn every_form_pressed_eight_times_at_once_is_done_once() {
    let server = Server::start(binary()).await;
    let client = Arc::new(Client::signed_in(&server, "oda@example.com"));
    let new_place = [
        ("name", "Library"),
        ("latitude", "47.5"),
        ("longitude", "-122.2"),
        ("elevation", "210"),
        ("time_zone", "America/Los_Angeles"),
    ];
    let form = with(client.get("/places/new").form("/places"), &new_place);
    let place = press(&client, "/places", form).await.trim_end_matches("/controllers/new").to_owned();
    let post_to = format!("{place}/controllers");
    let form = client.get(&format!("{place}/controllers/new?preset=plain")).form(&post_to);
    let stations = press(&client, &post_to, with(form, &[("name", "Cabinet")])).await;
    let controller = stations.trim_end_matches("/stations").to_owned();
    let normals = format!("{place}/weather/normals");
    let months: Vec<(String, String)> =
        (1..=12).flat_map(|m| [(format!("et0_{m}"), "3".to_owned()), (format!("rain_{m}"), "40".to_owned())]).collect();
    let months: Vec<(&str, &str)> = months.iter().map(|(k, v)| (k.as_str(), v.as_str())).collect();
    press(&client, &normals, with(client.get(&normals).form(&normals), &months)).await;
    let form = client.get(&place).form(&place);
    press(&client, &place, with(form, &[("name", "Terraces")])).await;
    let sensors = format!("{controller}/sensors");
    let page = client.get(&format!("{sensors}?kind=rain"));
    let saved = press(&client, &sensors, with(page.form(&sensors), &[("place", "East wall")])).await;
    let remove = format!("{sensors}/remove");
    let page = client.get(&saved);
    press(&client, &remove, page.form(&remove)).await;
    let temporary = format!("{controller}/temporary");
    let page = client.get(&temporary);
    press(&client, &temporary, with(page.form(&temporary), &[("kind", "off"), ("reason", "Winter")])).await;
    let put_back = format!("{temporary}/put-back");
    let page = client.get(&temporary);
    press(&client, &put_back, page.form(&put_back)).await;
    // One undo, though nine were asked for; the place is still there.
    let page = client.get(&temporary);
    press(&client, "/undo", page.form("/undo")).await;
    assert!(client.get(&temporary).body.contains("/temporary/put-back"), "it is in force again");
    let log = client.get(&format!("{controller}/log")).body;
    for once in ["controller added", "sensor removed"] {
        assert_eq!(log.matches(once).count(), 1, "{once}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_site_file_is_imported_once() {
    let server = Server::start(binary()).await;
    let client = Arc::new(Client::signed_in(&server, "oda@example.com"));
    let token = client.get("/places/import").field("token");
    let bytes = crate::client::site_example("library-terraces");
    let preview = client.send_file("/places/import", &token, "library.json", &bytes).location().to_owned();
    let form = client.get(&preview).form(&preview);
    let place = press(&client, &preview, form).await;
    assert_eq!(client.get("/places").body.matches(&format!("href=\"{place}\"")).count(), 1);
}

/// The same form sent again with something else in it: it is refused, said, and can be sent on its own.
#[tokio::test(flavor = "multi_thread")]
async fn something_else_under_the_same_id_is_said_and_not_lost() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let form = with(
        client.get("/places/new").form("/places"),
        &[("latitude", "47.5"), ("longitude", "-122.2"), ("elevation", "210"), ("time_zone", "Europe/Zurich")],
    );
    assert_eq!(client.submit("/places", form.clone(), &[("name", "Library")]).status, 303);
    let other = client.submit("/places", form, &[("name", "Orchard")]);
    assert_eq!(other.status, 409, "{}", other.brief());
    assert!(other.body.contains("did something else already"));
    let sent = other.form("/places");
    assert_eq!(client.submit("/places", sent, &[]).status, 303);
    let places = client.get("/places").body;
    assert!(places.contains("Library") && places.contains("Orchard"));
}

/// Two people give a place its first weather at once: the second one sees both sides and chooses.
#[tokio::test(flavor = "multi_thread")]
async fn two_first_weathers_are_a_choice() {
    let server = Server::start(binary()).await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let (oda, tam) = (Client::signed_in(&server, "oda@example.com"), Client::signed_in(&server, "tam@example.com"));
    let place = oda.make_place("Library");
    let normals = format!("{place}/weather/normals");
    let months: Fields =
        (1..=12).flat_map(|m| [(format!("et0_{m}"), "3".to_owned()), (format!("rain_{m}"), "40".to_owned())]).collect();
    let months: Vec<(&str, &str)> = months.iter().map(|(k, v)| (k.as_str(), v.as_str())).collect();
    let forms = [&oda, &tam].map(|client| with(client.get(&normals).form(&normals), &months));
    let [first, second] = forms;
    assert_eq!(oda.submit(&normals, first, &[("name", "Oda's normals")]).status, 303);
    let choice = tam.submit(&normals, second, &[("name", "Tam's normals")]);
    assert_eq!(choice.status, 409, "{}", choice.brief());
    assert!(
        choice.body.contains("Oda&#39;s normals") && choice.body.contains("Tam&#39;s normals"),
        "{}",
        choice.brief()
    );
    let sent = choice.form(&normals);
    assert_eq!(tam.submit(&normals, sent, &[]).status, 303);
    assert!(tam.get(&format!("{place}/weather")).body.contains("Tam&#39;s normals"));
}

/// A file that was opened before somebody else gave the place its weather does not replace it in silence.
#[tokio::test(flavor = "multi_thread")]
async fn imports_one_after_another_do_not_replace_each_other_in_silence() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let place = client.make_place("Library");
    let files = format!("{place}/weather/files");
    let token = client.get(&format!("{place}/weather")).field("token");
    let previews: Vec<String> = ["first.csv", "second.csv"]
        .map(|name| client.send_file(&files, &token, name, SEATTLE).location().to_owned())
        .to_vec();
    let forms: Vec<Fields> = previews.iter().map(|p| client.get(p).form(p)).collect();
    let units = [("unit_1", "mm"), ("unit_2", "c"), ("unit_3", "c"), ("unit_4", "ms"), ("wind_height", "10")];
    let import = |n: usize| client.submit(&format!("{}/import", previews[n]), forms[n].clone(), &units);
    let first = import(0);
    assert_eq!(first.status, 303, "{}", first.brief());
    let second = import(1);
    assert_eq!(second.status, 409, "{}", second.brief());
    assert!(second.body.contains("first") && second.body.contains("second"), "{}", second.brief());
}
