//! An hourly weather file from a path or standard input, read by the strict names.

use std::fmt;
use std::mem::discriminant;

use upland_core::climate::hour_quality::HourIssue;
use upland_core::climate::hourly::{HourlyEt0, HourlyWeather};
use upland_formats::weather::{HourFault, HourFaultKind, HourMapping, HourNote, HourNoteKind, Table, read_hours};

use super::weather_file::{complain_of, read_bytes, reference, site};
use super::{Outcome, complain};
use crate::args::Weather;

/// The hours of a file, in its order, each with its reference ET.
pub(super) struct HourlyFile {
    pub(super) hours: Vec<HourlyWeather>,
    pub(super) et0: Vec<Option<HourlyEt0>>,
}

/// Reads the file of the arguments. `Err` inside carries the exit status after everything that is
/// wrong was said.
pub(super) fn open(args: &Weather) -> anyhow::Result<Result<HourlyFile, Outcome>> {
    let Some(site) = site(args) else { return Ok(Err(Outcome::Usage)) };
    let columns: Option<Vec<_>> = args.column.iter().map(|(c, header)| Some((c.hourly?, header.clone()))).collect();
    let Some(columns) = columns else {
        complain(format_args!("--column names a column of daily files; leave out --timestep hourly"));
        return Ok(Err(Outcome::Usage));
    };
    let table = Table::parse_hours(read_bytes(&args.file)?)?;
    let mapping = HourMapping::by_name(table.headers(), &columns)?;
    let reading = read_hours(&table, &mapping, &site);
    complain_of(reading.faults.iter().map(|f| (discriminant(&f.kind), f.line, Said(f))), args.all);
    if !reading.faults.is_empty() {
        let count = reading.faults.len();
        complain(format_args!("{count} of {} rows have errors; nothing was worked out", table.len()));
        return Ok(Err(Outcome::BadData));
    }
    complain_of(reading.notes.iter().map(|n| (discriminant(&n.kind), n.line, SaidNote(n))), args.all);
    let et0 = site.hourly_et0(&reading.hours, reference(args));
    Ok(Ok(HourlyFile { hours: reading.hours, et0 }))
}

struct Said<'a>(&'a HourFault);

impl fmt::Display for Said<'_> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match &self.0.kind {
            HourFaultKind::Cells { found, expected } => write!(f, "{found} cells under {expected} headers"),
            HourFaultKind::NotATime(text) => {
                write!(f, "time {text:?} is not written like 2015-07-01T14:00:00-07:00 (RFC 3339, with its offset)")
            }
            HourFaultKind::NotANumber(column, text) => write!(f, "{} {text:?} is not a number", column.name()),
            HourFaultKind::Hour(issue) => said_hour(f, issue),
            HourFaultKind::Overlap { first_line } => write!(f, "the hour overlaps the one on line {first_line}"),
        }
    }
}

struct SaidNote<'a>(&'a HourNote);

impl fmt::Display for SaidNote<'_> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match &self.0.kind {
            HourNoteKind::Hour(issue) => said_hour(f, issue),
            HourNoteKind::NoTemperature => f.write_str("the temperature is missing, so there is no reference ET"),
            HourNoteKind::Gap { hours: 1 } => f.write_str("1 hour is missing before this one"),
            HourNoteKind::Gap { hours } => write!(f, "{hours} hours are missing before this one"),
            HourNoteKind::OutOfOrder => f.write_str("the hour comes before the one above it"),
        }
    }
}

fn said_hour(f: &mut fmt::Formatter<'_>, issue: &HourIssue) -> fmt::Result {
    match issue {
        HourIssue::OutOfRange(out) => write!(f, "{out}"),
        HourIssue::OverSaturation { rh } => write!(f, "humidity {rh} % is taken as 100"),
        HourIssue::SolarAboveClearSky { solar, clear_sky } => {
            write!(f, "sun {solar:.3} MJ/m2 is more than a clear sky gives in this hour ({clear_sky:.3})")
        }
        HourIssue::SolarAtNight { solar } => {
            write!(f, "sun {solar:.3} MJ/m2 while it is below the horizon: is the offset of the times right?")
        }
    }
}
