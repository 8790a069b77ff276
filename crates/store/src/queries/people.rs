//! The people of a company, and the links by which they set a password.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use upland_core::controller::Station;
use upland_formats::site::Tabled;
use uuid::Uuid;

use super::sessions::{end_others, hash};
use super::users::role_of_word;
use crate::error::StoreError;
use crate::model::{Person, Role};
use crate::pool::{Account, Store};
use crate::schema::{accounts, password_links, sessions, users};

type PersonColumns = (Uuid, String, String, String, Option<DateTime<Utc>>, Option<DateTime<Utc>>);

/// Whose password a link sets: the link's key finds them, no company.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LinkOwner {
    /// The company.
    pub account_id: Uuid,
    /// The user.
    pub user_id: Uuid,
    /// What the user signs in with.
    pub email: String,
    /// The user's name.
    pub name: String,
}

impl Store {
    /// Whom a link belongs to that has not run out.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is no such link, or it was used, or the person has left.
    pub async fn link_owner(&self, key: &str, now: DateTime<Utc>) -> Result<LinkOwner, StoreError> {
        let (account_id, user_id, email, name) = password_links::table
            .inner_join(
                users::table
                    .on(users::account_id.eq(password_links::account_id).and(users::id.eq(password_links::user_id))),
            )
            .filter(password_links::key_hash.eq(hash(key)))
            .filter(password_links::expires_at.gt(now))
            .filter(users::left_at.is_null())
            .select((users::account_id, users::id, users::email, users::name))
            .first(&mut self.connection().await?)
            .await?;
        Ok(LinkOwner { account_id, user_id, email, name })
    }

    /// Sets a password by a link, once: the link is used up, and all sessions of its user end.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when the link was used meanwhile or has run out; nothing is then changed.
    pub async fn use_link(&self, key: &str, password_hash: &str, now: DateTime<Utc>) -> Result<(), StoreError> {
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                let open = password_links::table
                    .filter(password_links::key_hash.eq(hash(key)))
                    .filter(password_links::expires_at.gt(now));
                let (account, user): (Uuid, Uuid) = diesel::delete(open)
                    .returning((password_links::account_id, password_links::user_id))
                    .get_result(connection)
                    .await?;
                let person = users::table
                    .filter(users::account_id.eq(account))
                    .filter(users::id.eq(user))
                    .filter(users::left_at.is_null());
                let changed =
                    diesel::update(person).set(users::password_hash.eq(password_hash)).execute(connection).await?;
                if changed == 0 {
                    return Err(StoreError::NotFound);
                }
                end_others(connection, account, user, None).await
            })
            .await
    }
}

impl Account {
    /// The people of the company who have not left, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn people(&self, now: DateTime<Utc>) -> Result<Vec<Person>, StoreError> {
        let used = sessions::table
            .filter(sessions::account_id.eq(users::account_id))
            .filter(sessions::user_id.eq(users::id))
            .filter(sessions::expires_at.gt(now))
            .select(diesel::dsl::max(sessions::used_at))
            .single_value();
        let link = password_links::table
            .filter(password_links::account_id.eq(users::account_id))
            .filter(password_links::user_id.eq(users::id))
            .filter(password_links::expires_at.gt(now))
            .select(password_links::expires_at)
            .single_value();
        let rows: Vec<PersonColumns> = users::table
            .filter(users::account_id.eq(self.id))
            .filter(users::left_at.is_null())
            .order((users::name, users::id))
            .select((users::id, users::name, users::email, users::role, used, link))
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter()
            .map(|(id, name, email, role, used_at, link_until)| {
                Ok(Person { id, name, email, role: role_of_word(&role)?, used_at, link_until })
            })
            .collect()
    }

    /// Gives a person another role.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when the company has no such person, [`StoreError::InUse`] when that would
    /// leave it without a lead.
    pub async fn set_role(&self, user_id: Uuid, role: Role) -> Result<(), StoreError> {
        let account = self.id;
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                hold_leads(connection, account, (role != Role::Lead).then_some(user_id)).await?;
                let changed = diesel::update(present(account, user_id))
                    .set(users::role.eq(role.word()))
                    .execute(connection)
                    .await?;
                if changed == 0 { Err(StoreError::NotFound) } else { Ok(()) }
            })
            .await
    }

    /// A person leaves: no session, link or password opens anything any more, and the address is free again.
    /// What the person did keeps their name.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when the company has no such person, [`StoreError::InUse`] when that would
    /// leave it without a lead.
    pub async fn part_with(&self, user_id: Uuid, now: DateTime<Utc>) -> Result<(), StoreError> {
        let account = self.id;
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                hold_leads(connection, account, Some(user_id)).await?;
                let changed = diesel::update(present(account, user_id))
                    .set((
                        users::left_at.eq(now),
                        users::email.eq(format!("{user_id}@left.invalid")),
                        users::password_hash.eq(""),
                    ))
                    .execute(connection)
                    .await?;
                if changed == 0 {
                    return Err(StoreError::NotFound);
                }
                diesel::delete(
                    password_links::table
                        .filter(password_links::account_id.eq(account))
                        .filter(password_links::user_id.eq(user_id)),
                )
                .execute(connection)
                .await?;
                end_others(connection, account, user_id, None).await
            })
            .await
    }

    /// Opens a link by which a person sets a password; one from before is closed.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when the company has no such person.
    pub async fn open_link(&self, user_id: Uuid, key: &str, expires_at: DateTime<Utc>) -> Result<(), StoreError> {
        let mut connection = self.connection().await?;
        present(self.id, user_id).select(users::id).first::<Uuid>(&mut connection).await?;
        let opened = (password_links::key_hash.eq(hash(key)), password_links::expires_at.eq(expires_at));
        diesel::insert_into(password_links::table)
            .values((password_links::account_id.eq(self.id), password_links::user_id.eq(user_id), opened.clone()))
            .on_conflict((password_links::account_id, password_links::user_id))
            .do_update()
            .set(opened)
            .execute(&mut connection)
            .await?;
        Ok(())
    }

    /// Whether the company has a lead.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn has_lead(&self) -> Result<bool, StoreError> {
        let leads = users::table
            .filter(users::account_id.eq(self.id))
            .filter(users::left_at.is_null())
            .filter(users::role.eq(Role::Lead.word()));
        Ok(leads.count().get_result::<i64>(&mut self.connection().await?).await? > 0)
    }

    /// For how many months the log of changes is kept; for ever when none is stated.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is no such company.
    pub async fn keep_log_months(&self) -> Result<Option<i32>, StoreError> {
        let own = accounts::table.filter(accounts::id.eq(self.id));
        Ok(own.select(accounts::keep_log_months).first(&mut self.connection().await?).await?)
    }

    /// States for how many months the log of changes is kept, 1 to 1200.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn set_keep_log_months(&self, months: Option<i32>) -> Result<(), StoreError> {
        diesel::update(accounts::table.filter(accounts::id.eq(self.id)))
            .set(accounts::keep_log_months.eq(months))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Where rounds begin and end: latitude and longitude, degrees; nothing where nobody said.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is no such company.
    pub async fn yard(&self) -> Result<Option<[f64; 2]>, StoreError> {
        let own = accounts::table.filter(accounts::id.eq(self.id));
        let both = (accounts::yard_latitude, accounts::yard_longitude);
        let (latitude, longitude): (Option<f64>, Option<f64>) =
            own.select(both).first(&mut self.connection().await?).await?;
        Ok(latitude.zip(longitude).map(|(latitude, longitude)| [latitude, longitude]))
    }

    /// States where rounds begin and end, degrees; nothing takes it back.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses, as it does positions that are none.
    pub async fn set_yard(&self, yard: Option<[f64; 2]>) -> Result<(), StoreError> {
        diesel::update(accounts::table.filter(accounts::id.eq(self.id)))
            .set((
                accounts::yard_latitude.eq(yard.map(|[latitude, _]| latitude)),
                accounts::yard_longitude.eq(yard.map(|[_, longitude]| longitude)),
            ))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// What a new station is taken for; nothing where nobody said. One that cannot be read any more is as if nobody
    /// had said it: it only fills blank lines in.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is no such company.
    pub async fn usual_station(&self) -> Result<Option<Station>, StoreError> {
        let own = accounts::table.filter(accounts::id.eq(self.id));
        let document: Option<serde_json::Value> =
            own.select(accounts::usual_station).first(&mut self.connection().await?).await?;
        let station = document.and_then(|document| serde_json::from_value::<Tabled<Station>>(document).ok());
        Ok(station.map(|station| station.0))
    }

    /// States what a new station is taken for.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn set_usual_station(&self, station: &Station) -> Result<(), StoreError> {
        let document = serde_json::to_value(Tabled::of(station.clone()))
            .map_err(|error| StoreError::BrokenRow(error.to_string()))?;
        diesel::update(accounts::table.filter(accounts::id.eq(self.id)))
            .set(accounts::usual_station.eq(Some(document)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}

/// A person of a company who has not left.
#[diesel::dsl::auto_type(no_type_alias)]
fn present(account: Uuid, user_id: Uuid) -> _ {
    users::table.filter(users::account_id.eq(account).and(users::id.eq(user_id)).and(users::left_at.is_null()))
}

/// Holds the leads of a company against others who change them; one must be left besides `leaving`.
async fn hold_leads(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    leaving: Option<Uuid>,
) -> Result<(), StoreError> {
    let leads: Vec<Uuid> = users::table
        .filter(users::account_id.eq(account))
        .filter(users::left_at.is_null())
        .filter(users::role.eq(Role::Lead.word()))
        .order(users::id)
        .select(users::id)
        .for_update()
        .load(connection)
        .await?;
    match leaving {
        Some(user) if leads == [user] => Err(StoreError::InUse),
        _ => Ok(()),
    }
}
