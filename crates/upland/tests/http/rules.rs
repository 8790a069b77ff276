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
        ("done_by", "7:30 am"),
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
        "watering done by 07:30",
    ] {
        assert!(page.body.contains(said), "{said}: {}", page.brief());
    }
    assert_eq!((page.field("closed1from"), page.field("closed1to")), ("2026-07-04".into(), "2026-07-04".into()));
    assert!(page.body.contains("name=\"closed3from\""), "two more rows to fill in");
    // The week goes by them: its weekdays are on odd dates too, and nothing keeps it from the closed ones.
    let week = client.get(&format!("{controller}/week"));
    assert!(week.body.contains("not allowed on that date"), "{}", week.brief());
    assert!(!week.body.contains("No rain or freeze sensor is at work"), "the one in the shed is");
    assert!(week.body.contains("Watering here should be done by 07:30."), "{}", week.brief());
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
    for part in [
        "\"with_31st\": false",
        "\"needs_sensor\": true",
        "\"why\": \"summer fair\"",
        "\"from\": \"04:00\"",
        "\"done_by\": \"07:30\"",
    ] {
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
        ("done_by", "soon"),
    ];
    let refused = client.submit(&rules, form, &bad);
    assert_eq!(refused.status, 422);
    assert!(errors(&refused) >= 4, "{}", refused.brief());
    assert_eq!(refused.field("done_by"), "soon");
    let noon = client.submit(&rules, client.get(&rules).form(&rules), &[("done_by", "12:30")]);
    assert_eq!((noon.status, errors(&noon)), (422, 1), "{}", noon.brief());
    assert!(noon.body.contains("Enter a time from 05:00 to 12:00."), "{}", noon.brief());
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
        let keys = ["token", "action", "version"];
        form.into_iter().filter(|(name, _)| !keys.contains(&name.as_str()) && !name.starts_with("with_")).collect()
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

/// A season has days and hours of its own; what cannot be is said beside its field.
#[tokio::test(flavor = "multi_thread")]
async fn rules_of_a_season_bind_its_weeks_alone() {
    let (_server, client, rules, controller) = library().await;
    let entered = [
        ("s0from_month", "6"),
        ("s0from_day", "1"),
        ("s0to_month", "8"),
        ("s0to_day", "31"),
        ("s0by", "weekdays"),
        ("s0allow1", "1"),
        ("s0h0from", "09:00"),
        ("s0h0to", "20:00"),
    ];
    let form = client.get(&rules).form(&rules);
    for (field, value, said) in [
        ("s0from_day", "31", "Enter the month and a day that it has"),
        ("s0to_month", "", "Enter the month and a day that it has"),
        ("s0allow1", "", "These rules leave no day of the week"),
        ("s0h0to", "9:00", "These rules leave no hour of the day"),
    ] {
        let mut wrong = entered.to_vec();
        wrong.push((field, value));
        let refused = client.submit(&rules, form.clone(), &wrong);
        assert_eq!((refused.status, errors(&refused)), (422, 1), "{field} {value}: {}", refused.brief());
        assert!(refused.body.contains(said), "{said}: {}", refused.brief());
        assert!(refused.body.contains("<details class=\"season-rule\" open>"), "what was typed is in sight");
    }
    let saved = client.submit(&rules, form, &entered);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    let page = client.get(&rules);
    let said = "1 June to 31 August: no watering 09:00 to 20:00, never on Mon, Wed, Thu, Fri, Sat, Sun";
    assert!(page.body.contains(said), "{}", page.brief());
    assert_eq!((page.field("s0from_day"), page.field("s0to_day")), ("1".into(), "31".into()));
    // The week is in the season, and its program waters on other days; the rule is over on 1 September.
    let week = client.get(&format!("{controller}/week"));
    assert!(week.body.contains("Watering is not allowed on that day"), "{}", week.brief());
    let ahead = client.get("/ahead");
    assert!(ahead.body.contains("Other water rules from this day"), "{}", ahead.brief());
    let events = client.get("/ahead.ics").body;
    assert!(events.contains("DTSTART;VALUE=DATE:20260901") && events.contains("Other water rules"), "{events}");
    let file = client.get(&format!("{}/site.json", rules.trim_end_matches("/rules"))).body;
    assert!(file.contains("\"from\": \"06-01\"") && file.contains("\"to\": \"08-31\""), "{file}");
}

/// The rules of a town are changed once, for every place under them; what a place closes itself stays its own.
#[tokio::test(flavor = "multi_thread")]
async fn rules_of_an_authority_are_changed_for_all_its_places_in_one_step() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let paths: Vec<String> =
        ["Orchard walk", "Bocce court", "Glasshouse"].map(|name| format!("{}/rules", client.make_place(name))).into();
    // The form that is posted stands behind the one that fills it.
    let own_form = |page: &Answer, path: &str| page.forms(path).pop().unwrap();
    let at = |path: &str| own_form(&client.get(path), path);
    let town = [("by", "weekdays"), ("allow1", "1"), ("allow5", "1"), ("authority", "Town, article 4")];
    for (path, own) in paths.iter().zip(["never2", "never1", "never4"]) {
        let mut entered = town.to_vec();
        entered.push((own, "1"));
        assert_eq!(client.submit(path, at(path), &entered).status, 303);
    }
    let page = client.get(&paths[0]);
    assert!(page.body.contains("Places under the same rules") && page.body.contains(">Glasshouse</label>"));
    let ticked = |path: &str| {
        let form = at(path);
        ["allow1", "allow6", "never2", "never1", "never4"].map(|field| form.iter().any(|(name, _)| name == field))
    };
    // The glasshouse goes its own way from now on.
    let glasshouse = format!("with_{}", paths[2].split('/').nth(2).unwrap());
    let mut form = own_form(&page, &paths[0]);
    form.retain(|(field, _)| *field != glasshouse);
    let saved = client.submit(&paths[0], form, &[("allow6", "1")]);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    assert_eq!(ticked(&paths[0]), [true, true, true, false, false]);
    assert_eq!(ticked(&paths[1]), [true, true, false, true, false]);
    assert_eq!(ticked(&paths[2]), [true, false, false, false, true]);
    // One step back undoes both.
    client.undo("/places");
    assert_eq!(ticked(&paths[0]), [true, false, true, false, false]);
    assert_eq!(ticked(&paths[1]), [true, false, false, true, false]);
    // The court itself never waters on Tuesdays: a rule of Tuesdays alone would leave it no day, and nobody gets it.
    let refused = client.submit(&paths[0], at(&paths[0]), &[("allow5", "")]);
    assert_eq!((refused.status, errors(&refused)), (422, 1), "{}", refused.brief());
    assert!(refused.body.contains("Bocce court: These rules leave no day"), "{}", refused.brief());
    assert_eq!(ticked(&paths[0]), [true, false, true, false, false]);
}

/// What somebody else changes of a place meanwhile stays; a stale page of the place itself is a choice of two sides.
#[tokio::test(flavor = "multi_thread")]
async fn places_that_are_taken_along_keep_what_others_change_of_them_meanwhile() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let places: Vec<String> = ["Orchard walk", "Bocce court"].map(|name| client.make_place(name)).into();
    let rules: Vec<String> = places.iter().map(|place| format!("{place}/rules")).collect();
    let at = |path: &str| client.get(path).forms(path).pop().unwrap();
    for path in &rules {
        let town = [("by", "weekdays"), ("allow1", "1"), ("authority", "Town")];
        assert_eq!(client.submit(path, at(path), &town).status, 303);
    }
    let open = at(&rules[0]);
    let renamed = client.submit(&places[1], client.get(&places[1]).form(&places[1]), &[("name", "Covered court")]);
    assert_eq!(renamed.status, 303, "{}", renamed.brief());
    assert_eq!(client.submit(&rules[0], open.clone(), &[("allow4", "1")]).status, 303);
    let ticked = |path: &str, field: &str| at(path).iter().any(|(name, _)| name == field);
    assert!(ticked(&rules[0], "allow4") && ticked(&rules[1], "allow4"));
    assert!(client.get(&places[1]).body.contains("Covered court"));
    // The page that was open before is stale now: nothing is saved until somebody chooses.
    let mut stale = open;
    stale.retain(|(name, _)| name != "action");
    let choice = client.submit(&rules[0], stale, &[("allow5", "1")]);
    assert_eq!(choice.status, 409, "{}", choice.brief());
    assert!(!ticked(&rules[0], "allow5") && !ticked(&rules[1], "allow5"));
    let mine = client.submit(&rules[0], choice.form(&rules[0]), &[]);
    assert_eq!(mine.status, 303, "{}", mine.brief());
    assert!(ticked(&rules[0], "allow5") && ticked(&rules[1], "allow5"), "one press takes both along");
}
