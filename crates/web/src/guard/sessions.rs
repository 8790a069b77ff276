//! Sessions in the database: they survive a restart and end on sign-out.

use std::collections::HashMap;

use actix_session::storage::{LoadError, SaveError, SessionKey, SessionStore, UpdateError};
use actix_web::cookie::time::Duration;
use anyhow::anyhow;
use chrono::{DateTime, TimeDelta, Utc};
use rand::Rng;
use rand::distr::Alphanumeric;
use upland_store::Store;

use crate::clock::Clock;

/// Keeps sessions in the store.
#[derive(Debug, Clone)]
pub(crate) struct DatabaseSessions {
    pub(crate) store: Store,
    pub(crate) clock: Clock,
}

impl DatabaseSessions {
    fn end(&self, ttl: &Duration) -> DateTime<Utc> {
        self.clock.now() + TimeDelta::seconds(ttl.whole_seconds())
    }

    async fn keep(&self, key: &str, state: HashMap<String, String>, ttl: &Duration) -> anyhow::Result<()> {
        let state = serde_json::to_value(state)?;
        Ok(self.store.keep_session(key, &state, self.end(ttl)).await?)
    }
}

impl SessionStore for DatabaseSessions {
    async fn load(&self, key: &SessionKey) -> Result<Option<HashMap<String, String>>, LoadError> {
        let state =
            self.store.session(key.as_ref(), self.clock.now()).await.map_err(|e| LoadError::Other(anyhow!(e)))?;
        state.map(|s| serde_json::from_value(s).map_err(|e| LoadError::Deserialization(anyhow!(e)))).transpose()
    }

    async fn save(&self, state: HashMap<String, String>, ttl: &Duration) -> Result<SessionKey, SaveError> {
        let key: String = rand::rng().sample_iter(Alphanumeric).take(64).map(char::from).collect();
        self.keep(&key, state, ttl).await.map_err(SaveError::Other)?;
        SessionKey::try_from(key).map_err(|e| SaveError::Other(anyhow!(e)))
    }

    async fn update(
        &self,
        key: SessionKey,
        state: HashMap<String, String>,
        ttl: &Duration,
    ) -> Result<SessionKey, UpdateError> {
        self.keep(key.as_ref(), state, ttl).await.map_err(UpdateError::Other)?;
        Ok(key)
    }

    async fn update_ttl(&self, key: &SessionKey, ttl: &Duration) -> anyhow::Result<()> {
        Ok(self.store.prolong_session(key.as_ref(), self.end(ttl)).await?)
    }

    async fn delete(&self, key: &SessionKey) -> anyhow::Result<()> {
        Ok(self.store.end_session(key.as_ref(), self.clock.now()).await?)
    }
}
