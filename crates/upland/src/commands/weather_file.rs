//! A weather file from a path or standard input, read by the strict names.

use std::fmt;
use std::fs::File;
use std::io::{Read, stdin};
use std::path::Path;

use anyhow::Context;
use upland_core::climate::daily::{Guesses, Site};
use upland_core::climate::quality::DayIssue;
use upland_core::climate::reference_et::Reference;
use upland_core::place::Position;
use upland_core::quantity::OutOfRange;
use upland_formats::weather::{Fault, FaultKind, MAX_BYTES, Mapping, Note, NoteKind, Reading, Table, read};

use super::{Outcome, complain};
use crate::args::{Surface, Weather};

/// A file that was read, with the site it is for.
pub(super) struct WeatherFile {
    pub(super) site: Site,
    pub(super) reference: Reference,
    pub(super) reading: Reading,
}

/// Reads the file of the arguments. `Err` inside carries the exit status after everything that is
/// wrong was said.
pub(super) fn open(args: &Weather) -> anyhow::Result<Result<WeatherFile, Outcome>> {
    let site = match site(args) {
        Ok(site) => site,
        Err(error) => {
            complain(format_args!("{error}"));
            return Ok(Err(Outcome::Usage));
        }
    };
    let bytes = read_bytes(&args.file)?;
    let table = Table::parse(&bytes)?;
    let mapping = Mapping::by_name(table.headers(), &args.column)?;
    let reading = read(&table, &mapping, Some(&site));
    for fault in &reading.faults {
        complain(format_args!("line {}: {}", fault.line, Said(fault)));
    }
    if !reading.faults.is_empty() {
        let count = reading.faults.len();
        complain(format_args!("{count} of {} rows have errors; nothing was worked out", table.len()));
        return Ok(Err(Outcome::BadData));
    }
    for note in &reading.notes {
        complain(format_args!("line {}: {}", note.line, SaidNote(note)));
    }
    let reference = match args.reference {
        Surface::Short => Reference::Short,
        Surface::Tall => Reference::Tall,
    };
    Ok(Ok(WeatherFile { site, reference, reading }))
}

fn site(args: &Weather) -> Result<Site, OutOfRange> {
    let position = Position::new(args.latitude, args.longitude, args.elevation)?;
    Site::new(&position, args.wind_height, Guesses::default())
}

fn read_bytes(path: &Path) -> anyhow::Result<Vec<u8>> {
    // One byte over the limit is enough for the reader to say that the file is too large.
    let limit = MAX_BYTES as u64 + 1;
    let mut bytes = Vec::new();
    if path.as_os_str() == "-" {
        stdin().lock().take(limit).read_to_end(&mut bytes).context("standard input cannot be read")?;
    } else {
        let file = File::open(path).with_context(|| format!("{} cannot be opened", path.display()))?;
        file.take(limit).read_to_end(&mut bytes).with_context(|| format!("{} cannot be read", path.display()))?;
    }
    Ok(bytes)
}

struct Said<'a>(&'a Fault);

impl fmt::Display for Said<'_> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match &self.0.kind {
            FaultKind::Cells { found, expected } => write!(f, "{found} cells under {expected} headers"),
            FaultKind::NotADate(text) => write!(f, "date {text:?} is no day written as year-month-day"),
            FaultKind::NotANumber(column, text) => write!(f, "{} {text:?} is no number", column.name()),
            FaultKind::Day(issue) => said_day(f, issue),
            FaultKind::Duplicate { first_line } => write!(f, "the day stands on line {first_line} already"),
        }
    }
}

struct SaidNote<'a>(&'a Note);

impl fmt::Display for SaidNote<'_> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match &self.0.kind {
            NoteKind::Day(issue) => said_day(f, issue),
            NoteKind::NoTemperature => f.write_str("a temperature is missing, so there is no reference ET"),
            NoteKind::Gap { days: 1 } => f.write_str("1 day is missing before this one"),
            NoteKind::Gap { days } => write!(f, "{days} days are missing before this one"),
            NoteKind::OutOfOrder => f.write_str("the day comes before the one above it"),
            NoteKind::Stuck { days } => write!(f, "tmax_c has not moved for {days} days: a stuck sensor?"),
        }
    }
}

fn said_day(f: &mut fmt::Formatter<'_>, issue: &DayIssue) -> fmt::Result {
    match issue {
        DayIssue::OutOfRange(out) => write!(f, "{out}"),
        DayIssue::TminAboveTmax { t_min, t_max } => {
            write!(f, "the lowest temperature {t_min} stands above the highest {t_max}")
        }
        DayIssue::OverSaturation { rh } => write!(f, "humidity {rh} % is taken as 100"),
        DayIssue::RhMinAboveMax => f.write_str("the lowest humidity stands above the highest"),
        DayIssue::DewPointAboveTmax => f.write_str("the dew point stands above the highest temperature"),
        DayIssue::SolarAboveClearSky { solar, clear_sky } => {
            write!(f, "sun {solar:.2} MJ/m2 is more than a clear sky gives ({clear_sky:.2})")
        }
    }
}
