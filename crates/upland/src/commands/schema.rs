use std::io::{Write, stdout};

use upland_formats::replay::replay_schema;
use upland_formats::site::site_schema;

use super::Outcome;
use crate::args::{SchemaKind, SchemaOf};

/// The JSON Schema of the site file, or of a replay.
pub(super) fn run(args: &SchemaOf) -> anyhow::Result<Outcome> {
    let schema = match args.of {
        SchemaKind::Site => site_schema(),
        SchemaKind::Replay => replay_schema(),
    };
    let mut out = stdout().lock();
    serde_json::to_writer_pretty(&mut out, &schema)?;
    writeln!(out)?;
    Ok(Outcome::Done)
}
