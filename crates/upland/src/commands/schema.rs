use std::io::{Write, stdout};

use upland_formats::site::site_schema;

use super::Outcome;

/// The JSON Schema of the site file.
pub(super) fn run() -> anyhow::Result<Outcome> {
    let mut out = stdout().lock();
    serde_json::to_writer_pretty(&mut out, &site_schema())?;
    writeln!(out)?;
    Ok(Outcome::Done)
}
