//! What was written down in the field.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::sql_types::{Date, Nullable, Timestamptz};
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use upland_formats::site::FieldDoc;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{Action, FieldRecord, field_dates, field_kind};
use crate::pool::Account;
use crate::schema::{controllers, field_records};

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

    /// The newest record of each kind of some controllers.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn newest_records(&self, of: &[Uuid]) -> Result<Vec<FieldRecord>, StoreError> {
        self.newest(of, None).await
    }

    /// The newest record of each kind that some controllers had before an instant.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn records_until(&self, of: &[Uuid], before: DateTime<Utc>) -> Result<Vec<FieldRecord>, StoreError> {
        self.newest(of, Some(before)).await
    }

    async fn newest(&self, of: &[Uuid], before: Option<DateTime<Utc>>) -> Result<Vec<FieldRecord>, StoreError> {
        let mut query = field_records::table
            .filter(field_records::account_id.eq(self.id))
            .filter(field_records::controller_id.eq_any(of))
            .distinct_on((field_records::controller_id, field_records::kind))
            .order((field_records::controller_id, field_records::kind, field_records::at.desc()))
            .select(FieldRow::as_select())
            .into_boxed();
        if let Some(before) = before {
            query = query.filter(field_records::at.lt(before));
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
        keep_visit(connection, account, record).await?;
    }
    Ok(())
}

/// Keeps with the controller what lists go by.
async fn keep_visit(connection: &mut AsyncPgConnection, account: Uuid, record: &FieldRecord) -> Result<(), StoreError> {
    let own = || {
        controllers::table.filter(controllers::account_id.eq(account)).filter(controllers::id.eq(record.controller_id))
    };
    let (visit, look_again) = field_dates(&record.document);
    diesel::update(own())
        .set((
            controllers::recorded_at.eq(greatest_at(controllers::recorded_at, record.at)),
            controllers::last_visit.eq(greatest_day(controllers::last_visit, visit)),
        ))
        .execute(connection)
        .await?;
    let Some(day) = look_again else { return Ok(()) };
    diesel::update(own())
        .filter(controllers::look_again_at.is_null().or(controllers::look_again_at.lt(record.at)))
        .set((controllers::look_again.eq(day), controllers::look_again_at.eq(record.at)))
        .execute(connection)
        .await?;
    Ok(())
}

#[diesel::declare_sql_function]
extern "SQL" {
    /// The later of two instants; one that is not there does not count.
    #[sql_name = "greatest"]
    fn greatest_at(a: Nullable<Timestamptz>, b: Timestamptz) -> Nullable<Timestamptz>;
    /// The later of two days; one that is not there does not count.
    #[sql_name = "greatest"]
    fn greatest_day(a: Nullable<Date>, b: Date) -> Nullable<Date>;
}
