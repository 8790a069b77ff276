//! People, their roles, and the links by which they set a password.

use chrono::{TimeDelta, Utc};
use upland_store::*;

use crate::fixture::{company, store};

#[tokio::test(flavor = "multi_thread")]
async fn a_company_keeps_a_lead() {
    let store = store().await;
    let c = company(&store, "one").await;
    let now = Utc::now();
    let second = c.account.add_user("two@example.com", "Two", "", Role::Technician).await.unwrap();
    assert!(matches!(c.account.set_role(c.user, Role::Reader).await, Err(StoreError::InUse)));
    assert!(matches!(c.account.part_with(c.user, now).await, Err(StoreError::InUse)));
    c.account.set_role(second, Role::Lead).await.unwrap();
    c.account.set_role(c.user, Role::Reader).await.unwrap();
    let roles: Vec<Role> = c.account.people(now).await.unwrap().iter().map(|p| p.role).collect();
    assert_eq!(roles, [Role::Lead, Role::Reader]);
}

/// Each of two leads takes the other's role away, at once: one of them stays.
#[tokio::test(flavor = "multi_thread")]
async fn two_leads_do_not_end_each_other() {
    let store = store().await;
    let c = company(&store, "one").await;
    let second = c.account.add_user("two@example.com", "Two", "", Role::Lead).await.unwrap();
    let end = |user| {
        let account = c.account.clone();
        tokio::spawn(async move { account.set_role(user, Role::Technician).await })
    };
    let [a, b] = [end(c.user), end(second)];
    let done = [a.await.unwrap(), b.await.unwrap()];
    assert_eq!(done.iter().filter(|result| result.is_ok()).count(), 1, "{done:?}");
    assert!(c.account.has_lead().await.unwrap());
}

#[tokio::test(flavor = "multi_thread")]
async fn who_left_is_known_by_name_and_signs_in_no_more() {
    let store = store().await;
    let c = company(&store, "one").await;
    let now = Utc::now();
    let second = c.account.add_user("two@example.com", "Two", "hash", Role::Reader).await.unwrap();
    c.account.open_link(second, "key", now + TimeDelta::days(7)).await.unwrap();
    c.account.part_with(second, now).await.unwrap();
    assert!(matches!(store.user_by_email("two@example.com").await, Err(StoreError::NotFound)));
    assert!(matches!(store.link_owner("key", now).await, Err(StoreError::NotFound)));
    assert!(matches!(c.account.visitor(second).await, Err(StoreError::NotFound)));
    assert_eq!(c.account.people(now).await.unwrap().len(), 1);
    // The address is free for somebody else.
    c.account.add_user("two@example.com", "Another", "hash", Role::Reader).await.unwrap();
}

#[tokio::test(flavor = "multi_thread")]
async fn a_link_sets_a_password_once() {
    let store = store().await;
    let c = company(&store, "one").await;
    let now = Utc::now();
    c.account.open_link(c.user, "old", now + TimeDelta::days(7)).await.unwrap();
    c.account.open_link(c.user, "new", now + TimeDelta::days(7)).await.unwrap();
    assert!(matches!(store.link_owner("old", now).await, Err(StoreError::NotFound)), "a new one closes it");
    assert!(matches!(store.link_owner("new", now + TimeDelta::days(8)).await, Err(StoreError::NotFound)));
    assert_eq!(store.link_owner("new", now).await.unwrap().user_id, c.user);
    store.use_link("new", "another hash", now).await.unwrap();
    assert!(matches!(store.use_link("new", "a third", now).await, Err(StoreError::NotFound)), "used up");
    assert_eq!(store.user_by_email("one@example.com").await.unwrap().password_hash, "another hash");
}
