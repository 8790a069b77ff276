use std::fs;
use std::io::{Write, stdout};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

use anyhow::Context;
use chrono::Utc;
use upland_store::Store;
use upland_web::Settings;

use super::{Outcome, complain};
use crate::args::{Database, Serve};

/// Serves until told to stop.
pub(super) fn run(args: Serve) -> anyhow::Result<Outcome> {
    if !args.listen.ip().is_loopback() && !args.https {
        complain(format_args!(
            "--listen {}: beyond loopback passwords would travel in the clear; put a proxy that ends TLS before \
             the server and say --https",
            args.listen
        ));
        return Ok(Outcome::Usage);
    }
    log_as_json();
    let key = fs::read(&args.key_file).with_context(|| format!("{} cannot be read", args.key_file.display()))?;
    let settings = Settings {
        database_url: args.database.database_url.clone(),
        listen: args.listen,
        key,
        today: args.today,
        https: args.https,
        workers: args.workers,
        connections: args.connections,
        migrated: Arc::default(),
    };
    let migrated = settings.migrated.clone();
    match bring_up_to_date(&args.database) {
        Ok(()) => migrated.store(true, Ordering::Release),
        // The pages say so too, and come by themselves when the database does.
        Err(error) => complain(format_args!("{error:#}; serving without it")),
    }
    // Ends with the process.
    thread::spawn(move || look_after(&args.database, &migrated));
    actix_web::rt::System::new().block_on(upland_web::serve(settings, |address| {
        let mut out = stdout().lock();
        // Nobody reads it when standard output is closed.
        let _ = writeln!(out, "Upland Almanac is at http://{address}/").and_then(|()| out.flush());
    }))?;
    Ok(Outcome::Done)
}

/// How long to wait for a database that is away before asking again.
const AGAIN: Duration = Duration::from_secs(2);
/// How often what has run out is taken away.
const TIDY_EVERY: Duration = Duration::from_secs(3600);

/// Brings a database that comes late to the newest version, and takes away what has run out, every hour.
fn look_after(database: &Database, migrated: &AtomicBool) {
    while !migrated.load(Ordering::Acquire) {
        thread::sleep(AGAIN);
        migrated.store(bring_up_to_date(database).is_ok(), Ordering::Release);
    }
    loop {
        if let Err(error) = tidy(database) {
            complain(format_args!("{error:#}; trying again in an hour"));
        }
        thread::sleep(TIDY_EVERY);
    }
}

fn tidy(database: &Database) -> anyhow::Result<usize> {
    let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build()?;
    let gone = runtime.block_on(async { Store::for_a_command(&database.database_url)?.tidy(Utc::now()).await });
    gone.context("what has run out cannot be taken away")
}

/// Brings the database to the newest version.
pub(super) fn migrate(args: &Database) -> anyhow::Result<Outcome> {
    bring_up_to_date(args)?;
    Ok(Outcome::Done)
}

fn bring_up_to_date(args: &Database) -> anyhow::Result<()> {
    // The migrations take a runtime with several threads.
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build()?;
    runtime.block_on(upland_store::migrate(&args.database_url)).context("the database cannot be brought up to date")
}

/// One line of JSON an event, to standard error; `RUST_LOG` chooses what.
fn log_as_json() {
    let filter = tracing_subscriber::EnvFilter::try_from_default_env()
        .unwrap_or_else(|_| tracing_subscriber::EnvFilter::new("warn,upland_web=info"));
    tracing_subscriber::fmt().json().with_env_filter(filter).with_writer(std::io::stderr).init();
}
