//! Lists across places.

use chrono::{NaiveDate, TimeDelta, Utc};
use upland_formats::site::FieldDoc;
use upland_store::*;
use uuid::Uuid;

use crate::fixture::{Company, company, controller, dialled, place, record, round, store};

async fn named(c: &Company, place_id: Uuid, name: &str) -> Uuid {
    let id = Uuid::new_v4();
    let mut record = controller(place_id);
    record.controller.name = name.into();
    c.put(id, 0, Record::Controller(Some(record))).await.unwrap();
    id
}

fn names(part: &Part<ControllerHead>) -> Vec<&str> {
    part.items.iter().map(|head| head.name.as_str()).collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn heads_are_searched_sorted_and_cut() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (hill, mill) = (Uuid::new_v4(), Uuid::new_v4());
    c.put(hill, 0, Record::Place(Some(place("Hill 100%", None)))).await.unwrap();
    c.put(mill, 0, Record::Place(Some(place("Mill", None)))).await.unwrap();
    for (at, name) in [(mill, "Yard"), (hill, "Upper gate"), (hill, "Lower gate")] {
        named(&c, at, name).await;
    }
    let ask = async |filter: HeadFilter| c.account.heads(&filter).await.unwrap();
    let all = ask(HeadFilter::default()).await;
    assert_eq!((names(&all), all.total), (vec!["Lower gate", "Upper gate", "Yard"], 3));
    assert_eq!((all.items[0].stations, all.items[0].time_zone.as_str()), (1, "Europe/Zurich"));
    let second = ask(HeadFilter { skip: 1, most: Some(1), ..HeadFilter::default() }).await;
    assert_eq!((names(&second), second.total), (vec!["Upper gate"], 3));
    for (text, found) in [("GATE", 2), ("mill", 1), ("100%", 2), ("%", 2), ("_", 0), ("nothing", 0)] {
        let filter = HeadFilter { text: text.into(), ..HeadFilter::default() };
        assert_eq!(ask(filter).await.items.len(), found, "{text}");
    }
    let part = c.account.places_part("yard", 0, 10).await.unwrap();
    assert_eq!((part.items.len(), part.items[0].value.place.name.as_str()), (1, "Mill"), "by its controller");
    assert_eq!(c.account.places_part("", 1, 1).await.unwrap().total, 2);
}

/// What lists go by is what the newest records say, in whatever order they come.
#[tokio::test(flavor = "multi_thread")]
async fn a_head_knows_the_last_visit_and_when_to_look_again() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (_, place_id, id) = c.furnish().await;
    let other = named(&c, place_id, "Never visited").await;
    let day = |d| NaiveDate::from_ymd_opt(2026, 6, d).unwrap();
    let dated = |mut document: FieldDoc, on: u32, look_again: u32, days_ago: i64| {
        match &mut document {
            FieldDoc::Round(doc) => (doc.on, doc.look_again) = (day(on), day(look_again)),
            FieldDoc::Dialled(doc) => (doc.on, doc.look_again) = (day(on), day(look_again)),
            FieldDoc::Found(_) | FieldDoc::Measured(_) => {}
        }
        FieldRecord { at: Utc::now() - TimeDelta::days(days_ago), ..record(id, document) }
    };
    // The dialling of the 15th comes from a phone that was without a network, after the round of the 20th.
    for one in [dated(round(), 20, 28, 1), dated(dialled(), 15, 29, 6)] {
        let mut action = c.action(Vec::new());
        action.records.push(one);
        c.account.apply(&action).await.unwrap();
    }
    let part = c.account.heads(&HeadFilter { by_look_again: true, ..HeadFilter::default() }).await.unwrap();
    assert_eq!(part.items.iter().map(|head| head.id).collect::<Vec<_>>(), [id, other], "never visited stands last");
    let head = &part.items[0];
    assert_eq!((head.last_visit, head.look_again), (Some(day(20)), Some(day(28))));
    let newest = c.account.newest_records(&[id]).await.unwrap();
    assert_eq!(head.recorded_at, newest.iter().map(|r| r.at).max());
    // A change of the controller leaves what is known of its visits.
    c.put(id, 1, Record::Controller(Some(controller(place_id)))).await.unwrap();
    let after = c.account.heads(&HeadFilter { text: "cabinet".into(), ..HeadFilter::default() }).await.unwrap();
    assert_eq!((after.items[0].version, after.items[0].look_again), (2, Some(day(28))));
}
