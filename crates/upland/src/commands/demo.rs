use anyhow::Context;
use upland_store::Store;

use super::Outcome;
use crate::args::Demo;
use crate::demo::large::{self, Size};

/// Puts the demo data into a database that has none yet.
pub(super) fn run(args: &Demo) -> anyhow::Result<Outcome> {
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build()?;
    runtime
        .block_on(async {
            upland_store::migrate(&args.database.database_url).await?;
            let store = Store::for_a_command(&args.database.database_url)?;
            let today = args.today.unwrap_or_else(|| chrono::Utc::now().date_naive());
            if args.large {
                let size = Size { places: args.places.into(), controllers: 5, changes: args.changes, seed: args.seed };
                return large::load(&store, size, today).await;
            }
            crate::demo::load(&store, args.fresh, today).await
        })
        .context("the demo data cannot be loaded")?;
    Ok(Outcome::Done)
}
