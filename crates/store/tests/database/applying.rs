use chrono::NaiveDate;
use upland_formats::site::FieldDoc;
use upland_store::*;
use uuid::Uuid;

use crate::fixture::{company, controller, decision, dialled, hours, place, record, revision, round, series, store};

#[tokio::test(flavor = "multi_thread")]
async fn what_goes_in_comes_out() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (series_id, place_id, controller_id) = c.furnish().await;
    let found = c.account.controller(controller_id).await.unwrap();
    assert_eq!((found.version, &found.value), (1, &controller(place_id)));
    assert_eq!(c.account.place(place_id).await.unwrap().value, place("Library", Some(series_id)));
    let (record, summary) = c.account.series(series_id).await.unwrap();
    assert_eq!(record.value, series(summary.id));
    assert_eq!((summary.day_count, summary.first_day), (400, NaiveDate::from_ymd_opt(1990, 1, 1)));
    let normals = c.account.normals(summary.id).await.unwrap();
    assert_eq!(normals, revision(0).normals);
    let day = |y, m, d| NaiveDate::from_ymd_opt(y, m, d).unwrap();
    let february = c.account.days_between(&[summary.id], [day(1990, 2, 1), day(1990, 2, 28)]).await.unwrap();
    assert_eq!((february.len(), february[0].0), (28, summary.id));
    let all = c.account.weather_days(summary.id).await.unwrap();
    assert!(february.iter().map(|(_, day)| day).eq(&all[31..59]));
    assert_eq!((february[0].1.et0_mm, february[0].1.rain_mm), (Some(3.25), Some(1.5)));
    let days = c.account.record_days(summary.id).await.unwrap();
    let read: Vec<_> = days.iter().map(|d| (d.weather, d.et0_mm)).collect();
    let put_in: Vec<_> = revision(400).days.into_iter().map(|d| (d, Some(3.25))).collect();
    assert_eq!(read, put_in);
    let with_hours: Vec<_> = days.iter().filter(|d| d.has_hours).map(|d| d.weather.date).collect();
    assert_eq!(with_hours, [day(1990, 1, 1)]);
    assert_eq!(c.account.weather_decisions(summary.id).await.unwrap(), [decision(day(1990, 1, 1))]);
}

/// A later import says which hours still count: they are neither copied nor lost, and undo brings back the others.
#[tokio::test(flavor = "multi_thread")]
async fn hours_belong_to_the_import_that_brought_them() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (series_id, ..) = c.furnish().await;
    let first = NaiveDate::from_ymd_opt(1990, 1, 1).unwrap();
    let second = first.succ_opt().unwrap();
    let (record, summary) = c.account.series(series_id).await.unwrap();
    let known = c.account.record_hours(summary.id, None).await.unwrap();
    assert_eq!(known, HoursOnRecord::from([(first, DayHours { brought_by: Some(summary.id), hours: hours(first) })]));
    let mut next = NewRevision { hours: known.clone(), ..revision(400) };
    next.hours.insert(second, DayHours { brought_by: None, hours: hours(second) });
    let next_id = next.id;
    let after = SeriesRecord { revision_id: next_id, ..record.value.clone() };
    c.put(series_id, 1, Record::Series(Some(after), Some(Box::new(next)))).await.unwrap();
    let both = c.account.record_hours(next_id, None).await.unwrap();
    assert_eq!(both.values().map(|day| day.brought_by).collect::<Vec<_>>(), [Some(summary.id), Some(next_id)]);
    assert_eq!(both[&second].hours, hours(second));
    let of_second = c.account.record_hours(next_id, Some([second, second])).await.unwrap();
    assert_eq!(of_second.into_keys().collect::<Vec<_>>(), [second]);
    // Undo points back to the import before.
    c.put(series_id, 2, Record::Series(Some(record.value), None)).await.unwrap();
    let (_, back) = c.account.series(series_id).await.unwrap();
    assert_eq!(back.id, summary.id);
    assert_eq!(c.account.record_hours(back.id, None).await.unwrap(), known);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_stale_version_is_refused_and_nothing_is_written() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (_, place_id, controller_id) = c.furnish().await;
    c.put(place_id, 1, Record::Place(Some(place("Renamed", None)))).await.unwrap();
    // One action, two writes, the second on an old version: the first must not stand either.
    let mut changed = controller(place_id);
    changed.controller.name = "Changed".into();
    let write = |id, record| Write { id, made_on: 1, record };
    let action = c.action(vec![
        write(controller_id, Record::Controller(Some(changed))),
        write(place_id, Record::Place(Some(place("Mine", None)))),
    ]);
    let error = c.account.apply(&action).await.unwrap_err();
    assert!(matches!(error, StoreError::Conflict { id, kind: Kind::Place, expected: 1, current: 2 } if id == place_id));
    assert_eq!(c.account.controller(controller_id).await.unwrap().value.controller.name, "Cabinet");
    assert_eq!(c.account.place(place_id).await.unwrap().value.place.name, "Renamed");
}

#[tokio::test(flavor = "multi_thread")]
async fn the_same_action_twice_is_harmless() {
    let store = store().await;
    let c = company(&store, "one").await;
    let id = Uuid::new_v4();
    let action = c.action(vec![Write::new(id, Record::Place(Some(place("Once", None))))]);
    assert_eq!(c.account.apply(&action).await.unwrap(), "/here");
    // Another address the second time: it is led to where the first one went.
    let again = Action { leads_to: "/there".into(), ..action.clone() };
    assert_eq!(c.account.apply(&again).await.unwrap(), "/here");
    assert_eq!(c.account.place(id).await.unwrap().version, 1);
    assert_eq!(c.account.log(id, 10).await.unwrap().len(), 1);
    assert_eq!(c.account.done_already(action.id, b"as sent").await.unwrap().as_deref(), Some("/here"));
    assert_eq!(c.account.done_already(Uuid::new_v4(), b"as sent").await.unwrap(), None);
}

#[tokio::test(flavor = "multi_thread")]
async fn eight_at_once_do_an_action_once() {
    let store = Store::new(&testing::fresh_database().await.unwrap(), 8).unwrap();
    let c = company(&store, "one").await;
    let id = Uuid::new_v4();
    let action = c.action(vec![Write::new(id, Record::Place(Some(place("Once", None))))]);
    let presses: Vec<_> = (0..8)
        .map(|n| {
            // Each press has made a key of its own for the new thing, as a handler does.
            let mut action = action.clone();
            action.leads_to = format!("/{n}");
            action.writes[0].id = Uuid::new_v4();
            let account = c.account.clone();
            tokio::spawn(async move { account.apply(&action).await.unwrap() })
        })
        .collect();
    let mut led_to = Vec::new();
    for press in presses {
        led_to.push(press.await.unwrap());
    }
    led_to.dedup();
    assert_eq!(led_to.len(), 1, "{led_to:?}");
    assert_eq!(c.account.places().await.unwrap().len(), 1);
}

#[tokio::test(flavor = "multi_thread")]
async fn something_else_under_the_same_id_is_refused() {
    let store = store().await;
    let c = company(&store, "one").await;
    let first = c.action(vec![Write::new(Uuid::new_v4(), Record::Place(Some(place("One", None))))]);
    c.account.apply(&first).await.unwrap();
    let other = Action {
        id: first.id,
        digest: b"something else".to_vec(),
        ..c.action(vec![Write::new(Uuid::new_v4(), Record::Place(Some(place("Two", None))))])
    };
    assert!(matches!(c.account.apply(&other).await, Err(StoreError::OtherContent)));
    assert!(matches!(c.account.done_already(first.id, b"something else").await, Err(StoreError::OtherContent)));
    assert_eq!(c.account.places().await.unwrap().len(), 1);
}

#[tokio::test(flavor = "multi_thread")]
async fn an_action_that_was_refused_can_be_done_under_its_id() {
    let store = store().await;
    let c = company(&store, "one").await;
    let id = Uuid::new_v4();
    c.put(id, 0, Record::Place(Some(place("One", None)))).await.unwrap();
    let mut action = c.action(vec![Write { id, made_on: 7, record: Record::Place(Some(place("Two", None))) }]);
    assert!(matches!(c.account.apply(&action).await, Err(StoreError::Conflict { .. })));
    action.writes[0].made_on = 1;
    c.account.apply(&action).await.unwrap();
    assert_eq!(c.account.place(id).await.unwrap().value.place.name, "Two");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_thing_that_something_depends_on_stays() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (_, place_id, _) = c.furnish().await;
    assert!(matches!(c.put(place_id, 1, Record::Place(None)).await, Err(StoreError::InUse)));
    assert_eq!(c.account.place(place_id).await.unwrap().version, 1);
}

#[tokio::test(flavor = "multi_thread")]
async fn versions_go_on_after_a_thing_was_removed() {
    let store = store().await;
    let c = company(&store, "one").await;
    let id = Uuid::new_v4();
    c.put(id, 0, Record::Place(Some(place("Here", None)))).await.unwrap();
    c.put(id, 1, Record::Place(None)).await.unwrap();
    assert!(matches!(c.account.place(id).await, Err(StoreError::NotFound)));
    c.put(id, 2, Record::Place(Some(place("Again", None)))).await.unwrap();
    assert_eq!(c.account.place(id).await.unwrap().version, 3);
}

#[tokio::test(flavor = "multi_thread")]
async fn undo_finds_the_last_action_that_was_not_undone() {
    let store = store().await;
    let c = company(&store, "one").await;
    let id = Uuid::new_v4();
    let first = c.put(id, 0, Record::Place(Some(place("One", None)))).await.unwrap();
    let second = c.put(id, 1, Record::Place(Some(place("Two", None)))).await.unwrap();
    let last = async || c.account.visitor(c.user).await.unwrap().last_action.map(|line| line.id);
    assert_eq!(last().await, Some(second));
    let mut undo = c.action(vec![Write { id, made_on: 2, record: Record::Place(Some(place("One", None))) }]);
    undo.undoes = Some(second);
    c.account.apply(&undo).await.unwrap();
    assert_eq!(last().await, Some(first));
    assert_eq!(c.account.visitor(c.user).await.unwrap().last_action.map(|line| line.id), Some(first));
    let again = Action { id: Uuid::new_v4(), ..undo };
    assert!(matches!(c.account.apply(&again).await, Err(StoreError::UndoneAlready)));
    let changes = c.account.changes_of(c.user, second).await.unwrap();
    let names: Vec<_> = changes
        .iter()
        .map(|e| (&e.before, &e.after))
        .map(|(b, a)| [b, a].map(|d| d.clone().unwrap()["name"].clone()))
        .collect();
    assert_eq!(names, [["One", "Two"]]);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_hundred_years_go_in_as_one_batch() {
    let store = store().await;
    let c = company(&store, "one").await;
    let revision = revision(36_525);
    let id = Uuid::new_v4();
    c.put(id, 0, Record::Series(Some(series(revision.id)), Some(Box::new(revision)))).await.unwrap();
    assert_eq!(c.account.series(id).await.unwrap().1.day_count, 36_525);
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_written_down_in_the_field_is_added_once_and_never_changed() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (.., controller_id) = c.furnish().await;
    let mut action = c.action(Vec::new());
    let first = record(controller_id, dialled());
    action.records = vec![first.clone(), record(controller_id, round())];
    c.account.apply(&action).await.unwrap();
    // The same again, changed on its way: what stands first stays.
    if let FieldDoc::Dialled(doc) = &mut action.records[0].document {
        doc.version = 99;
    }
    action.id = Uuid::new_v4();
    c.account.apply(&action).await.unwrap();
    assert_ne!(
        c.account.visitor(c.user).await.unwrap().last_action.map(|line| line.id),
        Some(action.id),
        "no undo of it"
    );
    let all = c.account.field_records(controller_id, 10).await.unwrap();
    assert_eq!(all.len(), 2);
    assert!(all.iter().any(|r| r.id == first.id && r.document == first.document));
    let mut later = record(controller_id, dialled());
    later.at += chrono::TimeDelta::hours(1);
    let mut again = c.action(Vec::new());
    again.records = vec![later.clone()];
    c.account.apply(&again).await.unwrap();
    let newest = c.account.newest_records(&[controller_id]).await.unwrap();
    assert_eq!(newest.len(), 2, "one of each kind");
    assert!(newest.iter().any(|r| r.id == later.id));
}

#[tokio::test(flavor = "multi_thread")]
async fn the_log_holds_what_was_there_before_and_undo_reads_it_back() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (_, place_id, controller_id) = c.furnish().await;
    let before = controller(place_id);
    let mut changed = before.clone();
    changed.controller.name = "Changed".into();
    c.put(controller_id, 1, Record::Controller(Some(changed.clone()))).await.unwrap();
    let log = c.account.log(controller_id, 10).await.unwrap();
    assert_eq!(log.len(), 2);
    assert_eq!((log[1].before.as_ref(), &log[1].after), (None, &log[0].before));
    assert_eq!(log[0].after, Record::Controller(Some(changed)).document());
    assert_eq!(log[0].record_before().unwrap(), Record::Controller(Some(before)));
    assert_eq!(log[1].record_before().unwrap(), Record::Controller(None));
}

/// The plan of a day that is long gone: the newest document at its moment, and where the log does not reach back
/// so far, the oldest.
#[tokio::test(flavor = "multi_thread")]
async fn a_controller_comes_back_as_it_was_at_an_instant() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (_, place_id, id) = c.furnish().await;
    let after = |days| chrono::Utc::now() + chrono::TimeDelta::days(days);
    for (version, name, days) in [(1, "In May", 10), (2, "In June", 20)] {
        let mut record = controller(place_id);
        record.controller.name = name.into();
        let write = Write { id, made_on: version, record: Record::Controller(Some(record)) };
        let action = Action { at: after(days), ..c.action(vec![write]) };
        c.account.apply(&action).await.unwrap();
    }
    let at = async |days| {
        let (found, is_known) = c.account.controller_as_of(id, after(days)).await.unwrap().unwrap();
        (found.version, found.value.controller.name, is_known)
    };
    assert_eq!(at(15).await, (2, "In May".to_owned(), true));
    assert_eq!(at(25).await, (3, "In June".to_owned(), true));
    assert_eq!(at(-5).await, (1, "Cabinet".to_owned(), false));
    let version = c.account.controller_version(id, 2).await.unwrap().unwrap();
    assert_eq!(version.controller.name, "In May");
    assert!(c.account.controller_version(id, 9).await.unwrap().is_none());
    let removed = Write { id, made_on: 3, record: Record::Controller(None) };
    c.account.apply(&Action { at: after(30), ..c.action(vec![removed]) }).await.unwrap();
    assert_eq!(at(25).await, (3, "In June".to_owned(), true), "what was removed later was there then");
}
