use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use sha2::{Digest, Sha256};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{SessionOwner, SessionRecord};
use crate::pool::{Account, Store};
use crate::schema::sessions;

type SessionColumns = (Uuid, DateTime<Utc>, DateTime<Utc>, String, String);

pub(super) fn hash(key: &str) -> Vec<u8> {
    Sha256::digest(key.as_bytes()).to_vec()
}

/// Sessions are kept by the hash of their key: the key finds them, no company.
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

    /// Begins the session of a user who signs in.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses, as for a key that there is already.
    pub async fn begin_session(
        &self,
        key: &str,
        state: &Value,
        owner: &SessionOwner,
        [now, expires_at]: [DateTime<Utc>; 2],
    ) -> Result<(), StoreError> {
        diesel::insert_into(sessions::table)
            .values((
                sessions::key_hash.eq(hash(key)),
                sessions::state.eq(state),
                sessions::expires_at.eq(expires_at),
                sessions::account_id.eq(owner.account_id),
                sessions::user_id.eq(owner.user_id),
                sessions::session_id.eq(owner.session_id),
                sessions::began_at.eq(owner.began_at),
                sessions::used_at.eq(now),
                sessions::device.eq(&owner.device),
                sessions::network.eq(&owner.network),
            ))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Keeps the new state of a session. One that was ended meanwhile stays ended.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn keep_session(
        &self,
        key: &str,
        state: &Value,
        [now, expires_at]: [DateTime<Utc>; 2],
    ) -> Result<(), StoreError> {
        diesel::update(sessions::table.filter(sessions::key_hash.eq(hash(key))))
            .set((sessions::state.eq(state), sessions::used_at.eq(now), sessions::expires_at.eq(expires_at)))
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

impl Account {
    /// The sessions of a user that have not run out, the newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn sessions_of(&self, user_id: Uuid, now: DateTime<Utc>) -> Result<Vec<SessionRecord>, StoreError> {
        let rows: Vec<SessionColumns> = sessions::table
            .filter(sessions::account_id.eq(self.id))
            .filter(sessions::user_id.eq(user_id))
            .filter(sessions::expires_at.gt(now))
            .order((sessions::began_at.desc(), sessions::session_id))
            .select((sessions::session_id, sessions::began_at, sessions::used_at, sessions::device, sessions::network))
            .load(&mut self.connection().await?)
            .await?;
        let record = |(session_id, began_at, used_at, device, network): SessionColumns| SessionRecord {
            session_id,
            began_at,
            used_at,
            device,
            network,
        };
        Ok(rows.into_iter().map(record).collect())
    }

    /// Ends a session of a user; one that is over already stays over.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn end_session_of(&self, user_id: Uuid, session_id: Uuid) -> Result<(), StoreError> {
        let own = sessions::account_id.eq(self.id).and(sessions::user_id.eq(user_id));
        diesel::delete(sessions::table.filter(own).filter(sessions::session_id.eq(session_id)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Ends all sessions of a user but one.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn end_other_sessions(&self, user_id: Uuid, keep: Uuid) -> Result<(), StoreError> {
        let mut connection = self.connection().await?;
        end_others(&mut connection, self.id, user_id, Some(keep)).await
    }
}

/// Ends the sessions of a user but the one to keep.
pub(super) async fn end_others(
    connection: &mut AsyncPgConnection,
    account_id: Uuid,
    user_id: Uuid,
    keep: Option<Uuid>,
) -> Result<(), StoreError> {
    let own = sessions::account_id.eq(account_id).and(sessions::user_id.eq(user_id));
    diesel::delete(sessions::table.filter(own).filter(sessions::session_id.nullable().is_distinct_from(keep)))
        .execute(connection)
        .await?;
    Ok(())
}
