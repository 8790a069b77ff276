//! The water rules of a place, from their form to the week and the site file.

use upland_journeys::Server;

use crate::client::{Answer, Client, binary};

async fn library() -> (Server, Client, String, String) {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (place, controller) = client.import_site("library-terraces");
    (server, client, format!("{place}/rules"), controller)
}

fn errors(answer: &Answer) -> usize {
    answer.body.matches("class=\"errm\"").count()
}

#[tokio::test(flavor = "multi_thread")]
async fn dates_by_the_house_number_closed_dates_and_a_required_sensor_are_kept_and_bind_the_week() {
    let (_server, client, rules, controller) = library().await;
    let form = client.get(&rules).form(&rules);
    let entered = [
        ("by", "date"),
        ("with_31st", "no"),
        ("closed0from", "2026-06-12"),
        ("closed0to", "2026-06-13"),
        ("closed0why", "summer fair"),
        ("closed1from", "2026-07-04"),
        ("ban_from", "2026-06-08"),
        ("ban_to", "2026-06-10"),
        ("ban_hour_from", "4:00 am"),
        ("ban_hour_to", "05:00"),
        ("needs_sensor", "yes"),
    ];
    let saved = client.submit(&rules, form, &entered);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let page = client.get(&rules);
    for said in [
        "even dates only",
        "closed 12 June to 13 June (summer fair)",
        "closed 4 July",
        "no watering 04:00 to 05:00, 8 June to 10 June",
        "a working rain or freeze sensor is required",
    ] {
        assert!(page.body.contains(said), "{said}: {}", page.brief());
    }
    assert_eq!((page.field("closed1from"), page.field("closed1to")), ("2026-07-04".into(), "2026-07-04".into()));
    assert!(page.body.contains("name=\"closed3from\""), "two more rows to fill in");
    // The week goes by them: its weekdays are on odd dates too, and nothing keeps it from the closed ones.
    let week = client.get(&format!("{controller}/week"));
    assert!(week.body.contains("not allowed on that date"), "{}", week.brief());
    assert!(!week.body.contains("No rain or freeze sensor is at work"), "the one in the shed is");
    let temporary = format!("{controller}/temporary");
    for sensor in ["1", "2"] {
        let bypass = [("kind", "bypass"), ("sensor", sensor), ("until", "2026-06-20"), ("reason", "seed")];
        assert_eq!(client.submit(&temporary, client.get(&temporary).form(&temporary), &bypass).status, 303);
    }
    let week = client.get(&format!("{controller}/week"));
    assert!(week.body.contains("No rain or freeze sensor is at work"), "{}", week.brief());
    // And so does the site file, there and back.
    let place = rules.trim_end_matches("/rules");
    let file = client.get(&format!("{place}/site.json")).body;
    for part in ["\"with_31st\": false", "\"needs_sensor\": true", "\"why\": \"summer fair\"", "\"from\": \"04:00\""] {
        assert!(file.contains(part), "{part} in {file}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn closed_dates_that_cannot_be_are_said_beside_their_field_and_nothing_typed_is_lost() {
    let (_server, client, rules, _) = library().await;
    let form = client.get(&rules).form(&rules);
    let bad = [
        ("closed0from", "2026-06-12"),
        ("closed0to", "2026-06-10"),
        ("closed1why", "mowing"),
        ("ban_hour_from", "25:00"),
        ("ban_hour_to", "05:00"),
    ];
    let refused = client.submit(&rules, form, &bad);
    assert_eq!(refused.status, 422);
    assert!(errors(&refused) >= 3, "{}", refused.brief());
    assert_eq!((refused.field("closed1why"), refused.field("ban_hour_from")), ("mowing".into(), "25:00".into()));
    assert!(client.get(&rules).body.contains("value=\"\""), "nothing was stored");
    assert_eq!(client.get(&rules).field("closed0from"), "");
}

#[tokio::test(flavor = "multi_thread")]
async fn the_rules_of_another_place_fill_the_form_and_nothing_is_saved_until_they_are() {
    let (_server, client, rules, _) = library().await;
    let orchard = client.make_place("Orchard");
    let address = format!("{orchard}/rules");
    let page = client.get(&address);
    assert!(page.body.contains("Begin with the rules of"), "{}", page.brief());
    // The form that is posted stands behind the one that fills it.
    let own_form = |page: &Answer| page.forms(&address).pop().unwrap();
    let own = own_form(&page);
    let other = rules.trim_start_matches("/places/").trim_end_matches("/rules");
    let filled = client.get(&format!("{address}?like={other}"));
    assert!(filled.body.contains("Filled in, not saved yet."), "{}", filled.brief());
    // All but the keys of the form are those of the library.
    let values = |form: Vec<(String, String)>| -> Vec<(String, String)> {
        form.into_iter().filter(|(name, _)| !["token", "action", "version"].contains(&name.as_str())).collect()
    };
    let library = values(client.get(&rules).form(&rules));
    assert_eq!(values(own_form(&filled)), library);
    assert_ne!(library, values(own));
    assert!(!client.get(&address).body.contains("Filled in"), "nothing was saved");
    assert_eq!(client.submit(&address, own_form(&filled), &[]).status, 303);
    assert_eq!(values(own_form(&client.get(&address))), library);
    let nowhere = format!("{address}?like=00000000-0000-0000-0000-000000000001");
    assert_eq!(client.get(&nowhere).status, 404, "no such place, or another company's");
}
