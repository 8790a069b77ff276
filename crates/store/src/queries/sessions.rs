use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde_json::Value;
use sha2::{Digest, Sha256};

use crate::error::StoreError;
use crate::pool::Store;
use crate::schema::sessions;

fn hash(key: &str) -> Vec<u8> {
    Sha256::digest(key.as_bytes()).to_vec()
}

/// Sessions are kept by the hash of their key, before anybody is known: they have no company.
impl Store {
    /// The state of a session that has not run out.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn session(&self, key: &str, now: DateTime<Utc>) -> Result<Option<Value>, StoreError> {
        Ok(sessions::table
            .filter(sessions::key_hash.eq(hash(key)))
            .filter(sessions::expires_at.gt(now))
            .select(sessions::state)
            .first(&mut self.connection().await?)
            .await
            .optional()?)
    }

    /// Keeps a session, new or known.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn keep_session(&self, key: &str, state: &Value, expires_at: DateTime<Utc>) -> Result<(), StoreError> {
        diesel::insert_into(sessions::table)
            .values((sessions::key_hash.eq(hash(key)), sessions::state.eq(state), sessions::expires_at.eq(expires_at)))
            .on_conflict(sessions::key_hash)
            .do_update()
            .set((sessions::state.eq(state), sessions::expires_at.eq(expires_at)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Puts off the end of a session.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn prolong_session(&self, key: &str, expires_at: DateTime<Utc>) -> Result<(), StoreError> {
        diesel::update(sessions::table.filter(sessions::key_hash.eq(hash(key))))
            .set(sessions::expires_at.eq(expires_at))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Ends a session, and with it all that have run out.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn end_session(&self, key: &str, now: DateTime<Utc>) -> Result<(), StoreError> {
        diesel::delete(sessions::table.filter(sessions::key_hash.eq(hash(key)).or(sessions::expires_at.lt(now))))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
