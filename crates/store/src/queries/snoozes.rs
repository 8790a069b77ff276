//! Jobs that somebody put off.

use diesel::prelude::*;
use diesel::upsert::excluded;
use diesel_async::RunQueryDsl;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::Snooze;
use crate::pool::Account;
use crate::schema::{aggregates, snoozes};

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = snoozes)]
struct SnoozeRow {
    controller_id: Uuid,
    job: String,
    until: chrono::NaiveDate,
    reason: String,
    user_id: Uuid,
    user_name: String,
    at: chrono::DateTime<chrono::Utc>,
}

impl From<SnoozeRow> for Snooze {
    fn from(row: SnoozeRow) -> Self {
        let SnoozeRow { controller_id, job, until, reason, user_id, user_name, at } = row;
        Self { controller_id, job, until, reason, user_id, user_name, at }
    }
}

impl Account {
    /// The jobs of the company that were put off, those that came back included.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn snoozes(&self) -> Result<Vec<Snooze>, StoreError> {
        let rows: Vec<SnoozeRow> = snoozes::table
            .filter(snoozes::account_id.eq(self.id))
            .order((snoozes::controller_id, snoozes::job))
            .select(SnoozeRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        Ok(rows.into_iter().map(Snooze::from).collect())
    }

    /// Puts a job off; one that was put off already gets the new day and reason.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is no such controller.
    pub async fn snooze(&self, snooze: &Snooze) -> Result<(), StoreError> {
        let connection = &mut self.connection().await?;
        let there = aggregates::table
            .filter(aggregates::account_id.eq(self.id))
            .filter(aggregates::id.eq(snooze.controller_id));
        if !diesel::select(diesel::dsl::exists(there)).get_result::<bool>(connection).await? {
            return Err(StoreError::NotFound);
        }
        diesel::insert_into(snoozes::table)
            .values((
                snoozes::account_id.eq(self.id),
                snoozes::controller_id.eq(snooze.controller_id),
                snoozes::job.eq(&snooze.job),
                snoozes::until.eq(snooze.until),
                snoozes::reason.eq(&snooze.reason),
                snoozes::user_id.eq(snooze.user_id),
                snoozes::user_name.eq(&snooze.user_name),
                snoozes::at.eq(snooze.at),
            ))
            .on_conflict((snoozes::account_id, snoozes::controller_id, snoozes::job))
            .do_update()
            .set((
                snoozes::until.eq(excluded(snoozes::until)),
                snoozes::reason.eq(excluded(snoozes::reason)),
                snoozes::user_id.eq(excluded(snoozes::user_id)),
                snoozes::user_name.eq(excluded(snoozes::user_name)),
                snoozes::at.eq(excluded(snoozes::at)),
            ))
            .execute(connection)
            .await?;
        Ok(())
    }

    /// Brings a job back that was put off; nothing happens where none was.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn wake(&self, controller_id: Uuid, job: &str) -> Result<(), StoreError> {
        let put_off = snoozes::table
            .filter(snoozes::account_id.eq(self.id))
            .filter(snoozes::controller_id.eq(controller_id))
            .filter(snoozes::job.eq(job));
        diesel::delete(put_off).execute(&mut self.connection().await?).await?;
        Ok(())
    }
}
