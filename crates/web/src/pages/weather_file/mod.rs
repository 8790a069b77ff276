//! The preview of a weather file: its columns, its series, its lines with errors.

mod columns;
mod joining;
mod lines;
mod mapping;
mod mends;
mod proposals;

use chrono::NaiveDate;
use upland_core::climate::by_hours::et0_of_days;
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::hour_quality::has_sun_at_night;
use upland_core::climate::normals::NormalsError;
use upland_formats::weather::{FileError, MAX_COLUMNS, Reading, Row, Table, read, read_days};

use crate::charts::SeriesPlate;
use crate::context::{HoursOnRecord, WholeRecord};
use crate::form::Form;
use crate::intake::{DailyRecord, IntakeError, revision_of_record};
use crate::pages::Choice;
use crate::pages::series::Station;
use crate::pages::shell::Shell;
use crate::show::{Measure, Units, date_long, number};
use crate::words::Words;
use joining::{JoinedHours, joined, take_hours};
use lines::{fault_row, note_row};
use mapping::mapping;
use mends::mend_lines;
use proposals::proposed_units;

pub(crate) use columns::{ColumnRow, column_rows, guess, roles};
pub(crate) use joining::{JoinView, goes_on, is_part_of_a_year};
pub(crate) use lines::LineRow;
pub(crate) use mends::{MendLine, amendments};
pub(crate) use proposals::{Open, take_proposals};

#[derive(askama::Template)]
#[template(path = "weather_file.html")]
pub(crate) struct WeatherFileTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) post_to: String,
    pub(crate) file_name: String,
    pub(crate) file_size: String,
    /// Where the station's position comes from.
    pub(crate) station_from: String,
    pub(crate) layout: String,
    /// Records that the file can go on with.
    pub(crate) records: Vec<Choice>,
    pub(crate) columns: Vec<ColumnRow>,
    pub(crate) roles: Vec<Choice>,
    pub(crate) height_unit: &'static str,
    pub(crate) view: FilePreview,
}

/// What looking at the file gave.
#[derive(Debug, Clone, Default)]
pub(crate) struct FilePreview {
    pub(crate) sub: String,
    pub(crate) open: Vec<Open>,
    /// How many units the values speak for.
    pub(crate) proposed: usize,
    pub(crate) join: Option<JoinView>,
    pub(crate) plate: Option<SeriesPlate>,
    pub(crate) faults: Vec<LineRow>,
    pub(crate) fault_title: String,
    pub(crate) more_faults: String,
    /// Lines without an error any more, or left out.
    pub(crate) mended: Vec<MendLine>,
    pub(crate) mended_title: String,
    pub(crate) notes: Vec<LineRow>,
    pub(crate) note_title: String,
    pub(crate) more_notes: String,
    pub(crate) figure: String,
    pub(crate) say: String,
    pub(crate) say_more: String,
    pub(crate) import_label: String,
    pub(crate) can_import: bool,
    pub(crate) good: Vec<(&'static str, String, String, String)>,
}

/// What can be imported.
#[derive(Debug)]
pub(crate) struct Importable {
    pub(crate) name: String,
    /// The days of the file, joined to what was on record.
    pub(crate) record: DailyRecord,
}

/// Sun at night on more than one day in so many is no smudge on the sensor, but a clock that is off.
const BROKEN_CLOCK: usize = 10;

/// Lines that are listed; the rest is counted.
const MOST_LINES: usize = 40;

/// Reads a file through its form; gives what can be imported when nothing is missing. `known` is the record that
/// the file goes on with, if any: its station is then that of the file. `beside` tells that the place has a station
/// already, beside which this one may lack months or temperatures.
pub(crate) fn preview(
    form: &mut Form,
    table: &Table,
    known: Option<&WholeRecord>,
    beside: bool,
    units: Units,
) -> (FilePreview, Option<Importable>) {
    let w = Words;
    let station = station_of(form, known, units);
    let mut view = FilePreview { sub: w.count("file-lines", table.len()), ..FilePreview::default() };
    let mapping = match mapping(form, table, beside) {
        Ok(mapping) => mapping,
        Err(open) => {
            view.open = open;
            view.proposed = proposed_units(form, table);
            return (finish(view, table.len(), form.error_count()), None);
        }
    };
    let site = station.as_ref().and_then(|s| Site::new(&s.position, s.wind_height_m, Guesses::default()).ok());
    let mut reading = read(table, &mapping, site.as_ref());
    describe(&mut view, &reading, table.len(), units);
    list_faults(&mut view, &reading, form, table, units);
    view.good = good_for(&reading, site.as_ref());
    let days: Vec<DailyWeather> = reading.rows.iter().map(|r| r.day).collect();
    let mut hours = take_hours(&mut reading);
    let mut record = station.map(|station| {
        let (read, hours, decisions) = (days.clone(), HoursOnRecord::new(), Vec::new());
        let Station { name, position, wind_height_m } = station;
        let source = String::new();
        (name, DailyRecord { position, wind_height_m, source, read, hours, decisions, typed: None, beside })
    });
    if let (Some(known), Some((_, record))) = (known, &mut record) {
        let merged = joined(&known.record, &days);
        let joined = JoinedHours::new(known.hours.clone(), &hours, &merged.differences);
        view.join = Some(JoinView::of(&known.record, &merged, &joined.new, units));
        (record.read, record.decisions) = (merged.read, merged.decisions);
        record.typed = known.record.weather.typed();
        hours = joined.all;
    }
    if reading.faults.is_empty()
        && let Some((_, record)) = &record
        // Hours change no answer to this, are many, and are not in yet.
        && let Err(error) = revision_of_record(record.clone())
    {
        view.open.push(Open { text: no_normals(&error), evidence: String::new() });
    }
    let nothing_new = view.join.as_ref().is_some_and(|join| join.nothing_new);
    let complete = view.open.is_empty() && reading.faults.is_empty() && form.is_sound() && !nothing_new;
    let imported = view.join.as_ref().map_or(reading.rows.len(), |join| join.days);
    let view = finish(view, imported, form.error_count() + reading.faults.len());
    let importable =
        record.filter(|_| complete).map(|(name, record)| Importable { name, record: DailyRecord { hours, ..record } });
    (view, importable)
}

/// The days of a file whose columns are settled and whose lines have no error.
pub(crate) fn days_of(form: &Form, table: &Table) -> Option<Vec<DailyWeather>> {
    let reading = read_days(table, &mapping(form, table, true).ok()?, None);
    reading.faults.is_empty().then(|| reading.rows.iter().map(|r| r.day).collect())
}

/// Why a record gives no normals, in words.
pub(crate) fn no_normals(error: &IntakeError) -> String {
    match error {
        IntakeError::Normals(NormalsError::MonthsMissing(months)) => Words
            .t1("file-open-months", months.iter().map(|m| crate::show::month_long(*m)).collect::<Vec<_>>().join(", ")),
        IntakeError::Site(other) => Measure::Height.allowed(other.range, Units::Metric),
    }
}

/// The station of a file: that of the record that it goes on with, or as it was typed.
fn station_of(form: &mut Form, known: Option<&WholeRecord>, units: Units) -> Option<Station> {
    let Some(known) = known else { return Station::read(form, None, units) };
    let series = &known.record.weather.series.value;
    Some(Station { name: series.name.clone(), position: series.position, wind_height_m: series.wind_height_m })
}

/// Says how many choices are missing, or that everything can be imported.
fn finish(mut view: FilePreview, days: usize, others: usize) -> FilePreview {
    let w = Words;
    let open = view.open.len() + others;
    view.can_import = open == 0;
    view.import_label = w.t1("file-take", number(days as f64, 0));
    if view.join.as_ref().is_some_and(|join| join.nothing_new) {
        view.can_import = false;
        view.figure = "0".into();
        view.say = w.t("join-nothing");
        view.say_more = w.t("join-nothing-more");
    } else if open == 0 {
        view.figure = number(days as f64, 0);
        view.say = w.t("file-ready");
        view.say_more = w.t("file-ready-more");
    } else {
        view.figure = number(open as f64, 0);
        view.say = w.count("file-to-choose", open);
        view.say_more = w.t("file-to-choose-more");
    }
    view
}

fn describe(view: &mut FilePreview, reading: &Reading, lines: usize, units: Units) {
    let w = Words;
    let dates = || reading.rows.iter().map(|r| r.day.date);
    if let (Some(first), Some(last)) = (dates().min(), dates().max()) {
        view.sub = w.with(
            "file-sub",
            &[("lines", &number(lines as f64, 0)), ("from", &date_long(first)), ("to", &date_long(last))],
        );
    }
    let days: Vec<DailyWeather> = reading.rows.iter().map(|r| r.day).collect();
    let faulty: Vec<(usize, NaiveDate)> =
        reading.faults.iter().zip(1..).filter_map(|(f, n)| f.date.map(|d| (n, d))).collect();
    view.plate = SeriesPlate::draw(&days, &faulty);
    view.notes = reading.notes.iter().take(MOST_LINES).map(|n| note_row(n, units)).collect();
    view.note_title = w.count("file-notes", reading.notes.len());
    if reading.notes.len() > MOST_LINES {
        view.more_notes = w.count("file-more", reading.notes.len() - MOST_LINES);
    }
}

/// Lists the lines with an error, each with its cells, and the lines that were mended.
fn list_faults(view: &mut FilePreview, reading: &Reading, form: &Form, table: &Table, units: Units) {
    let w = Words;
    let shown = &reading.faults[..reading.faults.len().min(MOST_LINES)];
    let mut lines: Vec<u64> = shown.iter().map(|fault| fault.line).collect();
    lines.extend(table.amendments().lines());
    let mut mends = mend_lines(form, table, &lines);
    let rows = shown.iter().zip(1usize..);
    view.faults = rows.map(|(fault, n)| fault_row(fault, n, mends.remove(&fault.line), units)).collect();
    view.fault_title = w.count("file-faults", reading.faults.len());
    if reading.faults.len() > MOST_LINES {
        view.more_faults = w.count("file-more", reading.faults.len() - MOST_LINES);
    }
    view.mended = mends.into_values().collect();
    view.mended_title = w.count("file-mended", view.mended.len());
}

/// What the data allow: for each input whether it is measured, and what stands in for it.
fn good_for(reading: &Reading, site: Option<&Site>) -> Vec<(&'static str, String, String, String)> {
    use upland_core::climate::reference_et::Reference;
    let w = Words;
    let count = |has: &dyn Fn(&DailyWeather) -> bool| reading.rows.iter().filter(|r| has(&r.day)).count();
    let all = reading.rows.len().max(1);
    let mut rows = Vec::new();
    let figure = |s: &Site, row: &Row| {
        et0_of_days(s, &[row.day], std::iter::once(&row.hours[..]), &[], Reference::Short).pop().flatten()
    };
    if let Some((_, method)) = site.and_then(|s| reading.rows.iter().find_map(|row| figure(s, row))) {
        rows.push(("", w.t("input-et0"), super::weather::method_words(&method.to_string()), String::new()));
    }
    let on_days = |there: usize| {
        if there == all {
            return w.t("good-every-day");
        }
        w.t2("good-some-days", ("there", number(there as f64, 0)), ("all", number(all as f64, 0)))
    };
    let with_hours = reading.rows.iter().filter(|row| !row.hours.is_empty()).count();
    let by_another_clock = |s: &Site| reading.rows.iter().filter(|row| has_sun_at_night(&row.hours, s)).count();
    let nights = site.map_or(0, by_another_clock);
    if nights * BROKEN_CLOCK > with_hours {
        rows.push(("guessed", w.t("input-hours"), w.t("how-doubtful"), w.count("good-sun-at-night", nights)));
    } else if with_hours > 0 {
        rows.push(("measured", w.t("input-hours"), w.t("how-measured"), on_days(with_hours)));
    }
    let inputs: [(&str, usize, &str); 5] = [
        ("input-temperature", count(&|d| d.t_max.is_some() && d.t_min.is_some()), "good-temperature-none"),
        (
            "input-humidity",
            count(&|d| d.dew_point.is_some() || d.rh_max.is_some() || d.rh_mean.is_some()),
            "humidity-note",
        ),
        ("input-sun", count(&|d| d.solar.is_some()), "sun-note"),
        ("input-wind", count(&|d| d.wind.is_some()), "wind-note"),
        ("input-rain", count(&|d| d.rain.is_some()), "rain-none-note"),
    ];
    for (name, there, guess) in inputs {
        if there == 0 {
            rows.push(("guessed", w.t(name), w.t("how-guessed"), w.t(guess)));
        } else {
            rows.push(("measured", w.t(name), w.t("how-measured"), on_days(there)));
        }
    }
    rows
}

/// A time zone by its name; one that is always so many hours from UTC by those, the sign as people write it.
fn zone_words(zone: &str) -> String {
    match zone.strip_prefix("Etc/GMT").map(|hours| hours.split_at_checked(1)) {
        Some(Some(("+", hours))) => format!("UTC\u{2212}{hours}"),
        Some(Some(("-", hours))) => format!("UTC+{hours}"),
        Some(_) => "UTC".to_owned(),
        None => zone.to_owned(),
    }
}

/// How a file is laid out, in words.
pub(crate) fn layout_words(table: &Table) -> String {
    let w = Words;
    let layout = table.layout();
    if let Some(rows) = table.head().joined_rows {
        let joined = w.t2("layout-joined", ("rows", number(rows as f64, 0)), ("days", number(table.len() as f64, 0)));
        return match table.head().days_of {
            Some(zone) => w.t2("layout-joined-utc", ("layout", joined), ("zone", zone_words(&zone))),
            None => joined,
        };
    }
    let separator = w.t(match layout.separator {
        b';' => "layout-semicolon",
        b'\t' => "layout-tab",
        _ => "layout-comma",
    });
    let mut words = w.t2("layout", ("separator", separator), ("encoding", layout.encoding.name()));
    if layout.preamble > 0 {
        words.push_str(&w.count("layout-preamble", layout.preamble));
    }
    words
}

/// Why a file cannot be read, in words.
pub(crate) fn file_error(error: &FileError) -> String {
    let w = Words;
    match error {
        FileError::TooLarge => w.t("file-too-large"),
        FileError::NotText { .. } => w.t("file-not-text"),
        FileError::Empty => w.t("file-empty"),
        FileError::HeaderTwice(header) => w.t1("file-header-twice", header),
        FileError::NoRows => w.t("file-no-rows"),
        FileError::TooManyColumns { found } => {
            w.t2("file-too-wide", ("found", found.to_string()), ("most", MAX_COLUMNS.to_string()))
        }
        FileError::TooManyRows { most } => w.t1("file-too-long", number(*most as f64, 0)),
        FileError::Malformed { line, what } => w.t2("file-malformed", ("line", line.to_string()), ("problem", what)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const SEATTLE: &[u8] = include_bytes!("../../../../../docs/examples/seattle-weather.csv");

    fn looked_at(bytes: &[u8], choices: &[(&str, &str)]) -> (Form, FilePreview, Option<Importable>) {
        let table = Table::parse(bytes).unwrap();
        let mut form = Form::default();
        for (field, value) in [
            ("name", "Airfield"),
            ("latitude", "47.4"),
            ("longitude", "-122.3"),
            ("elevation", "130"),
            ("wind_height", "10"),
        ] {
            form.set(field, value);
        }
        guess(&mut form, &table);
        for (field, value) in choices {
            form.set(field, *value);
        }
        let (view, importable) = preview(&mut form, &table, None, false, Units::Metric);
        (form, view, importable)
    }

    #[test]
    fn headers_are_read_and_units_are_asked_for() {
        let (form, view, importable) = looked_at(SEATTLE, &[]);
        assert_eq!((form.get("as_1"), form.get("as_5")), ("rain_mm", ""));
        assert_eq!(view.open.len(), 4);
        assert!(importable.is_none() && !view.can_import);
    }

    #[test]
    fn chosen_units_let_all_days_in() {
        let (_, view, importable) =
            looked_at(SEATTLE, &[("unit_1", "mm"), ("unit_2", "c"), ("unit_3", "c"), ("unit_4", "ms")]);
        assert!(view.can_import, "{:?}", view.open);
        assert_eq!(importable.unwrap().record.read.len(), 1461);
        let guessed: Vec<&str> = view.good.iter().filter(|g| g.0 == "guessed").map(|g| g.1.as_str()).collect();
        assert_eq!(guessed, ["Humidity", "Sun"]);
    }

    #[test]
    fn fahrenheit_taken_for_celsius_is_found() {
        let text = b"date,tmax_c,tmin_c\n2015-07-01,88,61\n";
        let (_, view, _) = looked_at(text, &[]);
        assert!(view.faults[0].what.contains("Temperature 88.0"), "{}", view.faults[0].what);
    }

    #[test]
    fn the_same_thing_twice_is_said() {
        let (_, view, _) =
            looked_at(b"date,tmax_c,tmin_c,other\n2015-07-01,20,8,1\n", &[("as_3", "tmax_c"), ("unit_3", "c")]);
        assert!(view.open[0].text.contains("Two columns are the highest temperature"), "{:?}", view.open);
    }
}
