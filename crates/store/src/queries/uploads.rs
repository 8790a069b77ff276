use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::StoreError;
use crate::pool::Account;
use crate::schema::uploads;

impl Account {
    /// Keeps an uploaded file for its preview, and drops those from before an instant.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn keep_upload(
        &self,
        file_name: &str,
        content: &[u8],
        at: DateTime<Utc>,
        forget_before: DateTime<Utc>,
    ) -> Result<Uuid, StoreError> {
        let (account, id) = (self.id, Uuid::new_v4());
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                diesel::delete(
                    uploads::table
                        .filter(uploads::account_id.eq(account))
                        .filter(uploads::created_at.lt(forget_before)),
                )
                .execute(connection)
                .await?;
                diesel::insert_into(uploads::table)
                    .values((
                        uploads::account_id.eq(account),
                        uploads::id.eq(id),
                        uploads::file_name.eq(file_name),
                        uploads::content.eq(content),
                        uploads::created_at.eq(at),
                    ))
                    .execute(connection)
                    .await?;
                Ok(())
            })
            .await?;
        Ok(id)
    }

    /// The name and the bytes of an uploaded file.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when it is not there any more.
    pub async fn upload(&self, id: Uuid) -> Result<(String, Vec<u8>), StoreError> {
        Ok(uploads::table
            .filter(uploads::account_id.eq(self.id))
            .filter(uploads::id.eq(id))
            .select((uploads::file_name, uploads::content))
            .first(&mut self.connection().await?)
            .await?)
    }

    /// Drops a file after its import.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn forget_upload(&self, id: Uuid) -> Result<(), StoreError> {
        diesel::delete(uploads::table.filter(uploads::account_id.eq(self.id)).filter(uploads::id.eq(id)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
