//! One company never sees or changes another's rows: every query of [`Account`] is asked here with
//! the keys of a neighbour that has everything.

use chrono::NaiveDate;
use upland_core::controller::Station;
use upland_core::landscape::{Plant, Soil, SprinklerType};
use upland_store::*;

use crate::fixture::{company, controller, place, record, revision, round, series, store};

#[tokio::test(flavor = "multi_thread")]
async fn nothing_of_a_neighbour_is_seen() {
    let store = store().await;
    let neighbour = company(&store, "neighbour").await;
    let (series_id, place_id, controller_id) = neighbour.furnish().await;
    let me = company(&store, "me").await.account;
    // What was read for them is kept, and not for me.
    neighbour.account.controller(controller_id).await.unwrap();
    let day = |y| NaiveDate::from_ymd_opt(y, 1, 1).unwrap();

    assert!(me.places().await.unwrap().is_empty());
    assert!(matches!(me.place(place_id).await, Err(StoreError::NotFound)));
    assert!(me.controllers().await.unwrap().is_empty());
    assert!(matches!(me.controller(controller_id).await, Err(StoreError::NotFound)));
    assert!(me.controllers_of(&[controller_id]).await.unwrap().is_empty());
    assert!(me.controllers_at(vec![(controller_id, 1)]).await.unwrap().is_empty());
    let of_their_place = HeadFilter { places: Some(vec![place_id]), ..HeadFilter::default() };
    assert!(me.heads(&of_their_place).await.unwrap().items.is_empty());
    assert!(me.places_part("", 0, 10).await.unwrap().items.is_empty());
    assert!(me.places_of(&[place_id]).await.unwrap().is_empty());
    assert!(me.places_by_series().await.unwrap().is_empty());
    assert!(me.places_under_the_rules_of(place_id).await.unwrap().is_empty());
    assert!(me.all_series().await.unwrap().is_empty());
    assert!(matches!(me.series(series_id).await, Err(StoreError::NotFound)));
    assert!(me.series_of(&[series_id]).await.unwrap().is_empty());
    let revision_id = neighbour.account.series(series_id).await.unwrap().1.id;
    assert!(me.normals(revision_id).await.unwrap().is_empty());
    assert!(me.days_between(&[revision_id], [day(1900), day(2100)]).await.unwrap().is_empty());
    assert!(me.weather_days(revision_id).await.unwrap().is_empty());
    assert!(me.record_days(revision_id).await.unwrap().is_empty());
    assert!(me.record_hours(revision_id, None).await.unwrap().is_empty());
    assert!(me.weather_decisions(revision_id).await.unwrap().is_empty());
    assert!(me.field_records(controller_id, 100).await.unwrap().is_empty());
    assert!(me.newest_records(&[controller_id]).await.unwrap().is_empty());
    let now = chrono::Utc::now();
    assert!(me.records_until(&[controller_id], now).await.unwrap().is_empty());
    assert!(me.controller_as_of(controller_id, now).await.unwrap().is_none());
    assert!(me.controller_version(controller_id, 1).await.unwrap().is_none());
    assert!(me.visitor(neighbour.user).await.is_err());
    let theirs = neighbour.account.visitor(neighbour.user).await.unwrap().last_action.unwrap().id;
    assert!(me.changes_of(neighbour.user, theirs).await.unwrap().is_empty());
    assert_eq!(me.done_already(theirs, b"as sent").await.unwrap(), None);
    assert!(me.log(place_id, 100).await.unwrap().is_empty());
    assert!(matches!(me.visitor(neighbour.user).await, Err(StoreError::NotFound)));
    let now = chrono::Utc::now();
    assert_eq!(me.people(now).await.unwrap().len(), 1, "the one of my own");
    let x = NewUpload { file_name: "x.csv", content: b"x", place_id: Some(place_id), user_name: "N", at: now };
    let upload = neighbour.account.keep_upload(x, UploadsKept { since: now, bytes: 9 }).await.unwrap();
    assert!(matches!(me.upload(upload).await, Err(StoreError::NotFound)));
    assert!(me.waiting_uploads(Some(place_id)).await.unwrap().is_empty());
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_of_a_neighbour_is_changed() {
    let store = store().await;
    let neighbour = company(&store, "neighbour").await;
    let (series_id, place_id, controller_id) = neighbour.furnish().await;
    let me = company(&store, "me").await;

    assert!(matches!(me.account.set_units(neighbour.user, "us").await, Err(StoreError::NotFound)));
    assert!(matches!(me.account.set_password("neighbour@example.com", "x", None).await, Err(StoreError::NotFound)));
    let now = chrono::Utc::now();
    let snooze = Snooze {
        controller_id,
        job: "dial".into(),
        until: now.date_naive(),
        reason: "not mine".into(),
        user_id: me.user,
        user_name: "Me".into(),
        at: now,
    };
    assert!(matches!(me.account.snooze(&snooze).await, Err(StoreError::NotFound)));
    assert!(me.account.snoozes().await.unwrap().is_empty());
    me.account.wake(controller_id, "dial").await.unwrap();
    assert!(matches!(me.account.set_role(neighbour.user, Role::Reader).await, Err(StoreError::NotFound)));
    assert!(matches!(me.account.part_with(neighbour.user, now).await, Err(StoreError::NotFound)));
    assert!(matches!(me.account.open_link(neighbour.user, "key", now).await, Err(StoreError::NotFound)));
    me.account.set_keep_log_months(Some(1)).await.unwrap();
    assert_eq!(neighbour.account.keep_log_months().await.unwrap(), None);
    me.account.set_yard(Some([47.5, -122.25])).await.unwrap();
    assert_eq!(
        (me.account.yard().await.unwrap(), neighbour.account.yard().await.unwrap()),
        (Some([47.5, -122.25]), None)
    );
    assert!(me.account.set_yard(Some([91.0, 0.0])).await.is_err(), "no such latitude");
    let clay = Station { soil: Soil::Clay, ..Station::plain(1, "usual", Plant::Shrubs, SprinklerType::Drip) };
    me.account.set_usual_station(&clay).await.unwrap();
    let usual = (me.account.usual_station().await.unwrap(), neighbour.account.usual_station().await.unwrap());
    assert_eq!(usual, (Some(clay), None));
    assert!(me.account.has_lead().await.unwrap());
    let thief = revision(1);
    for (id, record) in [
        (place_id, Record::Place(Some(place("Stolen", None)))),
        (place_id, Record::Place(None)),
        (controller_id, Record::Controller(Some(controller(place_id)))),
        (controller_id, Record::Controller(None)),
        (series_id, Record::Series(Some(series(thief.id)), Some(Box::new(thief.clone())))),
        (series_id, Record::Series(None, None)),
    ] {
        assert!(matches!(me.put(id, 1, record).await, Err(StoreError::NotFound)), "{id}");
    }
    // A new thing of mine may not hang on a neighbour's either.
    let own = uuid::Uuid::new_v4();
    assert!(matches!(me.put(own, 0, Record::Controller(Some(controller(place_id)))).await, Err(StoreError::InUse)));
    assert!(matches!(
        me.put(own, 0, Record::Place(Some(place("Mine", Some(series_id))))).await,
        Err(StoreError::InUse)
    ));

    let mut writing_down = me.action(Vec::new());
    writing_down.records.push(record(controller_id, round()));
    assert!(matches!(me.account.apply(&writing_down).await, Err(StoreError::InUse)));

    me.account.forget_everything().await.unwrap();
    let x = NewUpload { file_name: "x.csv", content: b"x", place_id: Some(place_id), user_name: "N", at: now };
    let upload = neighbour.account.keep_upload(x, UploadsKept { since: now, bytes: 9 }).await.unwrap();
    me.account.forget_upload(upload).await.unwrap();
    me.account.keep_typed(upload, &[("name".to_owned(), "Mine".to_owned())].into()).await.unwrap();
    let later = now + chrono::TimeDelta::days(1);
    let y = NewUpload { file_name: "y.csv", place_id: None, ..x };
    me.account.keep_upload(y, UploadsKept { since: later, bytes: 0 }).await.unwrap();
    assert!(matches!(me.account.keep_upload(x, UploadsKept { since: now, bytes: 9 }).await, Err(StoreError::InUse)));
    let theirs = neighbour.account.upload(upload).await.unwrap();
    assert_eq!((theirs.content.as_slice(), theirs.typed.len()), (&b"x"[..], 0));

    assert_eq!(neighbour.account.place(place_id).await.unwrap().value.place.name, "Library");
    assert_eq!(neighbour.account.controller(controller_id).await.unwrap().version, 1);
    assert_eq!(neighbour.account.series(series_id).await.unwrap().0.version, 1);
    assert_eq!(neighbour.store.user_by_email("neighbour@example.com").await.unwrap().units, "metric");
}

/// The list above is whole: every public query of [`Account`] is named in this file.
#[test]
fn every_query_is_asked() {
    let asked = include_str!("companies.rs");
    let applied = ["id", "apply"];
    for source in [
        include_str!("../../src/queries/users.rs"),
        include_str!("../../src/queries/people.rs"),
        include_str!("../../src/queries/places.rs"),
        include_str!("../../src/queries/controllers.rs"),
        include_str!("../../src/queries/heads.rs"),
        include_str!("../../src/queries/series.rs"),
        include_str!("../../src/queries/changes.rs"),
        include_str!("../../src/queries/apply.rs"),
        include_str!("../../src/queries/uploads.rs"),
        include_str!("../../src/queries/field.rs"),
    ] {
        let of_account = source.split("impl Account").nth(1).unwrap_or("");
        for name in of_account.split("pub async fn ").skip(1).filter_map(|s| s.split('(').next()) {
            let known = applied.contains(&name) || name == "add_user" || asked.contains(&format!(".{name}("));
            assert!(known, "{name} is not asked with a neighbour's keys");
        }
    }
}
