//! A database of its own for each test, copied from a migrated template in a tenth of a second.
//!
//! `UPLAND_TEST_SERVER` is the address of a server that may be filled with throw-away databases;
//! `./run test` starts one.

use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl, SimpleAsyncConnection};
use uuid::Uuid;

/// Why there is no test database.
pub type TestError = Box<dyn std::error::Error + Send + Sync>;

/// Any number that nothing else on the server locks by.
const TEMPLATE_LOCK: i64 = 7_586_318_224;

/// Makes a database and gives its address. Takes a runtime with several threads.
///
/// # Errors
/// When the server is not stated or refuses.
pub async fn fresh_database() -> Result<String, TestError> {
    let server = std::env::var("UPLAND_TEST_SERVER").map_err(|_| "UPLAND_TEST_SERVER is not set: use ./run test")?;
    let mut connection = AsyncPgConnection::establish(&format!("{server}/postgres")).await?;
    let template = template_name()?;
    // One test at a time looks for the template and makes it; the lock ends with the connection.
    diesel::sql_query(format!("SELECT pg_advisory_lock({TEMPLATE_LOCK})")).execute(&mut connection).await?;
    if !exists(&mut connection, &template).await? {
        let half_made = format!("{template}_half_made");
        connection.batch_execute(&format!("DROP DATABASE IF EXISTS {half_made}")).await?;
        connection.batch_execute(&format!("CREATE DATABASE {half_made}")).await?;
        crate::migrate(&format!("{server}/{half_made}")).await?;
        connection.batch_execute(&format!("ALTER DATABASE {half_made} RENAME TO {template}")).await?;
    }
    let name = format!("test_{}", Uuid::new_v4().simple());
    connection.batch_execute(&format!("CREATE DATABASE {name} TEMPLATE {template}")).await?;
    Ok(format!("{server}/{name}"))
}

/// Takes the database of a test away, so that a run of hundreds of tests does not fill the disk. What goes wrong
/// is not told: the server itself is thrown away in the end. Must not be called on a thread of a runtime.
pub fn drop_database(database_url: &str) {
    let Some((_, name)) = database_url.rsplit_once('/') else { return };
    let statement = format!("DROP DATABASE IF EXISTS {name} WITH (FORCE)");
    if let Ok(runtime) = tokio::runtime::Builder::new_current_thread().enable_all().build() {
        let _ = runtime.block_on(admin(&statement));
    }
}

/// Runs a statement on the server itself, to take a database away and bring it back.
///
/// # Errors
/// When the server is not stated or refuses.
pub async fn admin(statement: &str) -> Result<(), TestError> {
    let server = std::env::var("UPLAND_TEST_SERVER")?;
    let mut connection = AsyncPgConnection::establish(&format!("{server}/postgres")).await?;
    connection.batch_execute(statement).await?;
    Ok(())
}

#[derive(diesel::QueryableByName)]
struct Found {
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    count: i64,
}

async fn exists(connection: &mut AsyncPgConnection, name: &str) -> Result<bool, TestError> {
    let found: Found = diesel::sql_query("SELECT count(*) AS count FROM pg_database WHERE datname = $1")
        .bind::<diesel::sql_types::Text, _>(name)
        .get_result(connection)
        .await?;
    Ok(found.count > 0)
}

/// A setting of the database as the connections of a store have it.
///
/// # Errors
/// When the database refuses, or knows no such setting.
pub async fn setting(store: &crate::Store, name: &str) -> Result<String, TestError> {
    #[derive(diesel::QueryableByName)]
    struct Shown {
        #[diesel(sql_type = diesel::sql_types::Text)]
        value: String,
    }
    let shown: Shown = diesel::sql_query("SELECT current_setting($1) AS value")
        .bind::<diesel::sql_types::Text, _>(name)
        .get_result(&mut store.connection().await?)
        .await?;
    Ok(shown.value)
}

/// The template's name changes with the migrations.
fn template_name() -> Result<String, TestError> {
    use diesel::migration::MigrationSource;
    use sha2::{Digest, Sha256};
    let known = MigrationSource::<diesel::pg::Pg>::migrations(&crate::pool::MIGRATIONS)?.len();
    if known != MIGRATION_FILES.len() {
        return Err(format!("{known} migrations, and {} in the list of the tests", MIGRATION_FILES.len()).into());
    }
    let mut hash = Sha256::new();
    for file in MIGRATION_FILES {
        hash.update(file);
    }
    let short: String = hash.finalize().iter().take(8).map(|b| format!("{b:02x}")).collect();
    Ok(format!("template_{short}"))
}

const MIGRATION_FILES: [&str; 20] = [
    include_str!("../migrations/20261125000001_create_accounts/up.sql"),
    include_str!("../migrations/20261125000002_create_weather/up.sql"),
    include_str!("../migrations/20261125000003_create_places/up.sql"),
    include_str!("../migrations/20261125000004_create_uploads/up.sql"),
    include_str!("../migrations/20261126000002_create_field_records/up.sql"),
    include_str!("../migrations/20261129000001_key_sign_in_failures/up.sql"),
    include_str!("../migrations/20261129000002_sessions_know_their_user/up.sql"),
    include_str!("../migrations/20261129000003_create_actions/up.sql"),
    include_str!("../migrations/20261129000004_roles/up.sql"),
    include_str!("../migrations/20261129000005_controllers_know_their_visits/up.sql"),
    include_str!("../migrations/20261129000006_create_snoozes/up.sql"),
    include_str!("../migrations/20261129000007_create_weather_decisions/up.sql"),
    include_str!("../migrations/20261129000008_record_measurements/up.sql"),
    include_str!("../migrations/20261129000009_typed_temperatures/up.sql"),
    include_str!("../migrations/20261129000010_places_know_further_weather/up.sql"),
    include_str!("../migrations/20261130000001_rounds_begin_at_a_yard/up.sql"),
    include_str!("../migrations/20261130000002_companies_have_a_usual_station/up.sql"),
    include_str!("../migrations/20261201000001_keep_the_hours_of_days/up.sql"),
    include_str!("../migrations/20261202000001_uploads_are_found_again/up.sql"),
    include_str!("../migrations/20261202000002_sensors_are_flat/up.sql"),
];
