use chrono::{TimeDelta, Utc};
use serde_json::json;
use upland_store::{SignInTurn, StoreError};

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

/// Five guesses from one place go at once; then each waits twice as long as the one before. The owner,
/// somewhere else, waits for nothing.
#[tokio::test(flavor = "multi_thread")]
async fn guesses_are_slowed_down_and_the_owner_is_not_locked_out() {
    let store = store().await;
    let now = Utc::now();
    let guess = async |network: &str, at| store.claim_sign_in("Oda@Example.com", network, at).await.unwrap();
    for _ in 0..5 {
        assert_eq!(guess("192.0.2.1", now).await, SignInTurn::Allowed);
    }
    assert_eq!(guess("192.0.2.1", now).await, SignInTurn::Wait { seconds: 10 });
    assert_eq!(guess("198.51.100.7", now).await, SignInTurn::Allowed);
    let later = now + TimeDelta::seconds(10);
    assert_eq!(guess("192.0.2.1", later).await, SignInTurn::Allowed);
    assert_eq!(guess("192.0.2.1", later).await, SignInTurn::Wait { seconds: 20 });
    // A sign-in that went well forgets them.
    store.sign_in_went_well("oda@example.com", "192.0.2.1", later).await.unwrap();
    assert_eq!(guess("192.0.2.1", later).await, SignInTurn::Allowed);
    // And so does an hour.
    assert_eq!(guess("192.0.2.1", later + TimeDelta::hours(2)).await, SignInTurn::Allowed);
}

/// Forty guesses at once: five are let through, whoever comes first.
#[tokio::test(flavor = "multi_thread")]
async fn guesses_at_once_are_counted_one_by_one() {
    let store = store().await;
    let now = Utc::now();
    let guesses = (0..40).map(|_| {
        let store = store.clone();
        tokio::spawn(async move { store.claim_sign_in("oda@example.com", "192.0.2.1", now).await.unwrap() })
    });
    let mut allowed = 0;
    for guess in guesses.collect::<Vec<_>>() {
        allowed += u32::from(guess.await.unwrap() == SignInTurn::Allowed);
    }
    assert_eq!(allowed, 5);
}

/// One network that tries one password on many accounts is slowed down as well.
#[tokio::test(flavor = "multi_thread")]
async fn spraying_accounts_is_not_free() {
    let store = store().await;
    let now = Utc::now();
    let mut allowed = 0;
    for n in 0..60 {
        let turn = store.claim_sign_in(&format!("user{n}@example.com"), "192.0.2.1", now).await.unwrap();
        allowed += u32::from(turn == SignInTurn::Allowed);
    }
    assert_eq!(allowed, 40);
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
