//! What goes away by itself, and what stays.

use chrono::{DateTime, TimeDelta, Utc};
use upland_store::*;
use uuid::Uuid;

use crate::fixture::{company, place, store};

#[tokio::test(flavor = "multi_thread")]
async fn a_log_is_kept_as_long_as_its_company_says() {
    let store = store().await;
    let (short, long) = (company(&store, "short").await, company(&store, "long").await);
    short.account.set_keep_log_months(Some(12)).await.unwrap();
    let now = Utc::now();
    let mut ids = Vec::new();
    for c in [&short, &long] {
        let id = Uuid::new_v4();
        for (made_on, days_ago) in [(0, 900), (1, 800), (2, 700), (3, 10)] {
            let record = Record::Place(Some(place(&format!("{days_ago} days ago"), None)));
            let action = c.action(vec![Write { id, made_on, record }]);
            c.account.apply(&Action { at: now - TimeDelta::days(days_ago), ..action }).await.unwrap();
        }
        ids.push(id);
    }
    assert!(store.tidy(now).await.unwrap() > 0);
    assert_eq!(store.tidy(now).await.unwrap(), 0, "nothing is left to do");
    let log = short.account.log(ids[0], 100).await.unwrap();
    let versions: Vec<i32> = log.iter().map(|e| e.version).collect();
    // The newest of the old ones stays: it is what stood before the first one kept.
    assert_eq!(versions, [4, 3]);
    assert_eq!(log[0].before.as_ref().unwrap()["name"], "700 days ago");
    assert_eq!(long.account.log(ids[1], 100).await.unwrap().len(), 4);
    assert_eq!(short.account.place(ids[0]).await.unwrap().version, 4);
}

fn file<'a>(file_name: &'a str, content: &'a [u8], at: DateTime<Utc>) -> NewUpload<'a> {
    NewUpload { file_name, content, place_id: None, user_name: "One", at }
}

/// A file stands at the place that it is for, with what was typed; it goes with the place, and once it is imported.
#[tokio::test(flavor = "multi_thread")]
async fn an_upload_is_found_again_as_it_was_left() {
    let store = store().await;
    let c = company(&store, "one").await;
    let now = Utc::now();
    let kept = UploadsKept { since: now - TimeDelta::days(1), bytes: 1000 };
    let place_id = Uuid::new_v4();
    c.put(place_id, 0, Record::Place(Some(place("Orchard", None)))).await.unwrap();
    let of_place = |name, minutes| NewUpload {
        place_id: Some(place_id),
        ..file(name, b"date,rain", now + TimeDelta::minutes(minutes))
    };
    let first = c.account.keep_upload(of_place("first.csv", 0), kept).await.unwrap();
    let second = c.account.keep_upload(of_place("second.csv", 5), kept).await.unwrap();
    let site = c.account.keep_upload(file("site.json", b"{}", now), kept).await.unwrap();

    let waiting = c.account.waiting_uploads(Some(place_id)).await.unwrap();
    assert_eq!(waiting.iter().map(|w| w.id).collect::<Vec<_>>(), [second, first], "newest first");
    assert_eq!((waiting[0].bytes, waiting[0].user_name.as_str()), (9, "One"));
    assert_eq!(c.account.waiting_uploads(None).await.unwrap()[0].id, site);

    let typed = [("unit_1".to_owned(), "inch ″".to_owned())].into();
    c.account.keep_typed(first, &typed).await.unwrap();
    assert_eq!(c.account.upload(first).await.unwrap().typed, typed);
    assert!(c.account.upload(second).await.unwrap().typed.is_empty());

    c.account.forget_upload(second).await.unwrap();
    assert_eq!(c.account.waiting_uploads(Some(place_id)).await.unwrap().len(), 1);
    c.put(place_id, 1, Record::Place(None)).await.unwrap();
    assert!(matches!(c.account.upload(first).await, Err(StoreError::NotFound)));
    c.account.keep_typed(first, &typed).await.unwrap();
}

#[tokio::test(flavor = "multi_thread")]
async fn uploads_and_links_run_out() {
    let store = store().await;
    let c = company(&store, "one").await;
    let now = Utc::now();
    let kept = UploadsKept { since: now - TimeDelta::days(3), bytes: 100 };
    let old = c.account.keep_upload(file("old.csv", b"x", now - TimeDelta::days(2)), kept).await.unwrap();
    let new = c.account.keep_upload(file("new.csv", b"x", now), kept).await.unwrap();
    c.account.open_link(c.user, "key", now - TimeDelta::days(1)).await.unwrap();
    assert_eq!(store.tidy(now).await.unwrap(), 2);
    assert!(matches!(c.account.upload(old).await, Err(StoreError::NotFound)));
    assert!(c.account.upload(new).await.is_ok());
}

/// Ten bytes are kept: of four files of four bytes the two newest; one of twenty alone; another company's stay.
#[tokio::test(flavor = "multi_thread")]
async fn a_company_keeps_so_many_bytes_of_uploads_the_newest_first() {
    let store = store().await;
    let (c, other) = (company(&store, "one").await, company(&store, "two").await);
    let now = Utc::now();
    let kept = UploadsKept { since: now - TimeDelta::days(1), bytes: 10 };
    let theirs = other.account.keep_upload(file("theirs.csv", b"12345678", now), kept).await.unwrap();
    let mut ids = Vec::new();
    for minute in 0..4 {
        let at = now + TimeDelta::minutes(minute);
        ids.push(c.account.keep_upload(file("four.csv", b"1234", at), kept).await.unwrap());
    }
    let mut there = Vec::new();
    for id in &ids {
        there.push(c.account.upload(*id).await.is_ok());
    }
    assert_eq!(there, [false, false, true, true]);
    let large = c.account.keep_upload(file("large.csv", &[b'x'; 20], now + TimeDelta::minutes(9)), kept).await.unwrap();
    assert!(c.account.upload(large).await.is_ok());
    assert!(matches!(c.account.upload(ids[3]).await, Err(StoreError::NotFound)));
    assert!(other.account.upload(theirs).await.is_ok());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_is_put_off_once_with_its_newest_day_and_brought_back() {
    let store = store().await;
    let c = company(&store, "one").await;
    let (_, _, controller_id) = c.furnish().await;
    let now = Utc::now();
    let until = |days| now.date_naive() + TimeDelta::days(days);
    let put_off = |job: &str, days, reason: &str| Snooze {
        controller_id,
        job: job.into(),
        until: until(days),
        reason: reason.into(),
        user_id: c.user,
        user_name: "Oda".into(),
        at: now,
    };
    c.account.snooze(&put_off("dial", 7, "no key")).await.unwrap();
    c.account.snooze(&put_off("dial", 9, "still no key")).await.unwrap();
    c.account.snooze(&put_off("look-again", -40, "long over")).await.unwrap();
    let all = c.account.snoozes().await.unwrap();
    assert_eq!(all.len(), 2);
    assert_eq!((all[0].until, all[0].reason.as_str()), (until(9), "still no key"));
    store.tidy(now).await.unwrap();
    assert_eq!(c.account.snoozes().await.unwrap().len(), 1, "what was over a month ago goes");
    c.account.wake(controller_id, "dial").await.unwrap();
    c.account.wake(controller_id, "dial").await.unwrap();
    assert!(c.account.snoozes().await.unwrap().is_empty());
    let nobody = Snooze { controller_id: Uuid::new_v4(), ..put_off("dial", 1, "x") };
    assert!(matches!(c.account.snooze(&nobody).await, Err(StoreError::NotFound)));

    c.account.snooze(&put_off("dial", 7, "no key")).await.unwrap();
    c.account.forget_everything().await.unwrap();
    assert!(c.account.snoozes().await.unwrap().is_empty(), "a company is emptied with what it put off");
}
