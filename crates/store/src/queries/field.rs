//! What was written down in the field.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use upland_formats::site::FieldDoc;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{Action, FieldRecord, field_kind};
use crate::pool::Account;
use crate::schema::field_records;

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = field_records)]
struct FieldRow {
    id: Uuid,
    controller_id: Uuid,
    at: DateTime<Utc>,
    user_name: String,
    document: Value,
}

impl TryFrom<FieldRow> for FieldRecord {
    type Error = StoreError;

    fn try_from(row: FieldRow) -> Result<Self, StoreError> {
        Ok(Self {
            id: row.id,
            controller_id: row.controller_id,
            at: row.at,
            user_name: row.user_name,
            document: FieldDoc::from_json(row.document).map_err(|e| StoreError::BrokenRow(e.to_string()))?,
        })
    }
}

impl Account {
    /// The records of a controller, newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn field_records(&self, controller_id: Uuid, limit: i64) -> Result<Vec<FieldRecord>, StoreError> {
        let rows: Vec<FieldRow> = field_records::table
            .filter(field_records::account_id.eq(self.id))
            .filter(field_records::controller_id.eq(controller_id))
            .order((field_records::at.desc(), field_records::id))
            .limit(limit)
            .select(FieldRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(FieldRecord::try_from).collect()
    }

    /// The newest record of each kind, of one controller or of all of them.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn newest_records(&self, controller_id: Option<Uuid>) -> Result<Vec<FieldRecord>, StoreError> {
        let mut query = field_records::table
            .filter(field_records::account_id.eq(self.id))
            .distinct_on((field_records::controller_id, field_records::kind))
            .order((field_records::controller_id, field_records::kind, field_records::at.desc()))
            .select(FieldRow::as_select())
            .into_boxed();
        if let Some(id) = controller_id {
            query = query.filter(field_records::controller_id.eq(id));
        }
        let rows: Vec<FieldRow> = query.load(&mut self.connection().await?).await?;
        rows.into_iter().map(FieldRecord::try_from).collect()
    }
}

/// Adds the records of an action; one that is there already stays as it was.
pub(super) async fn write_records(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    action: &Action,
) -> Result<(), StoreError> {
    for record in &action.records {
        diesel::insert_into(field_records::table)
            .values((
                field_records::account_id.eq(account),
                field_records::id.eq(record.id),
                field_records::controller_id.eq(record.controller_id),
                field_records::kind.eq(field_kind(&record.document)),
                field_records::at.eq(record.at),
                field_records::user_id.eq(action.user_id),
                field_records::user_name.eq(&record.user_name),
                field_records::document.eq(record.document.to_json()),
            ))
            .on_conflict_do_nothing()
            .execute(connection)
            .await?;
    }
    Ok(())
}
