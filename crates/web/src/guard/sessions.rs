//! Sessions in the database: they survive a restart and end on sign-out, or when their
//! user ends them from elsewhere.

use std::collections::HashMap;

use actix_session::storage::{LoadError, SaveError, SessionKey, SessionStore, UpdateError};
use actix_web::cookie::time::Duration;
use anyhow::anyhow;
use chrono::{DateTime, TimeDelta, Utc};
use rand::Rng;
use rand::distr::Alphanumeric;
use upland_store::{SessionOwner, Store};

use super::session_state::OWNER;
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

    fn now_and_end(&self, ttl: &Duration) -> [DateTime<Utc>; 2] {
        [self.clock.now(), self.end(ttl)]
    }
}

/// Whose session a state is; nobody's before the sign-in.
fn owner_in(state: &HashMap<String, String>) -> Option<SessionOwner> {
    state.get(OWNER).and_then(|json| serde_json::from_str(json).ok())
}

impl SessionStore for DatabaseSessions {
    async fn load(&self, key: &SessionKey) -> Result<Option<HashMap<String, String>>, LoadError> {
        let state =
            self.store.session(key.as_ref(), self.clock.now()).await.map_err(|e| LoadError::Other(anyhow!(e)))?;
        state.map(|s| serde_json::from_value(s).map_err(|e| LoadError::Deserialization(anyhow!(e)))).transpose()
    }

    async fn save(&self, state: HashMap<String, String>, ttl: &Duration) -> Result<SessionKey, SaveError> {
        let key: String = rand::rng().sample_iter(Alphanumeric).take(64).map(char::from).collect();
        let json = serde_json::to_value(&state).map_err(|e| SaveError::Serialization(e.into()))?;
        let owner = owner_in(&state).ok_or_else(|| SaveError::Other(anyhow!("a session of nobody")))?;
        let begun = self.store.begin_session(&key, &json, &owner, self.now_and_end(ttl)).await;
        begun.map_err(|e| SaveError::Other(anyhow!(e)))?;
        SessionKey::try_from(key).map_err(|e| SaveError::Other(anyhow!(e)))
    }

    async fn update(
        &self,
        key: SessionKey,
        state: HashMap<String, String>,
        ttl: &Duration,
    ) -> Result<SessionKey, UpdateError> {
        let json = serde_json::to_value(state).map_err(|e| UpdateError::Serialization(e.into()))?;
        let kept = self.store.keep_session(key.as_ref(), &json, self.now_and_end(ttl)).await;
        kept.map_err(|e| UpdateError::Other(anyhow!(e)))?;
        Ok(key)
    }

    async fn update_ttl(&self, key: &SessionKey, ttl: &Duration) -> anyhow::Result<()> {
        Ok(self.store.prolong_session(key.as_ref(), self.end(ttl)).await?)
    }

    async fn delete(&self, key: &SessionKey) -> anyhow::Result<()> {
        Ok(self.store.end_session(key.as_ref(), self.clock.now()).await?)
    }
}
