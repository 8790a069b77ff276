use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde_json::Value;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ChangeEntry, ControllerRecord, Kind, Versioned};
use crate::pool::Account;
use crate::schema::{actions, changes};

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = changes)]
struct ChangeRow {
    kind: String,
    aggregate_id: Uuid,
    version: i32,
    after: Option<Value>,
}

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = actions)]
struct ActionRow {
    id: Uuid,
    at: DateTime<Utc>,
    user_name: String,
    why: String,
    undoes: Option<Uuid>,
}

fn entry(action: ActionRow, change: ChangeRow, before: Option<Value>) -> Result<ChangeEntry, StoreError> {
    Ok(ChangeEntry {
        action_id: action.id,
        kind: Kind::of_word(&change.kind).ok_or_else(|| StoreError::BrokenRow(format!("kind {}", change.kind)))?,
        aggregate_id: change.aggregate_id,
        version: change.version,
        at: action.at,
        user_name: action.user_name,
        why: action.why,
        before,
        after: change.after,
        undoes: action.undoes,
    })
}

impl Account {
    /// What an action of a user changed, in the order in which it was written; empty when there is no such
    /// action.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn changes_of(&self, user_id: Uuid, action: Uuid) -> Result<Vec<ChangeEntry>, StoreError> {
        let earlier = diesel::alias!(changes as earlier);
        let before = earlier.on(earlier
            .field(changes::account_id)
            .eq(changes::account_id)
            .and(earlier.field(changes::aggregate_id).eq(changes::aggregate_id))
            .and(earlier.field(changes::version).eq(changes::version - 1)));
        let rows: Vec<(ActionRow, ChangeRow, Option<Value>)> = changes::table
            .inner_join(actions::table.on(of_action()))
            .left_join(before)
            .filter(changes::account_id.eq(self.id))
            .filter(changes::action_id.eq(action))
            .filter(actions::user_id.eq(user_id))
            .order(changes::ordinal)
            .select((ActionRow::as_select(), ChangeRow::as_select(), earlier.field(changes::after).nullable()))
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(|(action, change, before)| entry(action, change, before)).collect()
    }

    /// A controller as it was at an instant, and whether that is known: where the log does not reach back so far,
    /// it is the oldest document on record.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn controller_as_of(
        &self,
        id: Uuid,
        at: DateTime<Utc>,
    ) -> Result<Option<(Versioned<ControllerRecord>, bool)>, StoreError> {
        let documents = || {
            changes::table
                .inner_join(actions::table.on(of_action()))
                .filter(changes::account_id.eq(self.id))
                .filter(changes::aggregate_id.eq(id))
                .filter(changes::kind.eq(Kind::Controller.word()))
                .filter(changes::after.is_not_null())
                .select((changes::version, changes::after.assume_not_null()))
        };
        let connection = &mut self.connection().await?;
        let then: Option<(i32, Value)> =
            documents().filter(actions::at.le(at)).order(changes::version.desc()).first(connection).await.optional()?;
        let (found, is_known) = match then {
            Some(then) => (Some(then), true),
            None => (documents().order(changes::version.asc()).first(connection).await.optional()?, false),
        };
        let versioned = |(version, document)| {
            let value = ControllerRecord::of_document(document)?;
            Ok((Versioned { id, version, value }, is_known))
        };
        found.map(versioned).transpose()
    }

    /// A version of a controller; nothing where the log does not reach back so far.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn controller_version(&self, id: Uuid, version: i32) -> Result<Option<ControllerRecord>, StoreError> {
        let document: Option<Value> = changes::table
            .filter(changes::account_id.eq(self.id))
            .filter(changes::aggregate_id.eq(id))
            .filter(changes::kind.eq(Kind::Controller.word()))
            .filter(changes::version.eq(version))
            .filter(changes::after.is_not_null())
            .select(changes::after.assume_not_null())
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        document.map(ControllerRecord::of_document).transpose()
    }

    /// The log of a thing, newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn log(&self, aggregate_id: Uuid, most: i64) -> Result<Vec<ChangeEntry>, StoreError> {
        let rows: Vec<(ActionRow, ChangeRow)> = changes::table
            .inner_join(actions::table.on(of_action()))
            .filter(changes::account_id.eq(self.id))
            .filter(changes::aggregate_id.eq(aggregate_id))
            .order(changes::version.desc())
            // One more: what it left is what stood before the last one shown.
            .limit(most + 1)
            .select((ActionRow::as_select(), ChangeRow::as_select()))
            .load(&mut self.connection().await?)
            .await?;
        let mut befores: Vec<Option<Value>> = rows.iter().skip(1).map(|(_, change)| change.after.clone()).collect();
        befores.push(None);
        let shown = usize::try_from(most).unwrap_or(0);
        rows.into_iter()
            .zip(befores)
            .take(shown)
            .map(|((action, change), before)| entry(action, change, before))
            .collect()
    }
}

/// The action of a change.
fn of_action() -> diesel::dsl::And<
    diesel::dsl::Eq<actions::account_id, changes::account_id>,
    diesel::dsl::Eq<actions::id, changes::action_id>,
> {
    actions::account_id.eq(changes::account_id).and(actions::id.eq(changes::action_id))
}
