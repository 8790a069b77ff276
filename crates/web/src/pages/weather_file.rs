//! A weather file that is being looked at: columns, the series, the lines that cannot stand.

use chrono::NaiveDate;
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::quality::DayIssue;
use upland_core::place::Position;
use upland_core::quantity::range;
use upland_formats::weather::{
    Assigned, Column, Fault, FaultKind, FileError, Mapping, MappingError, Note, NoteKind, Reading, Table, Unit, read,
    recognise,
};

use super::Choice;
use super::shell::Shell;
use crate::charts::SeriesPlate;
use crate::form::Form;
use crate::show::{Measure, Units, date_long, number};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "weather_file.html")]
pub(crate) struct WeatherFileTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) post_to: String,
    pub(crate) file_name: String,
    pub(crate) file_size: String,
    pub(crate) columns: Vec<ColumnRow>,
    pub(crate) roles: Vec<Choice>,
    pub(crate) height_unit: &'static str,
    pub(crate) view: Look,
}

/// A column of the file and what it is read as.
#[derive(Debug, Clone)]
pub(crate) struct ColumnRow {
    pub(crate) header: String,
    pub(crate) first: String,
    pub(crate) role_field: String,
    pub(crate) unit_field: String,
    pub(crate) units: Vec<Choice>,
    pub(crate) how: String,
    pub(crate) how_mark: &'static str,
    pub(crate) open: bool,
}

/// A line that cannot stand, or one that is only doubtful.
#[derive(Debug, Clone)]
pub(crate) struct LineRow {
    pub(crate) key: String,
    pub(crate) line: String,
    pub(crate) date: String,
    pub(crate) what: String,
}

/// What looking at the file gave.
#[derive(Debug, Clone, Default)]
pub(crate) struct Look {
    pub(crate) sub: String,
    pub(crate) open: Vec<String>,
    pub(crate) plate: Option<SeriesPlate>,
    pub(crate) faults: Vec<LineRow>,
    pub(crate) fault_title: String,
    pub(crate) more_faults: String,
    pub(crate) notes: Vec<LineRow>,
    pub(crate) note_title: String,
    pub(crate) more_notes: String,
    pub(crate) figure: String,
    pub(crate) say: String,
    pub(crate) say_more: String,
    pub(crate) take_label: String,
    pub(crate) can_take: bool,
    pub(crate) good: Vec<(&'static str, String, String, String)>,
}

/// What can be taken in.
#[derive(Debug)]
pub(crate) struct Takeable {
    pub(crate) name: String,
    pub(crate) position: Position,
    pub(crate) wind_height_m: f64,
    pub(crate) days: Vec<DailyWeather>,
}

/// Lines that are listed; the rest is counted.
const MOST_LINES: usize = 40;

fn role_key(column: Column) -> &'static str {
    match column {
        Column::Date => "column-date",
        Column::TMax => "column-tmax",
        Column::TMin => "column-tmin",
        Column::RhMax => "column-rhmax",
        Column::RhMin => "column-rhmin",
        Column::RhMean => "column-rhmean",
        Column::DewPoint => "column-dewpoint",
        Column::Wind => "column-wind",
        Column::Solar => "column-solar",
        Column::Rain => "column-rain",
    }
}

fn unit_key(unit: Unit) -> &'static str {
    match unit {
        Unit::YearMonthDay => "unit-ymd",
        Unit::DayMonthYear => "unit-dmy",
        Unit::MonthDayYear => "unit-mdy",
        Unit::Celsius => "unit-c",
        Unit::Fahrenheit => "unit-f",
        Unit::Percent => "unit-pct",
        Unit::MetresPerSecond => "unit-ms",
        Unit::KilometresPerHour => "unit-kmh",
        Unit::MilesPerHour => "unit-mph",
        Unit::Knots => "unit-kn",
        Unit::Megajoules => "unit-mj",
        Unit::Watts => "unit-w",
        Unit::Langleys => "unit-ly",
        Unit::Millimetres => "unit-mm",
        Unit::Inches => "unit-in",
    }
}

/// What a column of the file may become.
pub(crate) fn roles() -> Vec<Choice> {
    let leave = std::iter::once(Choice::new("", Words.t("column-leave-out")));
    leave.chain(Column::ALL.map(|c| Choice::new(c.name(), Words.t(role_key(c))))).collect()
}

/// Puts what the headers say into a form that was not filled in yet.
pub(crate) fn guess(form: &mut Form, table: &Table) {
    let mut seen = Vec::new();
    for (index, header) in table.headers().iter().enumerate() {
        let found = recognise(header).filter(|r| !seen.contains(&r.column));
        form.set(&format!("as_{index}"), found.map_or("", |r| r.column.name()));
        if let Some(found) = found {
            seen.push(found.column);
            let dated =
                found.column.units().iter().find(|u| table.first_value(index).is_some_and(|v| u.date(v).is_some()));
            let unit = if found.column == Column::Date { dated.copied() } else { found.unit };
            form.set(&format!("unit_{index}"), unit.map_or("", Unit::name));
        }
    }
}

/// Rows of the table of columns.
pub(crate) fn column_rows(form: &Form, table: &Table) -> Vec<ColumnRow> {
    let w = Words;
    table
        .headers()
        .iter()
        .enumerate()
        .map(|(index, header)| {
            let (role_field, unit_field) = (format!("as_{index}"), format!("unit_{index}"));
            let column = Column::from_name(form.get(&role_field));
            let unit = Unit::from_name(form.get(&unit_field));
            let by_name = recognise(header).map(|r| r.column) == column;
            let open = column.is_some_and(|c| unit.is_none_or(|u| !c.units().contains(&u)));
            let (how, how_mark) = match column {
                None => ("read-by-nobody", "skip"),
                Some(_) if open => ("read-not-settled", "fault"),
                Some(_) if by_name => ("read-by-name", "done"),
                Some(_) => ("read-by-hand", "part"),
            };
            let mut units = vec![Choice::new("", w.t("unit-choose"))];
            units.extend(column.iter().flat_map(|c| c.units()).map(|u| Choice::new(u.name(), w.t(unit_key(*u)))));
            ColumnRow {
                header: header.clone(),
                first: table.first_value(index).unwrap_or("").to_owned(),
                role_field,
                unit_field,
                units: if column.is_some() { units } else { Vec::new() },
                how: w.t(how),
                how_mark,
                open,
            }
        })
        .collect()
}

/// The mapping that a form states, or what is not settled yet.
fn mapping(form: &Form, table: &Table) -> Result<Mapping, Vec<String>> {
    let w = Words;
    let (mut assigned, mut open) = (Vec::new(), Vec::new());
    for (index, header) in table.headers().iter().enumerate() {
        let Some(column) = Column::from_name(form.get(&format!("as_{index}"))) else { continue };
        match Unit::from_name(form.get(&format!("unit_{index}"))).filter(|u| column.units().contains(u)) {
            Some(unit) => assigned.push(Assigned { index, column, unit }),
            None => open.push(w.t2("file-open-unit", header, w.t(role_key(column)))),
        }
    }
    match Mapping::new(assigned) {
        Ok(mapping) if open.is_empty() => Ok(mapping),
        Ok(_) => Err(open),
        Err(error) => {
            let text = match error {
                MappingError::Missing(c) => w.t1("file-open-missing", w.t(role_key(c))),
                MappingError::Twice(c) => w.t1("file-open-twice", w.t(role_key(c))),
                MappingError::WrongUnit(c) | MappingError::NoSuchHeader { column: c, .. } => {
                    w.t1("file-open-missing", w.t(role_key(c)))
                }
            };
            // A column that waits for its unit is not missing.
            if open.is_empty() {
                open.push(text);
            }
            Err(open)
        }
    }
}

/// Looks at a file through a form; gives what can be taken in when nothing is left to settle.
pub(crate) fn look(form: &mut Form, table: &Table, units: Units) -> (Look, Option<Takeable>) {
    let w = Words;
    let name = form.name("name");
    let latitude = form.needed("latitude", Measure::Degrees, range::LATITUDE, units);
    let longitude = form.needed("longitude", Measure::Degrees, range::LONGITUDE, units);
    let elevation = form.needed("elevation", Measure::Height, range::ELEVATION, units);
    let wind_height = form.needed("wind_height", Measure::Height, range::WIND_HEIGHT, units);
    let mut view = Look { sub: w.count("file-lines", table.len()), ..Look::default() };
    let mapping = match mapping(form, table) {
        Ok(mapping) => mapping,
        Err(open) => {
            view.open = open;
            return (settle(view, table.len(), form.error_count()), None);
        }
    };
    let position = latitude.zip(longitude).zip(elevation).and_then(|((lat, lon), z)| Position::new(lat, lon, z).ok());
    let site = position.zip(wind_height).and_then(|(p, h)| Site::new(&p, h, Guesses::default()).ok());
    let reading = read(table, &mapping, site.as_ref());
    describe(&mut view, &reading, table.len(), units);
    view.good = good_for(&reading, site.as_ref());
    let days: Vec<DailyWeather> = reading.rows.iter().map(|r| r.day).collect();
    if reading.faults.is_empty()
        && let (Some(position), Some(height)) = (position, wind_height)
        && let Err(error) = crate::intake::revision_of_days(&position, height, "", b"", days.clone())
    {
        view.open.push(match error {
            crate::intake::IntakeError::Normals(upland_core::climate::normals::NormalsError::MonthsMissing(months)) => {
                w.t1(
                    "file-open-months",
                    months.iter().map(|m| crate::show::month_long(*m)).collect::<Vec<_>>().join(", "),
                )
            }
            other => other.to_string(),
        });
    }
    let settled = view.open.is_empty() && reading.faults.is_empty() && form.is_sound();
    let view = settle(view, reading.rows.len(), form.error_count() + reading.faults.len());
    let takeable = match (settled, name, position, wind_height) {
        (true, Some(name), Some(position), Some(wind_height_m)) => {
            Some(Takeable { name, position, wind_height_m, days })
        }
        _ => None,
    };
    (view, takeable)
}

/// Says how many things are to be settled, or that all can go in.
fn settle(mut view: Look, days: usize, others: usize) -> Look {
    let w = Words;
    let open = view.open.len() + others;
    view.can_take = open == 0;
    view.take_label = w.t1("file-take", number(days as f64, 0));
    if open == 0 {
        view.figure = number(days as f64, 0);
        view.say = w.t("file-ready");
        view.say_more = w.t("file-ready-more");
    } else {
        view.figure = number(open as f64, 0);
        view.say = w.count("file-to-settle", open);
        view.say_more = w.t("file-to-settle-more");
    }
    view
}

fn describe(view: &mut Look, reading: &Reading, lines: usize, units: Units) {
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
    view.faults = reading.faults.iter().zip(1usize..).take(MOST_LINES).map(|(f, n)| fault_row(f, n, units)).collect();
    view.fault_title = w.count("file-faults", reading.faults.len());
    if reading.faults.len() > MOST_LINES {
        view.more_faults = w.count("file-more", reading.faults.len() - MOST_LINES);
    }
    view.notes = reading.notes.iter().take(MOST_LINES).map(|n| note_row(n, units)).collect();
    view.note_title = w.count("file-notes", reading.notes.len());
    if reading.notes.len() > MOST_LINES {
        view.more_notes = w.count("file-more", reading.notes.len() - MOST_LINES);
    }
}

fn fault_row(fault: &Fault, n: usize, units: Units) -> LineRow {
    let w = Words;
    let what = match &fault.kind {
        FaultKind::Cells { found, expected } => w.t2("fault-cells", found.to_string(), expected.to_string()),
        FaultKind::NotADate(text) => w.t1("fault-date", text),
        FaultKind::NotANumber(column, text) => w.t2("fault-number", w.t(role_key(*column)), text),
        FaultKind::Day(issue) => day_words(issue, units),
        FaultKind::Duplicate { first_line } => w.t1("fault-duplicate", number(*first_line as f64, 0)),
    };
    LineRow {
        key: n.to_string(),
        line: number(fault.line as f64, 0),
        date: fault.date.map_or_else(String::new, |d| d.to_string()),
        what,
    }
}

fn note_row(note: &Note, units: Units) -> LineRow {
    let w = Words;
    let what = match &note.kind {
        NoteKind::Day(issue) => day_words(issue, units),
        NoteKind::NoTemperature => w.t("note-no-temperature"),
        NoteKind::Gap { days } => w.count("note-gap", usize::try_from(*days).unwrap_or(0)),
        NoteKind::OutOfOrder => w.t("note-out-of-order"),
        NoteKind::Stuck { days } => w.count("note-stuck", *days),
    };
    LineRow { key: String::new(), line: number(note.line as f64, 0), date: note.date.to_string(), what }
}

fn day_words(issue: &DayIssue, units: Units) -> String {
    let w = Words;
    match issue {
        DayIssue::OutOfRange(out) => w.with(
            "day-out-of-range",
            &[
                ("what", &w.t(quantity_key(out.range.what))),
                ("value", &number(out.value, 1)),
                ("allowed", &Measure::Plain.allowed(out.range, units)),
            ],
        ),
        DayIssue::TminAboveTmax { t_min, t_max } => w.t2("day-crossed", number(*t_min, 1), number(*t_max, 1)),
        DayIssue::OverSaturation { rh } => w.t1("day-over-saturation", number(*rh, 1)),
        DayIssue::RhMinAboveMax => w.t("day-rh-crossed"),
        DayIssue::DewPointAboveTmax => w.t("day-dew-point"),
        DayIssue::SolarAboveClearSky { solar, clear_sky } => {
            w.t2("day-solar", number(*solar, 1), number(*clear_sky, 1))
        }
    }
}

fn quantity_key(what: &str) -> &'static str {
    match what {
        "temperature" => "quantity-temperature",
        "humidity" => "quantity-humidity",
        "wind" => "quantity-wind",
        "solar" => "quantity-solar",
        _ => "quantity-rain",
    }
}

/// What the data allow: for each input whether it is measured, and what stands in for it.
fn good_for(reading: &Reading, site: Option<&Site>) -> Vec<(&'static str, String, String, String)> {
    use upland_core::climate::reference_et::Reference;
    let w = Words;
    let count = |has: &dyn Fn(&DailyWeather) -> bool| reading.rows.iter().filter(|r| has(&r.day)).count();
    let all = reading.rows.len().max(1);
    let mut rows = Vec::new();
    if let Some(method) = site
        .and_then(|s| reading.rows.iter().find_map(|r| s.et0(&r.day, Reference::Short)))
        .map(|e| e.method.to_string())
    {
        rows.push(("", w.t("input-et0"), super::weather::method_words(&method), String::new()));
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
            let note = if there == all {
                w.t("good-every-day")
            } else {
                w.t2("good-some-days", number(there as f64, 0), number(all as f64, 0))
            };
            rows.push(("measured", w.t(name), w.t("how-measured"), note));
        }
    }
    rows
}

/// Why a file cannot be looked at, in words.
pub(crate) fn file_error(error: &FileError) -> String {
    let w = Words;
    match error {
        FileError::TooLarge => w.t("file-too-large"),
        FileError::NotText { .. } => w.t("file-not-text"),
        FileError::NotUtf8 { line } => w.t1("file-not-utf8", line.to_string()),
        FileError::Empty => w.t("file-empty"),
        FileError::Semicolons => w.t("file-semicolons"),
        FileError::Tabs => w.t("file-tabs"),
        FileError::HeaderTwice(header) => w.t1("file-header-twice", header),
        FileError::NoRows => w.t("file-no-rows"),
        FileError::Malformed { line, what } => w.t2("file-malformed", line.to_string(), what),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const SEATTLE: &[u8] = include_bytes!("../../../../docs/examples/seattle-weather.csv");

    fn looked_at(bytes: &[u8], settle: &[(&str, &str)]) -> (Form, Look, Option<Takeable>) {
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
        for (field, value) in settle {
            form.set(field, *value);
        }
        let (view, takeable) = look(&mut form, &table, Units::Metric);
        (form, view, takeable)
    }

    #[test]
    fn headers_are_read_and_units_are_asked_for() {
        let (form, view, takeable) = looked_at(SEATTLE, &[]);
        assert_eq!((form.get("as_1"), form.get("as_5")), ("rain_mm", ""));
        assert_eq!(view.open.len(), 4);
        assert!(takeable.is_none() && !view.can_take);
    }

    #[test]
    fn settled_units_let_all_days_in() {
        let (_, view, takeable) =
            looked_at(SEATTLE, &[("unit_1", "mm"), ("unit_2", "c"), ("unit_3", "c"), ("unit_4", "ms")]);
        assert!(view.can_take, "{:?}", view.open);
        assert_eq!(takeable.unwrap().days.len(), 1461);
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
        assert!(view.open[0].contains("Two columns are the highest temperature"), "{:?}", view.open);
    }
}
