//! The server: settings, workers, middleware.

use std::net::SocketAddr;
use std::sync::Arc;
use std::sync::atomic::AtomicBool;

use actix_session::SessionMiddleware;
use actix_session::config::{CookieContentSecurity, PersistentSession, TtlExtensionPolicy};
use actix_web::cookie::{Key, SameSite, time::Duration};
use actix_web::middleware::{Compress, from_fn};
use actix_web::{HttpServer, web};
use chrono::NaiveDate;
use upland_store::Store;

use crate::clock::Clock;
use crate::guard::sessions::DatabaseSessions;
use crate::guard::{errors, log, time_limit};
use crate::headers;
use crate::jobs::Jobs;
use crate::routes;
use crate::searches::Searches;
use crate::state::App;

/// How long a session lasts after its last use.
const SESSION_DAYS: i64 = 14;

/// What the server has to be told.
#[derive(Debug, Clone)]
pub struct Settings {
    /// Address of the database.
    pub database_url: String,
    /// Where to listen.
    pub listen: SocketAddr,
    /// Key of the session cookies, 64 bytes or more.
    pub key: Vec<u8>,
    /// Shows every page as of this day.
    pub today: Option<NaiveDate>,
    /// Cookies only over HTTPS.
    pub https: bool,
    /// Worker threads; one a core when not stated.
    pub workers: Option<usize>,
    /// Connections that a worker keeps: one pool a worker gave a third more throughput than a shared one.
    pub connections: usize,
    /// Whether the database is at the newest version: until then nothing but `/healthz` is answered.
    pub migrated: Arc<AtomicBool>,
}

/// Serves until the process is told to stop; `ready` is called with the address once it listens.
///
/// # Errors
/// When the key is too short, the pool cannot be made or the address cannot be listened on.
pub async fn serve(settings: Settings, ready: impl FnOnce(SocketAddr)) -> anyhow::Result<()> {
    anyhow::ensure!(settings.key.len() >= 64, "the session key has {} bytes; it takes 64", settings.key.len());
    let key = Key::from(&settings.key);
    let clock = settings.today.map_or(Clock::Machine, Clock::Day);
    let (url, https, connections) = (settings.database_url.clone(), settings.https, settings.connections.max(1));
    let migrated = settings.migrated.clone();
    let (jobs, searches) = (web::Data::new(Jobs::default()), web::Data::new(Searches::default()));
    // A pool that cannot be made is found out here, not in a worker.
    Store::new(&url, connections)?;
    let mut server = HttpServer::new(move || {
        let store = Store::new(&url, connections).unwrap_or_else(|_| std::process::abort());
        let sessions = SessionMiddleware::builder(DatabaseSessions { store: store.clone(), clock }, key.clone())
            .cookie_name("upland".into())
            .cookie_secure(https)
            .cookie_http_only(true)
            .cookie_same_site(SameSite::Lax)
            .cookie_content_security(CookieContentSecurity::Signed)
            .session_lifecycle(
                PersistentSession::default()
                    .session_ttl(Duration::days(SESSION_DAYS))
                    .session_ttl_extension_policy(TtlExtensionPolicy::OnStateChanges),
            )
            .build();
        actix_web::App::new()
            .app_data(jobs.clone())
            .app_data(searches.clone())
            .app_data(web::Data::new(App { store, clock, behind_proxy: https, migrated: migrated.clone() }))
            .configure(|config| routes::configure(config, sessions))
            .wrap(from_fn(errors::designed_errors))
            // Asking whether the database is away belongs to the time of the request.
            .wrap(from_fn(time_limit::time_limit))
            .wrap(headers::secure_headers(https))
            .wrap(Compress::default())
            .wrap(from_fn(log::log_requests))
    })
    .tcp_nodelay(true)
    .shutdown_timeout(10);
    if let Some(workers) = settings.workers {
        server = server.workers(workers);
    }
    let server = server.bind(settings.listen)?;
    if let Some(address) = server.addrs().first() {
        ready(*address);
    }
    server.run().await?;
    Ok(())
}
