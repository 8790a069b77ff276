use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde_json::Value;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ChangeEntry, Kind};
use crate::pool::Account;
use crate::schema::changes;

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = changes)]
struct ChangeRow {
    action_id: Uuid,
    kind: String,
    aggregate_id: Uuid,
    version: i32,
    at: DateTime<Utc>,
    user_name: String,
    why: String,
    before: Option<Value>,
    after: Option<Value>,
    undoes: Option<Uuid>,
}

impl TryFrom<ChangeRow> for ChangeEntry {
    type Error = StoreError;

    fn try_from(row: ChangeRow) -> Result<Self, StoreError> {
        Ok(Self {
            action_id: row.action_id,
            kind: Kind::of_word(&row.kind).ok_or_else(|| StoreError::BrokenRow(format!("kind {}", row.kind)))?,
            aggregate_id: row.aggregate_id,
            version: row.version,
            at: row.at,
            user_name: row.user_name,
            why: row.why,
            before: row.before,
            after: row.after,
            undoes: row.undoes,
        })
    }
}

impl Account {
    /// The last action of a user that is neither an undo nor undone already, in the order in
    /// which it was written; empty when there is nothing to undo.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn last_action(&self, user_id: Uuid) -> Result<Vec<ChangeEntry>, StoreError> {
        let (newest, undone) = diesel::alias!(changes as newest, changes as undone);
        let taken_back = undone
            .filter(undone.field(changes::account_id).eq(self.id))
            .filter(undone.field(changes::undoes).eq(newest.field(changes::action_id).nullable()));
        let last = newest
            .filter(newest.field(changes::account_id).eq(self.id))
            .filter(newest.field(changes::user_id).eq(user_id))
            .filter(newest.field(changes::undoes).is_null())
            .filter(diesel::dsl::not(diesel::dsl::exists(taken_back)))
            .order(newest.field(changes::id).desc())
            .select(newest.field(changes::action_id))
            .limit(1);
        let rows: Vec<ChangeRow> = changes::table
            .filter(changes::account_id.eq(self.id))
            .filter(changes::action_id.eq_any(last))
            .order(changes::ordinal)
            .select(ChangeRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(ChangeEntry::try_from).collect()
    }

    /// The log of a thing, newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn log(&self, aggregate_id: Uuid, most: i64) -> Result<Vec<ChangeEntry>, StoreError> {
        let rows: Vec<ChangeRow> = changes::table
            .filter(changes::account_id.eq(self.id))
            .filter(changes::aggregate_id.eq(aggregate_id))
            .order(changes::version.desc())
            .limit(most)
            .select(ChangeRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(ChangeEntry::try_from).collect()
    }
}
