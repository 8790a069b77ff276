//! A station's application rate, measured in four ways.

use upland_journeys::Server;

use crate::client::{Client, binary};

/// The cans of set A of the worked examples: 16 in mL, 100 cm² of opening, 10 minutes.
const CANS: [&str; 16] =
    ["42", "55", "61", "48", "70", "66", "58", "52", "39", "47", "63", "72", "68", "50", "44", "65"];

#[tokio::test(flavor = "multi_thread")]
async fn cans_give_rate_and_uniformity_and_stay_on_record() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let sheet = format!("{controller}/stations/1/measure");
    let form = client.get(&sheet).form(&sheet);
    // Round cans of 11.28 cm across have an opening of 100 cm².
    let names: Vec<String> = (0..16).map(|n| format!("can_{}_{}", n / 4, n % 4)).collect();
    let mut cans: Vec<(&str, &str)> = names.iter().map(String::as_str).zip(CANS).collect();
    cans.extend([("minutes", "10"), ("opening", "11.2838"), ("note", "no wind")]);
    let live = client.submit(&format!("{sheet}/preview"), form.clone(), &cans);
    assert!(live.body.contains("33.7<small>mm/h") || live.body.contains("33.8<small>mm/h"), "{}", live.brief());
    assert!(live.body.contains("0.76") && live.body.contains("1.16"), "{}", live.brief());
    assert_eq!(live.body.matches("is-dry").count(), 4, "the dry quarter is marked");
    let saved = client.submit(&sheet, form.clone(), &cans);
    assert_eq!(saved.location(), format!("{controller}/stations?station=1"), "{}", saved.brief());
    let stations = client.get(&format!("{controller}/stations"));
    let rate: f64 = stations.field("s1_rate_mm_h").parse().unwrap();
    assert!((rate - 33.75).abs() < 0.01, "{rate}");
    assert!(client.get(&sheet).body.contains("no wind"));
    let log = client.get(&format!("{controller}/log"));
    assert!(log.body.contains("measured: 33.8") || log.body.contains("measured: 33.7"), "{}", log.brief());
    // Sent again it is kept once; the rate goes back with undo, the record of what was seen stays.
    assert_eq!(client.submit(&sheet, form, &cans).status, 303);
    assert_eq!(client.get(&sheet).body.matches("no wind").count(), 1);
    client.undo(&sheet);
    assert_ne!(client.get(&format!("{controller}/stations")).field("s1_rate_mm_h"), stations.field("s1_rate_mm_h"));
    assert!(client.get(&sheet).body.contains("no wind"));
}

#[tokio::test(flavor = "multi_thread")]
async fn meter_flow_and_emitters_give_a_rate_and_mistakes_are_said_at_their_field() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let sheet = format!("{controller}/stations/4/measure");
    let live = |typed: &[(&str, &str)]| {
        let form = client.get(&sheet).form(&sheet);
        client.submit(&format!("{sheet}/preview"), form, typed).body
    };
    let meter = [("by", "meter"), ("before", "812.4"), ("after", "813"), ("meter_minutes", "20"), ("area", "90")];
    assert!(live(&meter).contains(">20.0<small>mm/h"), "{}", live(&meter));
    assert!(live(&[("by", "flow"), ("flow", "30"), ("area", "90")]).contains(">20.0<small>mm/h"));
    assert!(
        live(&[("by", "emitters"), ("emitter", "2.3"), ("spacing", "0.3"), ("rows_apart", "0.5")])
            .contains(">15.3<small>")
    );
    assert!(live(&[("by", "cans")]).contains("Enter the readings"));
    for (typed, said) in [
        (
            vec![("by", "meter"), ("before", "813"), ("after", "812"), ("meter_minutes", "20"), ("area", "90")],
            "must be higher",
        ),
        (vec![("by", "flow"), ("flow", "4000"), ("area", "2")], "no rate that sprinklers have"),
        (vec![("by", "flow"), ("flow", "much"), ("area", "90")], "is not a number"),
        (vec![("by", "cans"), ("minutes", "10"), ("can_0_0", "4"), ("can_0_1", "5")], "at least 4 cans"),
        (vec![("by", "cans"), ("minutes", "10"), ("can_0_0", "-4")], "0 to 500"),
    ] {
        let refused = client.submit(&sheet, client.get(&sheet).form(&sheet), &typed);
        assert_eq!(refused.status, 422, "{typed:?}");
        assert!(refused.body.contains(said), "{said}: {}", refused.brief());
    }
    // Another grid keeps what was typed; a station that is not there has no sheet.
    let grid = client.get(&format!("{sheet}?rows=2&columns=3&can_0_2=7&minutes=12"));
    assert_eq!((grid.body.matches("name=\"can_").count(), grid.field("can_0_2").as_str()), (6, "7"));
    assert_eq!(client.get(&format!("{controller}/stations/40/measure")).status, 404);
}

/// Stations side by side tell what the worksheet tells of each.
#[tokio::test(flavor = "multi_thread")]
async fn stations_are_compared_by_the_figures_of_the_worksheet() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let list = client.get("/rounds?q=Boiler");
    let controller = list.link("/controllers/", "").split('?').next().unwrap().replace("/round", "");
    let stations = format!("{controller}/stations");
    let compare = client.get(&format!("{stations}/compare?n=4&n=1&n=4&n=99&n=x"));
    assert_eq!(compare.status, 200, "{}", compare.brief());
    let minutes: Vec<&str> =
        compare.body.split("<b class=\"dial fig\">").skip(1).map(|b| b.split('<').next().unwrap()).collect();
    assert_eq!(minutes.len(), 2, "each once: {}", compare.brief());
    for (station, minutes) in [1, 4].into_iter().zip(minutes) {
        let sheet = client.get(&format!("{stations}?station={station}"));
        assert!(sheet.body.contains(&format!("<p class=\"dial fig\">{minutes}<small>min</small>")), "{station}");
    }
    assert!(client.get(&format!("{stations}/compare")).body.contains("value=\"3\" checked"), "the first three");
    let empty = client.get("/rounds?q=Pump").link("/controllers/", "").split('?').next().unwrap().replace("/round", "");
    let nothing = client.get(&format!("{empty}/stations/compare"));
    assert!(nothing.body.contains("nothing to compare"), "{}", nothing.brief());
}

/// Published coefficients are filled in to be looked at, and count once they are saved.
#[tokio::test(flavor = "multi_thread")]
async fn turf_takes_the_published_coefficients_of_its_months() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let stations = format!("{controller}/stations");
    let filled = client.get(&format!("{stations}?station=1&fill=turf"));
    assert!(filled.body.contains("not saved yet"), "{}", filled.brief());
    // Meyer and Gibeault 1986-87, cool-season turf; the place lies north of the equator.
    assert!(filled.field("s1_k_by_month").starts_with("0.61 0.64 0.75 1.04"), "{}", filled.field("s1_k_by_month"));
    assert_eq!(client.get(&stations).field("s1_k_by_month"), "", "nothing is saved by looking");
    let saved = client.submit(&stations, filled.form(&stations), &[]);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    assert!(client.get(&stations).field("s1_k_by_month").starts_with("0.61 0.64"));
    // A bed has none, and another station stays as it is.
    let bed = client.get(&format!("{stations}?station=4&fill=turf"));
    assert!(!bed.body.contains("not saved yet") && bed.field("s4_k_by_month").is_empty(), "{}", bed.brief());
}
