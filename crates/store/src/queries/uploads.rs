use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::sql_types;
use diesel_async::{AsyncConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::StoreError;
use crate::pool::Account;
use crate::schema::uploads;

/// Which uploaded files a company keeps: a preview is looked at within the day, and nobody fills the disk.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct UploadsKept {
    /// From when on.
    pub since: DateTime<Utc>,
    /// How many bytes in all, the newest files first.
    pub bytes: i64,
}

/// The files of a company, newest first, with the bytes of each and all newer ones.
const NEWEST_FIRST: &str = "DELETE FROM uploads USING (
    SELECT id, sum(octet_length(content)) OVER (ORDER BY created_at DESC, id) AS bytes FROM uploads WHERE account_id = $1
) AS newest_first
WHERE uploads.account_id = $1 AND uploads.id = newest_first.id AND newest_first.bytes > $2 AND uploads.id <> $3";

impl Account {
    /// Keeps an uploaded file for its preview, and drops those that the company does not keep any longer. The new one is
    /// kept however large it is.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn keep_upload(
        &self,
        file_name: &str,
        content: &[u8],
        at: DateTime<Utc>,
        kept: UploadsKept,
    ) -> Result<Uuid, StoreError> {
        let (account, id) = (self.id, Uuid::new_v4());
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                diesel::delete(
                    uploads::table.filter(uploads::account_id.eq(account)).filter(uploads::created_at.lt(kept.since)),
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
                diesel::sql_query(NEWEST_FIRST)
                    .bind::<sql_types::Uuid, _>(account)
                    .bind::<sql_types::BigInt, _>(kept.bytes)
                    .bind::<sql_types::Uuid, _>(id)
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
