//! Series, imports and what is read of them.

use chrono::{Datelike, NaiveDate, TimeDelta};
use upland_store::*;
use uuid::Uuid;

use crate::fixture::{Company, company, hours, revision, series, store};

/// A series of a name with a hundred days; its id and that of its import.
async fn imported(c: &Company, name: &str) -> (Uuid, Uuid) {
    let (id, new) = (Uuid::new_v4(), revision(100));
    let import = new.id;
    let record = SeriesRecord { name: name.into(), ..series(import) };
    c.put(id, 0, Record::Series(Some(record), Some(Box::new(new)))).await.unwrap();
    (id, import)
}

fn new_year() -> NaiveDate {
    NaiveDate::from_ymd_opt(1990, 1, 1).unwrap()
}

#[tokio::test(flavor = "multi_thread")]
async fn some_series_are_asked_for_at_once_by_name() {
    let store = store().await;
    let c = company(&store, "one").await;
    let ((hill, _), (airfield, _)) = (imported(&c, "Hill").await, imported(&c, "Airfield").await);
    imported(&c, "Bench").await;
    let names = |found: Vec<(Versioned<SeriesRecord>, RevisionSummary)>| -> Vec<String> {
        found.into_iter().map(|(series, _)| series.value.name).collect()
    };
    let asked = c.account.series_of(&[hill, Uuid::new_v4(), airfield, hill]).await.unwrap();
    assert_eq!(names(asked), ["Airfield", "Hill"], "one that is not there is left out");
    assert_eq!(names(c.account.series_of(&[]).await.unwrap()), [""; 0]);
    assert_eq!(names(c.account.all_series().await.unwrap()), ["Airfield", "Bench", "Hill"]);
    let (one, summary) = c.account.series(hill).await.unwrap();
    assert_eq!(c.account.series_of(&[hill]).await.unwrap(), [(one, summary)]);
}

/// A page that began before an import reads the one that it began with, to its end.
#[tokio::test(flavor = "multi_thread")]
async fn an_import_stays_as_it_was_when_another_counts() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (id, first) = imported(&c, "Airfield").await;
    let before = c.account.record_days(first).await.unwrap();
    let mut next = revision(400);
    next.days.iter_mut().for_each(|day| day.rain = Some(9.0));
    let second = next.id;
    let record = SeriesRecord { name: "Airfield".into(), ..series(second) };
    c.put(id, 1, Record::Series(Some(record), Some(Box::new(next)))).await.unwrap();
    assert_eq!(c.account.series(id).await.unwrap().1.id, second);
    assert_eq!(c.account.record_days(first).await.unwrap(), before);
    assert_eq!(c.account.normals(first).await.unwrap(), revision(0).normals);
    let rain = |import| {
        let account = c.account.clone();
        async move { account.weather_days(import).await.unwrap()[0].rain_mm }
    };
    assert_eq!([rain(first).await, rain(second).await], [Some(1.5), Some(9.0)]);
}

#[tokio::test(flavor = "multi_thread")]
async fn days_of_several_imports_come_each_by_date() {
    let store = store().await;
    let c = company(&store, "one").await;
    let ((_, one), (_, two)) = (imported(&c, "Hill").await, imported(&c, "Airfield").await);
    let span = [new_year() + TimeDelta::days(98), new_year() + TimeDelta::days(150)];
    let days = c.account.days_between(&[one, two, Uuid::new_v4()], span).await.unwrap();
    for import in [one, two] {
        let own: Vec<NaiveDate> = days.iter().filter(|(of, _)| *of == import).map(|(_, day)| day.date).collect();
        assert_eq!(own, [span[0], span[0] + TimeDelta::days(1)], "both ends count, and the record ends in between");
    }
    assert_eq!(days.len(), 4);
    let backwards = c.account.days_between(&[one], [span[1], span[0]]).await.unwrap();
    assert!(backwards.is_empty());
    assert!(c.account.days_between(&[], span).await.unwrap().is_empty());
}

/// A statement of a page is planned once for a connection and cut off before its request is; a command's is neither.
#[tokio::test(flavor = "multi_thread")]
async fn pages_and_commands_have_limits_of_their_own() {
    let address = testing::fresh_database().await.unwrap();
    let of = |store: Store| async move { testing::setting(&store, "statement_timeout").await.unwrap() };
    assert_eq!(of(Store::new(&address, 1).unwrap()).await, "7s");
    assert_eq!(of(Store::for_a_command(&address).unwrap()).await, "0");
    let page = Store::new(&address, 1).unwrap();
    assert_eq!(testing::setting(&page, "plan_cache_mode").await.unwrap(), "force_generic_plan");
    assert_eq!(testing::setting(&page, "lock_timeout").await.unwrap(), "4s");
    // Options that an address states are those of whoever wrote it.
    let own = Store::new(&format!("{address}?options=-c%20lock_timeout%3D1000"), 1).unwrap();
    assert_eq!(testing::setting(&own, "lock_timeout").await.unwrap(), "1s");
}

/// Right after the import of half a century the database knows nothing of it, and plans as for a single day. With two
/// tables joined row by row a page was cut off after seven seconds.
#[tokio::test(flavor = "multi_thread")]
async fn a_long_record_is_read_before_the_database_knows_how_long_it_is() {
    let store = store().await;
    let c = company(&store, "one").await;
    let days = 18_000;
    let (id, mut new) = (Uuid::new_v4(), revision(days));
    let import = new.id;
    let last = new.days.last().map(|day| day.date).unwrap();
    let has_et0 = |date: NaiveDate| date.day() != 13;
    new.et0.retain(|(date, ..)| has_et0(*date));
    new.hours = new.days.iter().map(|d| (d.date, DayHours { brought_by: None, hours: hours(d.date) })).collect();
    c.put(id, 0, Record::Series(Some(series(import)), Some(Box::new(new)))).await.unwrap();
    let read = c.account.record_days(import).await.unwrap();
    assert_eq!((read.len() as i64, read.last().map(|day| day.weather.date)), (days, Some(last)));
    let between = c.account.days_between(&[import], [new_year(), last]).await.unwrap();
    assert_eq!(between.len() as i64, days);
    assert!(between.iter().zip(&read).all(|((_, a), b)| (a.date, a.et0_mm) == (b.weather.date, b.et0_mm)));
    assert!(read.iter().all(|day| day.et0_mm.is_some() == has_et0(day.weather.date) && day.has_hours));
    assert_eq!(c.account.record_hours(import, None).await.unwrap().len() as i64, days);
}
