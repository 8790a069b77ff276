//! An ET sensor by its own sheet: set up, dialled in, and judged on a round.

use upland_journeys::Server;

use crate::client::{Client, binary};

/// A sheet of two steps with ranges and seven offsets, as somebody types it.
const SHEET: [(&str, &str); 14] = [
    ("place", "Roof ridge"),
    ("etA", "1"),
    ("climate", "Warm"),
    ("offset", "0"),
    ("step0", "Cool"),
    ("step0from", "2"),
    ("step0to", "4"),
    ("step1", "Warm"),
    ("step1from", "4"),
    ("step1to", "6"),
    ("offsets", "-3; -2; -1; 0; 1; 2; 3"),
    ("neutral", "0"),
    ("offset_step", "5"),
    ("jumper", "yes"),
];

/// The sensor form's page, the rows of the example sheet that the typed one does not use left empty.
fn typed<'a>(changes: &[(&'a str, &'a str)]) -> Vec<(&'a str, &'a str)> {
    const UNUSED: [&str; 12] = [
        "step2",
        "step2from",
        "step2to",
        "step3",
        "step3from",
        "step3to",
        "step4",
        "step4from",
        "step4to",
        "step5",
        "step5from",
        "step5to",
    ];
    SHEET.into_iter().chain(UNUSED.map(|field| (field, ""))).chain(changes.iter().copied()).collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_sensor_is_set_by_its_own_sheet_and_moved_by_its_own_marks() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let sensors = format!("{controller}/sensors");
    let form = || client.get(&format!("{sensors}?kind=et")).form(&sensors);
    for (field, value, said) in [
        ("climate", "Hot", "Enter one of the marks on its dial: Cool, Warm."),
        ("step0to", "9", "Enter 1 to 12 climate steps, from cool to hot."),
        ("step1", "", "Enter a mark of 1 to 12 characters."),
        ("offsets", "1; 1", "Enter one of the marks on its dial: 1, 1."),
        ("neutral", "7", "Enter one of the marks on its dial: -3, -2, -1, 0, 1, 2, 3."),
        ("offset_step", "40", "The lowest offset would leave less than 5"),
        ("offset_step", "0", "1 to 50"),
    ] {
        let refused = client.submit(&sensors, form(), &typed(&[(field, value)]));
        assert_eq!(refused.status, 422, "{field}: {}", refused.brief());
        assert!(refused.body.contains(said), "{said}: {}", refused.brief());
        assert_eq!(refused.field(field), value, "what was typed stays");
    }
    let saved = client.submit(&sensors, form(), &typed(&[("climate", "warm")]));
    assert_eq!(saved.status, 303, "{}", saved.brief());
    // Nobody dials or drags what the sensor sets; the other programs are dialled as before.
    let year = |letter| client.get(&format!("{controller}/year?program={letter}")).body;
    assert!(!year('A').contains("id=\"percent\"") && !year('A').contains("role=\"slider\""));
    assert!(year('B').contains("id=\"percent\"") && year('B').contains("role=\"slider\""));
    let page = client.get(saved.location());
    assert!(page.body.contains("climate step Warm, offset 0"), "{}", page.brief());
    assert_eq!((page.field("step1from").as_str(), page.field("step1to").as_str()), ("4", "6"));

    // The round takes the percent that stands there; what is read low moves the offset by its marks.
    let round = format!("{controller}/round");
    let page = client.get(&round);
    let called: f64 = page.field("pctA").parse().unwrap();
    assert!(page.body.contains("June needs"), "{}", page.brief());
    let low = format!("{:.0}", called * 0.9);
    let preview = client.submit(&format!("{round}/preview"), page.form(&round), &[("pctA", &low)]);
    assert!(preview.body.contains("offset for A"), "{}", preview.brief());
    assert!(preview.body.contains("The sensor sets it anew every night"), "{}", preview.brief());
    assert!(!preview.body.contains("set it back"), "{}", preview.brief());
    let offer = preview.field("offered");
    assert!(offer.starts_with("offset.") && offer.ends_with(".4.6"), "{offer}");
    let answered =
        client.submit(&round, page.form(&round), &[("pctA", &low), ("answer", "accept"), ("offered", &offer)]);
    assert_eq!(answered.status, 303, "{}", answered.brief());
    let page = client.get(&sensors);
    assert!(page.body.contains("climate step Warm, offset 2"), "{}", page.brief());
    // The log keeps the change by its marks, and the sensor's dial is on the list to dial.
    let log = client.get(&format!("{controller}/log")).body;
    assert!(log.contains("2 steps"), "{log}");
}
