//! A weather file from a path or standard input, read by the strict names.

use std::fmt::{self, Write as _};
use std::fs::File;
use std::io::{Read, Write as _, stderr, stdin};
use std::mem::discriminant;
use std::path::Path;

use anyhow::Context;
use upland_core::climate::daily::{DailyWeather, Et0, Guesses, Site};
use upland_core::climate::quality::DayIssue;
use upland_core::climate::reference_et::Reference;
use upland_core::place::Position;
use upland_formats::weather::{Column, Fault, FaultKind, MAX_BYTES, Mapping, Note, NoteKind, Table, read_each};

use super::{Outcome, complain};
use crate::args::{Surface, Weather};

/// Where weather comes from.
#[derive(Debug, Clone, Copy)]
pub(super) struct Source<'a> {
    /// The file; `-` is standard input.
    pub(super) file: &'a Path,
    /// Headers of columns that are not called by their own names.
    pub(super) columns: &'a [(Column, String)],
    /// Whether every warning is listed.
    pub(super) all: bool,
}

/// What is kept of the days of a file, or the exit status after everything that is wrong was said.
type Kept<K> = Result<Vec<K>, Outcome>;

/// Reads the file of the arguments and keeps of each day and its reference ET what `keep` makes of them.
pub(super) fn read<K: Send>(
    args: &Weather,
    keep: impl Fn(&DailyWeather, Option<Et0>) -> K + Sync,
) -> anyhow::Result<Kept<K>> {
    let columns: Option<Vec<_>> = args.column.iter().map(|(c, header)| Some((c.daily?, header.clone()))).collect();
    match (site(args), columns) {
        (Some(site), Some(columns)) => {
            let source = Source { file: &args.file, columns: &columns, all: args.all };
            let reference = reference(args);
            read_weather(source, &site, |day| keep(day, site.et0(day, reference)))
        }
        (Some(_), None) => {
            complain(format_args!("--column names a column of hourly files; say --timestep hourly"));
            Ok(Err(Outcome::Usage))
        }
        (None, _) => Ok(Err(Outcome::Usage)),
    }
}

/// The reference surface of the arguments.
pub(super) const fn reference(args: &Weather) -> Reference {
    match args.reference {
        Surface::Short => Reference::Short,
        Surface::Tall => Reference::Tall,
    }
}

/// Reads a weather file for a site, and keeps of each day what `keep` makes of it.
pub(super) fn read_weather<K: Send>(
    source: Source<'_>,
    site: &Site,
    keep: impl Fn(&DailyWeather) -> K + Sync,
) -> anyhow::Result<Kept<K>> {
    let table = Table::parse(read_bytes(source.file)?)?;
    let mapping = Mapping::by_name(table.headers(), source.columns)?;
    let reading = read_each(&table, &mapping, Some(site), keep);
    let faults = reading.faults.iter().map(|f| (discriminant(&f.kind), f.line, Said(f)));
    complain_of(faults, source.all);
    if !reading.faults.is_empty() {
        let count = reading.faults.len();
        complain(format_args!("{count} of {} rows have errors; nothing was worked out", table.len()));
        return Ok(Err(Outcome::BadData));
    }
    complain_of(reading.notes.iter().map(|n| (discriminant(&n.kind), n.line, SaidNote(n))), source.all);
    Ok(Ok(reading.rows))
}

/// Lines about rows that are alike and are said one by one; of the rest the number is said.
const MOST_ALIKE: usize = 20;

/// Says what is wrong with rows, by line; of each kind at most so many. All of it is written at once.
pub(super) fn complain_of<K: PartialEq>(rows: impl Iterator<Item = (K, u64, impl fmt::Display)>, all: bool) {
    let most = if all { usize::MAX } else { MOST_ALIKE };
    let mut counts: Vec<(K, usize)> = Vec::new();
    let mut text = String::new();
    for (kind, line, said) in rows {
        let at = counts.iter().position(|(k, _)| *k == kind).unwrap_or_else(|| {
            counts.push((kind, 0));
            counts.len() - 1
        });
        counts[at].1 += 1;
        if counts[at].1 <= most {
            // Writing to a string does not fail.
            let _ = writeln!(text, "upland: line {line}: {said}");
        } else if counts[at].1 == most + 1 {
            let _ = writeln!(text, "upland: line {line}: {said}, and more like it");
        }
    }
    for (_, count) in counts.iter().filter(|(_, count)| *count > most) {
        let _ = writeln!(text, "upland: and {} more like it; --all lists them", count - most - 1);
    }
    // When even standard error is closed there is nobody left to tell.
    let _ = stderr().lock().write_all(text.as_bytes());
}

/// The site of the arguments; what is out of range is said.
pub(super) fn site(args: &Weather) -> Option<Site> {
    let site = Position::new(args.latitude, args.longitude, args.elevation)
        .and_then(|position| Site::new(&position, args.wind_height, Guesses::default()));
    site.inspect_err(|error| complain(format_args!("{error}"))).ok()
}

/// The bytes of a path, or of standard input.
pub(super) fn read_bytes(path: &Path) -> anyhow::Result<Vec<u8>> {
    // One byte over the limit is enough for the reader to say that the file is too large.
    let limit = MAX_BYTES as u64 + 1;
    if path.as_os_str() == "-" {
        let mut bytes = Vec::new();
        stdin().lock().take(limit).read_to_end(&mut bytes).context("standard input cannot be read")?;
        Ok(bytes)
    } else {
        let file = File::open(path).with_context(|| format!("{} cannot be opened", path.display()))?;
        // At once as long as the file, not doubled again and again.
        let length = file.metadata().map_or(0, |metadata| metadata.len().min(limit));
        let mut bytes = Vec::with_capacity(usize::try_from(length).unwrap_or(0) + 1);
        file.take(limit).read_to_end(&mut bytes).with_context(|| format!("{} cannot be read", path.display()))?;
        Ok(bytes)
    }
}

struct Said<'a>(&'a Fault);

impl fmt::Display for Said<'_> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match &self.0.kind {
            FaultKind::Cells { found, expected } => write!(f, "{found} cells under {expected} headers"),
            FaultKind::NotADate(text) => write!(f, "date {text:?} is not a day written as year-month-day"),
            FaultKind::NotANumber(column, text) => write!(f, "{} {text:?} is not a number", column.name()),
            FaultKind::Day(issue) => said_day(f, issue),
            FaultKind::Duplicate { first_line } => write!(f, "the day is on line {first_line} already"),
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
            write!(f, "the lowest temperature {t_min} is above the highest {t_max}")
        }
        DayIssue::OverSaturation { rh } => write!(f, "humidity {rh} % is taken as 100"),
        DayIssue::RhMinAboveMax => f.write_str("the lowest humidity is above the highest"),
        DayIssue::DewPointAboveTmax => f.write_str("the dew point is above the highest temperature"),
        DayIssue::SolarAboveClearSky { solar, clear_sky } => {
            write!(f, "sun {solar:.2} MJ/m2 is more than a clear sky gives ({clear_sky:.2})")
        }
    }
}
