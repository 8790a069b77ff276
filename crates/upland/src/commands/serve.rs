use std::fs;
use std::io::{Write, stdout};

use anyhow::Context;
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
    };
    if let Err(error) = bring_up_to_date(&args.database) {
        // The pages say so too, and come back by themselves when the database does.
        complain(format_args!("{error:#}; serving without it"));
    }
    actix_web::rt::System::new().block_on(upland_web::serve(settings, |address| {
        let mut out = stdout().lock();
        // Nobody reads it when standard output is closed.
        let _ = writeln!(out, "Upland Almanac is at http://{address}/").and_then(|()| out.flush());
    }))?;
    Ok(Outcome::Done)
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
