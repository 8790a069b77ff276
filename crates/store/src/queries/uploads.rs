//! Files that were uploaded for a preview.

use std::collections::BTreeMap;

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::sql_types;
use diesel_async::{AsyncConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{NewUpload, Upload, UploadsKept, WaitingUpload};
use crate::pool::Account;
use crate::schema::uploads;

diesel::define_sql_function! {
    /// How many bytes a value has.
    fn octet_length(bytes: sql_types::Binary) -> sql_types::Integer;
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
    pub async fn keep_upload(&self, new: NewUpload<'_>, kept: UploadsKept) -> Result<Uuid, StoreError> {
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
                        uploads::file_name.eq(new.file_name),
                        uploads::content.eq(new.content),
                        uploads::created_at.eq(new.at),
                        uploads::place_id.eq(new.place_id),
                        uploads::user_name.eq(new.user_name),
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

    /// An uploaded file.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when it is not there any more.
    pub async fn upload(&self, id: Uuid) -> Result<Upload, StoreError> {
        let (file_name, content, typed): (_, _, serde_json::Value) = uploads::table
            .filter(uploads::account_id.eq(self.id))
            .filter(uploads::id.eq(id))
            .select((uploads::file_name, uploads::content, uploads::typed))
            .first(&mut self.connection().await?)
            .await?;
        let typed = serde_json::from_value(typed).map_err(|e| StoreError::BrokenRow(e.to_string()))?;
        Ok(Upload { file_name, content, typed })
    }

    /// The files that were uploaded for a place and not imported yet, newest first; without a place, the site files.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn waiting_uploads(&self, place_id: Option<Uuid>) -> Result<Vec<WaitingUpload>, StoreError> {
        let rows: Vec<(Uuid, String, i32, String, DateTime<Utc>)> = uploads::table
            .filter(uploads::account_id.eq(self.id))
            .filter(uploads::place_id.is_not_distinct_from(place_id))
            .order((uploads::created_at.desc(), uploads::id))
            .select((
                uploads::id,
                uploads::file_name,
                octet_length(uploads::content),
                uploads::user_name,
                uploads::created_at,
            ))
            .load(&mut self.connection().await?)
            .await?;
        let waiting = |(id, file_name, bytes, user_name, at)| WaitingUpload { id, file_name, bytes, user_name, at };
        Ok(rows.into_iter().map(waiting).collect())
    }

    /// Keeps what was chosen and typed in the preview of a file, as it was typed. A file that is not there any more
    /// keeps nothing.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn keep_typed(&self, id: Uuid, typed: &BTreeMap<String, String>) -> Result<(), StoreError> {
        diesel::update(uploads::table.filter(uploads::account_id.eq(self.id)).filter(uploads::id.eq(id)))
            .set(uploads::typed.eq(serde_json::json!(typed)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Drops a file: it was imported, or nobody wants it.
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
