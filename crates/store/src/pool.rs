use std::sync::Arc;
use std::time::Duration;

use diesel_async::pooled_connection::deadpool::{Object, Pool};
use diesel_async::pooled_connection::{AsyncDieselConnectionManager, ManagerConfig, RecyclingMethod};
use diesel_async::{AsyncConnection, AsyncMigrationHarness, AsyncPgConnection, RunQueryDsl};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use uuid::Uuid;

use crate::error::StoreError;
use crate::known::KnownControllers;

pub(crate) const MIGRATIONS: EmbeddedMigrations = embed_migrations!("migrations");

/// Any number that nothing else locks by.
const MIGRATION_LOCK: i64 = 7_586_318_225;

/// Options of every connection of a pool. No statement and no wait for a lock outlasts the request that asked, and no
/// transaction is left open by one that was given up. A statement is planned once for a connection: every one finds
/// its rows by a key, whatever its values, and planning it anew took longer than carrying it out.
const OPTIONS: &str = "-c%20statement_timeout%3D7000%20-c%20lock_timeout%3D4000\
                       %20-c%20idle_in_transaction_session_timeout%3D15000\
                       %20-c%20plan_cache_mode%3Dforce_generic_plan";

/// An address with [`OPTIONS`]; one that states options of its own keeps those.
pub(crate) fn with_options(database_url: &str) -> String {
    let is_url = database_url.starts_with("postgres://") || database_url.starts_with("postgresql://");
    if !is_url || database_url.contains("options=") {
        return database_url.to_owned();
    }
    let sign = if database_url.contains('?') { '&' } else { '?' };
    format!("{database_url}{sign}options={OPTIONS}")
}

/// A pool of connections to the database.
#[derive(Clone)]
pub struct Store {
    pool: Pool<AsyncPgConnection>,
    pub(crate) controllers: Arc<KnownControllers>,
}

impl std::fmt::Debug for Store {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Store").finish_non_exhaustive()
    }
}

/// The part of the store that belongs to one company.
#[derive(Debug, Clone)]
pub struct Account {
    pub(crate) store: Store,
    pub(crate) id: Uuid,
}

impl Store {
    /// A pool for a database address. No connection is made yet, so that the application can
    /// start, and say what is wrong, while the database is away.
    ///
    /// # Errors
    /// [`StoreError::Away`] when the pool itself cannot be made.
    pub fn new(database_url: &str, connections: usize) -> Result<Self, StoreError> {
        // A busy machine can take seconds for a new connection; a refused one is known at once.
        Self::waiting(with_options(database_url), connections, Duration::from_secs(8))
    }

    /// One connection for a command or for work in the background, where no page waits for the answer: nothing
    /// that it asks is cut off, and it waits a minute for a database that is slow to take it on.
    ///
    /// # Errors
    /// [`StoreError::Away`] when the pool itself cannot be made.
    pub fn for_a_command(database_url: &str) -> Result<Self, StoreError> {
        Self::waiting(database_url.to_owned(), 1, Duration::from_mins(1))
    }

    fn waiting(address: String, connections: usize, patience: Duration) -> Result<Self, StoreError> {
        // A closed connection is told from its own state; asking the server first, as is the default,
        // would double the round trips of every query.
        let mut config = ManagerConfig::default();
        config.recycling_method = RecyclingMethod::Fast;
        let manager = AsyncDieselConnectionManager::<AsyncPgConnection>::new_with_config(address, config);
        let pool = Pool::builder(manager)
            .max_size(connections)
            .runtime(deadpool::Runtime::Tokio1)
            .wait_timeout(Some(patience))
            .create_timeout(Some(patience))
            .recycle_timeout(Some(Duration::from_secs(3)))
            .build()
            .map_err(|e| StoreError::Away(Box::new(e)))?;
        Ok(Self { pool, controllers: Arc::default() })
    }

    /// The part that belongs to a company.
    #[must_use]
    pub fn account(&self, id: Uuid) -> Account {
        Account { store: self.clone(), id }
    }

    /// Whether the database answers.
    ///
    /// # Errors
    /// [`StoreError::Away`] when it does not.
    pub async fn ping(&self) -> Result<(), StoreError> {
        diesel::sql_query("SELECT 1").execute(&mut self.connection().await?).await?;
        Ok(())
    }

    pub(crate) async fn connection(&self) -> Result<Object<AsyncPgConnection>, StoreError> {
        Ok(self.pool.get().await?)
    }
}

impl Account {
    /// The company's key.
    #[must_use]
    pub const fn id(&self) -> Uuid {
        self.id
    }

    pub(crate) async fn connection(&self) -> Result<Object<AsyncPgConnection>, StoreError> {
        self.store.connection().await
    }
}

/// Brings a database to the newest version. Takes a runtime with several threads.
///
/// # Errors
/// [`StoreError::Away`] when the database cannot be reached or a migration fails.
pub async fn migrate(database_url: &str) -> Result<(), StoreError> {
    let mut connection = AsyncPgConnection::establish(database_url).await.map_err(|e| StoreError::Away(Box::new(e)))?;
    // Servers that start at once migrate one after another; the lock ends with the connection.
    diesel::sql_query(format!("SELECT pg_advisory_lock({MIGRATION_LOCK})")).execute(&mut connection).await?;
    let mut harness = AsyncMigrationHarness::new(connection);
    harness.run_pending_migrations(MIGRATIONS).map_err(StoreError::Away)?;
    Ok(())
}

/// Takes all migrations back. Takes a runtime with several threads.
///
/// # Errors
/// [`StoreError::Away`] when the database cannot be reached or a migration fails.
#[cfg(feature = "testing")]
pub async fn revert_all(database_url: &str) -> Result<(), StoreError> {
    let connection = AsyncPgConnection::establish(database_url).await.map_err(|e| StoreError::Away(Box::new(e)))?;
    AsyncMigrationHarness::new(connection).revert_all_migrations(MIGRATIONS).map_err(StoreError::Away)?;
    Ok(())
}
