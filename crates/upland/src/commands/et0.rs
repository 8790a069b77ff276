use std::fmt::{Display, Write as _};
use std::io::{self, Write, stdout};

use chrono::SecondsFormat;
use rayon::prelude::*;

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
    let days = match weather_file::read(args, |day, et0| (day.date, et0.map(|e| (e.et0_mm, e.method))))? {
        Ok(days) => days,
        Err(outcome) => return Ok(outcome),
    };
    Ok(write("date", &days, |day| *day)?)
}

fn hourly(args: &Weather) -> anyhow::Result<Outcome> {
    let file = match hourly_file::open(args)? {
        Ok(file) => file,
        Err(outcome) => return Ok(outcome),
    };
    let hours: Vec<_> = file.hours.iter().zip(&file.et0).collect();
    Ok(write("time", &hours, |(hour, et0)| {
        (hour.start.to_rfc3339_opts(SecondsFormat::Secs, true), et0.map(|e| (e.et0_mm, e.method)))
    })?)
}

/// Rows whose lines are made by one thread at a time.
const TOGETHER: usize = 2048;

/// Writes a line a row: when, and the figure with its method if there is one. Lines are made side by side.
fn write<R: Sync, W: Display, M: Display>(
    head: &str,
    rows: &[R],
    figure: impl Fn(&R) -> (W, Option<(f64, M)>) + Sync,
) -> io::Result<Outcome> {
    let lines = |rows: &[R]| {
        let (mut text, mut outcome) = (String::new(), Outcome::Done);
        for (when, figure) in rows.iter().map(&figure) {
            // Writing to a string does not fail.
            let _ = match figure {
                Some((et0_mm, method)) => writeln!(text, "{when},{et0_mm},{method}"),
                None => {
                    outcome = Outcome::BadData;
                    writeln!(text, "{when},,missing")
                }
            };
        }
        (text, outcome)
    };
    let parts: Vec<(String, Outcome)> = rows.par_chunks(TOGETHER).map(lines).collect();
    let mut out = stdout().lock();
    writeln!(out, "{head},et0_mm,method")?;
    for (text, _) in &parts {
        out.write_all(text.as_bytes())?;
    }
    out.flush()?;
    Ok(if parts.iter().all(|(_, outcome)| *outcome == Outcome::Done) { Outcome::Done } else { Outcome::BadData })
}
