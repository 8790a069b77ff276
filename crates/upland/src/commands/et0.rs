use std::io::{self, Write, stdout};

use chrono::SecondsFormat;

use super::{Outcome, hourly_file, weather_file};
use crate::args::{Timestep, Weather};

/// `date,et0_mm,method`, or `time,et0_mm,method` by the hour, one line a row of the file, in full precision. A row
/// without a figure is left blank and makes the exit status 1.
pub(super) fn run(args: &Weather) -> anyhow::Result<Outcome> {
    match args.timestep {
        Timestep::Daily => daily(args),
        Timestep::Hourly => hourly(args),
    }
}

fn daily(args: &Weather) -> anyhow::Result<Outcome> {
    let file = match weather_file::open(args)? {
        Ok(file) => file,
        Err(outcome) => return Ok(outcome),
    };
    let rows = file.reading.rows.iter().map(|row| {
        let et0 = file.site.et0(&row.day, file.reference);
        (row.day.date, et0.map(|e| (e.et0_mm, e.method)))
    });
    Ok(write("date", rows)?)
}

fn hourly(args: &Weather) -> anyhow::Result<Outcome> {
    let file = match hourly_file::open(args)? {
        Ok(file) => file,
        Err(outcome) => return Ok(outcome),
    };
    let rows = file.hours.iter().zip(&file.et0);
    Ok(write(
        "time",
        rows.map(|(hour, et0)| {
            (hour.start.to_rfc3339_opts(SecondsFormat::Secs, true), et0.map(|e| (e.et0_mm, e.method)))
        }),
    )?)
}

fn write<W: std::fmt::Display, M: std::fmt::Display>(
    head: &str,
    rows: impl Iterator<Item = (W, Option<(f64, M)>)>,
) -> io::Result<Outcome> {
    let mut out = io::BufWriter::new(stdout().lock());
    let mut outcome = Outcome::Done;
    writeln!(out, "{head},et0_mm,method")?;
    for (when, figure) in rows {
        match figure {
            Some((et0_mm, method)) => writeln!(out, "{when},{et0_mm},{method}")?,
            None => {
                writeln!(out, "{when},,missing")?;
                outcome = Outcome::BadData;
            }
        }
    }
    out.flush()?;
    Ok(outcome)
}
