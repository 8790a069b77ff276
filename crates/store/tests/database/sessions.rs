use chrono::{TimeDelta, Utc};
use serde_json::json;
use upland_store::StoreError;

use crate::fixture::{company, store};

#[tokio::test(flavor = "multi_thread")]
async fn a_session_is_kept_prolonged_and_ended() {
    let store = store().await;
    let now = Utc::now();
    store.keep_session("key", &json!({"a": 1}), now + TimeDelta::hours(1)).await.unwrap();
    store.keep_session("key", &json!({"a": 2}), now + TimeDelta::hours(1)).await.unwrap();
    assert_eq!(store.session("key", now).await.unwrap(), Some(json!({"a": 2})));
    assert_eq!(store.session("other", now).await.unwrap(), None);
    let later = now + TimeDelta::hours(2);
    assert_eq!(store.session("key", later).await.unwrap(), None, "it has run out");
    store.prolong_session("key", now + TimeDelta::hours(3)).await.unwrap();
    assert!(store.session("key", later).await.unwrap().is_some());
    store.end_session("key", now).await.unwrap();
    assert_eq!(store.session("key", now).await.unwrap(), None);
}

#[tokio::test(flavor = "multi_thread")]
async fn failures_are_counted_and_forgotten() {
    let store = store().await;
    let (now, hour) = (Utc::now(), TimeDelta::hours(1));
    for _ in 0..3 {
        store.note_sign_in_failure("Oda@Example.com", now, now - hour).await.unwrap();
    }
    assert_eq!(store.sign_in_failures("oda@example.com", now - hour).await.unwrap(), 3);
    assert_eq!(store.sign_in_failures("oda@example.com", now + hour).await.unwrap(), 0);
    store.forget_sign_in_failures("oda@example.com").await.unwrap();
    assert_eq!(store.sign_in_failures("oda@example.com", now - hour).await.unwrap(), 0);
}

#[tokio::test(flavor = "multi_thread")]
async fn an_address_belongs_to_one_user() {
    let store = store().await;
    let oda = company(&store, "oda").await;
    assert!(matches!(oda.account.add_user("ODA@example.com", "Twin", "h").await, Err(StoreError::AlreadyThere)));
    let user = store.user_by_email("Oda@example.com").await.unwrap();
    assert_eq!((user.id, user.units.as_str()), (oda.user, "metric"));
    oda.account.set_units(oda.user, "us").await.unwrap();
    oda.account.set_password("oda@example.com", "new").await.unwrap();
    let user = oda.account.user(oda.user).await.unwrap();
    assert_eq!((user.units.as_str(), user.password_hash.as_str()), ("us", "new"));
}

#[tokio::test(flavor = "multi_thread")]
async fn a_database_that_is_away_is_said() {
    let store = upland_store::Store::new("postgres://nobody@127.0.0.1:9/none", 1).unwrap();
    assert!(matches!(store.ping().await, Err(StoreError::Away(_))));
}
