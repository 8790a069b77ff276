use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ActionLine, Role, UserRecord, Visitor};
use crate::pool::{Account, Store};
use crate::queries::sessions::end_others;
use crate::schema::{
    accounts, actions, aggregates, changes, controllers, daily_et0, daily_weather, field_records, monthly_normals,
    places, series, series_revisions, snoozes, uploads, users, visitors, weather_decisions, weather_hours,
};

/// A user with the company's name, and the newest action of theirs that can be undone: one question for what
/// every page needs.
#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = visitors)]
struct VisitorRow {
    account_id: Uuid,
    account_name: String,
    id: Uuid,
    email: String,
    name: String,
    password_hash: String,
    units: String,
    role: String,
    action_id: Option<Uuid>,
    action_at: Option<DateTime<Utc>>,
    action_why: Option<String>,
}

impl TryFrom<VisitorRow> for Visitor {
    type Error = StoreError;

    fn try_from(row: VisitorRow) -> Result<Self, StoreError> {
        let role = role_of_word(&row.role)?;
        let last_action = match (row.action_id, row.action_at, row.action_why) {
            (Some(id), Some(at), Some(why)) => Some(ActionLine { id, at, why }),
            _ => None,
        };
        let VisitorRow { account_id, account_name, id, email, name, password_hash, units, .. } = row;
        let user = UserRecord { account_id, account_name, id, email, name, password_hash, units, role };
        Ok(Self { user, last_action })
    }
}

pub(super) fn role_of_word(word: &str) -> Result<Role, StoreError> {
    Role::of_word(word).ok_or_else(|| StoreError::BrokenRow(format!("role {word}")))
}

impl Store {
    /// Makes a company; gives its key, or the key of the one with the same name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn account_named(&self, name: &str) -> Result<Uuid, StoreError> {
        let mut connection = self.connection().await?;
        let known = accounts::table
            .filter(accounts::name.eq(name))
            .select(accounts::id)
            .first(&mut connection)
            .await
            .optional()?;
        if let Some(id) = known {
            return Ok(id);
        }
        let id = Uuid::new_v4();
        diesel::insert_into(accounts::table)
            .values((accounts::id.eq(id), accounts::name.eq(name)))
            .execute(&mut connection)
            .await?;
        Ok(id)
    }

    /// The user who signs in with an e-mail address, of whatever company.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none, or the person has left.
    pub async fn user_by_email(&self, email: &str) -> Result<UserRecord, StoreError> {
        let row: VisitorRow = visitors::table
            .filter(visitors::email.eq(email.to_lowercase()))
            .select(VisitorRow::as_select())
            .first(&mut self.connection().await?)
            .await?;
        Ok(Visitor::try_from(row)?.user)
    }
}

impl Account {
    /// A user of the company, and the last action that the user can undo.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none, or the person has left.
    pub async fn visitor(&self, user_id: Uuid) -> Result<Visitor, StoreError> {
        let row: VisitorRow = visitors::table
            .filter(visitors::account_id.eq(self.id))
            .filter(visitors::id.eq(user_id))
            .select(VisitorRow::as_select())
            .first(&mut self.connection().await?)
            .await?;
        row.try_into()
    }

    /// Adds a user.
    ///
    /// # Errors
    /// [`StoreError::AlreadyThere`] when the address is taken.
    pub async fn add_user(&self, email: &str, name: &str, password_hash: &str, role: Role) -> Result<Uuid, StoreError> {
        let id = Uuid::new_v4();
        diesel::insert_into(users::table)
            .values((
                users::account_id.eq(self.id),
                users::id.eq(id),
                users::email.eq(email.to_lowercase()),
                users::name.eq(name),
                users::password_hash.eq(password_hash),
                users::role.eq(role.word()),
            ))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(id)
    }

    /// Gives a user of the company a new password, and ends all sessions of that user but `keep`: whoever
    /// knew the old one is out.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when the company has no such user; nothing is then changed.
    pub async fn set_password(&self, email: &str, password_hash: &str, keep: Option<Uuid>) -> Result<(), StoreError> {
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                let user: Uuid = diesel::update(
                    users::table.filter(users::account_id.eq(self.id)).filter(users::email.eq(email.to_lowercase())),
                )
                .set(users::password_hash.eq(password_hash))
                .returning(users::id)
                .get_result(connection)
                .await?;
                end_others(connection, self.id, user, keep).await
            })
            .await
    }

    /// Sets the units in which a user is shown figures: `metric` or `us`.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when the company has no such user.
    pub async fn set_units(&self, user_id: Uuid, units: &str) -> Result<(), StoreError> {
        let changed = diesel::update(users::table.filter(users::account_id.eq(self.id)).filter(users::id.eq(user_id)))
            .set(users::units.eq(units))
            .execute(&mut self.connection().await?)
            .await?;
        if changed == 0 { Err(StoreError::NotFound) } else { Ok(()) }
    }

    /// Takes away everything of the company but the company itself and its users.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses; nothing is then removed.
    pub async fn forget_everything(&self) -> Result<(), StoreError> {
        let account = self.id;
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                diesel::delete(controllers::table.filter(controllers::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(places::table.filter(places::account_id.eq(account))).execute(connection).await?;
                diesel::delete(series::table.filter(series::account_id.eq(account))).execute(connection).await?;
                diesel::delete(monthly_normals::table.filter(monthly_normals::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(daily_et0::table.filter(daily_et0::account_id.eq(account))).execute(connection).await?;
                diesel::delete(daily_weather::table.filter(daily_weather::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(weather_hours::table.filter(weather_hours::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(weather_decisions::table.filter(weather_decisions::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(series_revisions::table.filter(series_revisions::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(uploads::table.filter(uploads::account_id.eq(account))).execute(connection).await?;
                diesel::delete(changes::table.filter(changes::account_id.eq(account))).execute(connection).await?;
                diesel::delete(actions::table.filter(actions::account_id.eq(account))).execute(connection).await?;
                diesel::delete(snoozes::table.filter(snoozes::account_id.eq(account))).execute(connection).await?;
                diesel::delete(field_records::table.filter(field_records::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(aggregates::table.filter(aggregates::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                Ok(())
            })
            .await
    }
}
