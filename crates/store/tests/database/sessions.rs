use chrono::{DateTime, TimeDelta, Utc};
use serde_json::json;
use upland_store::{Role, SessionOwner, SignInTurn, StoreError};
use uuid::Uuid;

use crate::fixture::{Company, company, store};

fn owner(of: &Company, began_at: DateTime<Utc>) -> SessionOwner {
    SessionOwner {
        account_id: of.account.id(),
        user_id: of.user,
        session_id: Uuid::new_v4(),
        began_at,
        device: "phone".into(),
        network: "192.0.2.1".into(),
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_session_is_kept_prolonged_and_ended() {
    let store = store().await;
    let c = company(&store, "oda").await;
    let now = Utc::now();
    let hour = [now, now + TimeDelta::hours(1)];
    store.begin_session("key", &json!({"a": 1}), &owner(&c, now), hour).await.unwrap();
    store.keep_session("key", &json!({"a": 2}), hour).await.unwrap();
    assert_eq!(store.session("key", now).await.unwrap(), Some(json!({"a": 2})));
    assert_eq!(store.session("other", now).await.unwrap(), None);
    let later = now + TimeDelta::hours(2);
    assert_eq!(store.session("key", later).await.unwrap(), None, "it has run out");
    store.prolong_session("key", now + TimeDelta::hours(3)).await.unwrap();
    assert!(store.session("key", later).await.unwrap().is_some());
    store.end_session("key", now).await.unwrap();
    assert_eq!(store.session("key", now).await.unwrap(), None);
    // A request that was on its way when the session ended does not bring it back.
    store.keep_session("key", &json!({"a": 3}), hour).await.unwrap();
    assert_eq!(store.session("key", now).await.unwrap(), None);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_user_sees_and_ends_own_sessions_alone() {
    let store = store().await;
    let (oda, una) = (company(&store, "oda").await, company(&store, "una").await);
    let now = Utc::now();
    let day = [now, now + TimeDelta::days(1)];
    let owners = [owner(&oda, now - TimeDelta::hours(2)), owner(&oda, now - TimeDelta::hours(1)), owner(&una, now)];
    for (n, owner) in owners.iter().enumerate() {
        store.begin_session(&format!("key{n}"), &json!({}), owner, day).await.unwrap();
    }
    let [first, second, other] = &owners;
    let seen = async |c: &Company, at| -> Vec<Uuid> {
        c.account.sessions_of(c.user, at).await.unwrap().into_iter().map(|s| s.session_id).collect()
    };
    assert_eq!(seen(&oda, now).await, [second.session_id, first.session_id], "the newest first");
    assert!(seen(&oda, now + TimeDelta::days(2)).await.is_empty(), "they have run out");
    // Another company's session is not ended, whoever asks.
    oda.account.end_session_of(oda.user, other.session_id).await.unwrap();
    oda.account.end_session_of(una.user, other.session_id).await.unwrap();
    assert_eq!(seen(&una, now).await, [other.session_id]);
    oda.account.end_session_of(oda.user, first.session_id).await.unwrap();
    assert_eq!(seen(&oda, now).await, [second.session_id]);
    store.begin_session("key3", &json!({}), &owner(&oda, now), day).await.unwrap();
    oda.account.end_other_sessions(oda.user, second.session_id).await.unwrap();
    assert_eq!(seen(&oda, now).await, [second.session_id]);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_new_password_ends_the_sessions_of_its_user() {
    let store = store().await;
    let (oda, una) = (company(&store, "oda").await, company(&store, "una").await);
    let now = Utc::now();
    let day = [now, now + TimeDelta::days(1)];
    let (here, there, other) = (owner(&oda, now), owner(&oda, now), owner(&una, now));
    for (key, owner) in [("here", &here), ("there", &there), ("other", &other)] {
        store.begin_session(key, &json!({}), owner, day).await.unwrap();
    }
    let open = async |key: &str| store.session(key, now).await.unwrap().is_some();
    let unknown = oda.account.set_password("una@example.com", "new", None).await;
    assert!(matches!(unknown, Err(StoreError::NotFound)), "of another company");
    oda.account.set_password("oda@example.com", "new", Some(here.session_id)).await.unwrap();
    assert_eq!([open("here").await, open("there").await, open("other").await], [true, false, true]);
    oda.account.set_password("oda@example.com", "newer", None).await.unwrap();
    assert_eq!([open("here").await, open("other").await], [false, true]);
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
    assert!(matches!(
        oda.account.add_user("ODA@example.com", "Twin", "h", Role::Reader).await,
        Err(StoreError::AlreadyThere)
    ));
    let user = store.user_by_email("Oda@example.com").await.unwrap();
    assert_eq!((user.id, user.units.as_str()), (oda.user, "metric"));
    oda.account.set_units(oda.user, "us").await.unwrap();
    oda.account.set_password("oda@example.com", "new", None).await.unwrap();
    let user = oda.account.visitor(oda.user).await.unwrap().user;
    assert_eq!((user.units.as_str(), user.password_hash.as_str()), ("us", "new"));
}

#[tokio::test(flavor = "multi_thread")]
async fn a_database_that_is_away_is_said() {
    let store = upland_store::Store::new("postgres://nobody@127.0.0.1:9/none", 1).unwrap();
    assert!(matches!(store.ping().await, Err(StoreError::Away(_))));
}
