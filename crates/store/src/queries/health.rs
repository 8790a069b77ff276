//! What the database says of itself.

use chrono::{DateTime, Utc};
use diesel::sql_types::{BigInt, Integer, Text, Timestamptz};
use diesel_async::{AsyncConnection, AsyncMigrationHarness, AsyncPgConnection, RunQueryDsl};
use diesel_migrations::MigrationHarness;

use crate::error::StoreError;
use crate::pool::{MIGRATIONS, with_options};

/// The state of a database.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Health {
    /// The server's version, as in 150004.
    pub server_version: i32,
    /// Its encoding, as in `UTF8`.
    pub encoding: String,
    /// How many connections the server allows.
    pub max_connections: i32,
    /// Size of the database, bytes.
    pub bytes: i64,
    /// The server's clock.
    pub now: DateTime<Utc>,
    /// Migrations that are not applied; none of it can be used before.
    pub pending_migrations: usize,
    /// Companies with people and without a lead: nobody can look after them.
    pub without_lead: i64,
}

#[derive(Debug, diesel::QueryableByName)]
struct HealthRow {
    #[diesel(sql_type = Integer)]
    server_version: i32,
    #[diesel(sql_type = Text)]
    encoding: String,
    #[diesel(sql_type = Integer)]
    max_connections: i32,
    #[diesel(sql_type = BigInt)]
    bytes: i64,
    #[diesel(sql_type = Timestamptz)]
    now: DateTime<Utc>,
}

#[derive(Debug, diesel::QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    count: i64,
}

/// Asks a database how it is. Takes a runtime with several threads.
///
/// # Errors
/// [`StoreError::Away`] when the database cannot be reached.
pub async fn health(database_url: &str) -> Result<Health, StoreError> {
    let away = |e| StoreError::Away(Box::new(e));
    let mut connection = AsyncPgConnection::establish(&with_options(database_url)).await.map_err(away)?;
    let row: HealthRow = diesel::sql_query(
        "SELECT current_setting('server_version_num')::integer AS server_version, \
                current_setting('server_encoding') AS encoding, \
                current_setting('max_connections')::integer AS max_connections, \
                pg_database_size(current_database()) AS bytes, clock_timestamp() AS now",
    )
    .get_result(&mut connection)
    .await?;
    let mut harness = AsyncMigrationHarness::new(connection);
    let pending_migrations = harness.pending_migrations(MIGRATIONS).map_err(StoreError::Away)?.len();
    let without_lead = if pending_migrations > 0 {
        0
    } else {
        let mut connection = AsyncPgConnection::establish(&with_options(database_url)).await.map_err(away)?;
        let counted: Count = diesel::sql_query(
            "SELECT count(*) FROM accounts AS a \
             WHERE EXISTS (SELECT FROM users WHERE account_id = a.id AND left_at IS NULL) \
               AND NOT EXISTS (SELECT FROM users WHERE account_id = a.id AND left_at IS NULL AND role = 'lead')",
        )
        .get_result(&mut connection)
        .await?;
        counted.count
    };
    let HealthRow { server_version, encoding, max_connections, bytes, now } = row;
    Ok(Health { server_version, encoding, max_connections, bytes, now, pending_migrations, without_lead })
}
