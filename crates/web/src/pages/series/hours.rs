//! The hours of a day: its chart, a line for each, and what they add up to.

use chrono::{Days, NaiveDate};
use upland_core::climate::by_hours::{BothWays, Counts, DayFigure, both_ways};
use upland_core::climate::hourly::{HourlyEt0, HourlyWeather, MJ_OF_A_WATT_HOUR};
use upland_core::climate::reference_et::Reference;

use crate::charts::{HoursPlate, HoursPlateInput};
use crate::context::{HoursOnRecord, Record};
use crate::form::Form;
use crate::intake::hours_by_day;
use crate::pages::shell::Shell;
use crate::pages::weather::method_words;
use crate::show::{Measure, Units, date_long, number};
use crate::words::Words;

/// The page.
#[derive(askama::Template)]
#[template(path = "hours.html")]
pub(crate) struct HoursTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    /// Address of the series.
    pub(crate) base: String,
    pub(crate) name: String,
    pub(crate) view: HoursView,
}

/// An hour of the table.
#[derive(Debug, Clone)]
pub(crate) struct HourRow {
    pub(crate) time: String,
    pub(crate) air: String,
    pub(crate) humidity: String,
    pub(crate) wind: String,
    pub(crate) sun: String,
    pub(crate) rain: String,
    pub(crate) et0: String,
    /// What was estimated.
    pub(crate) note: String,
}

/// A day by its hours.
#[derive(Debug, Clone, Default)]
pub(crate) struct HoursView {
    pub(crate) date: String,
    pub(crate) earlier: Option<String>,
    pub(crate) later: Option<String>,
    pub(crate) plate: Option<HoursPlate>,
    pub(crate) rows: Vec<HourRow>,
    /// Whether anything of an hour was estimated.
    pub(crate) has_notes: bool,
    /// Units of temperature, wind, rain and reference ET.
    pub(crate) units: [&'static str; 4],
    /// The reference ET that counts.
    pub(crate) figure: String,
    pub(crate) figure_unit: &'static str,
    /// The sum of the hours and the daily equation, each with its method.
    pub(crate) ways: Vec<(String, String, String)>,
    pub(crate) why: String,
}

/// Days before a day whose hours may tell how cloudy its night was.
const CLOUD_DAYS: u64 = 10;

/// The days whose hours are needed to show those of a day: a night carries the cloud of the afternoon before.
pub(crate) fn days_for(date: NaiveDate) -> [NaiveDate; 2] {
    [date - Days::new(CLOUD_DAYS), date]
}

/// The newest day of a record with hours; none without.
pub(crate) fn newest_with_hours(record: &Record) -> Option<NaiveDate> {
    record.days.iter().rfind(|day| day.has_hours).map(|day| day.weather.date)
}

impl HoursView {
    /// A day of a record. `hours` are those of [`days_for`] it.
    pub(crate) fn of(record: &Record, hours: &HoursOnRecord, date: NaiveDate, units: Units) -> Self {
        let own: &[HourlyWeather] = hours.get(&date).map_or(&[], |day| &day.hours);
        let day = record.days.iter().find(|day| day.weather.date == date);
        let (Some(site), Some(day)) = (record.site(), day) else { return Self::default() };
        let all: Vec<HourlyWeather> = hours.values().flat_map(|day| day.hours.iter().copied()).collect();
        let worked = site.hourly_et0(&all, Reference::Short);
        let et0 = &worked[all.len() - own.len()..];
        let both = both_ways(&site, &[day.weather], hours_by_day(hours), &record.decisions, Reference::Short);
        let rows = rows(own, et0, units);
        let link = |day: Option<NaiveDate>| day.map(|date| date.to_string());
        let with_hours = || record.days.iter().filter(|day| day.has_hours).map(|day| day.weather.date);
        Self {
            date: date_long(date),
            earlier: link(with_hours().rfind(|other| *other < date)),
            later: link(with_hours().find(|other| *other > date)),
            plate: HoursPlate::draw(&HoursPlateInput { hours: own, et0, site: &site, units }),
            has_notes: rows.iter().any(|row| !row.note.is_empty()),
            rows,
            units: [Measure::Temperature, Measure::Wind, Measure::Depth, Measure::DepthADay].map(|m| m.unit(units)),
            figure: day.et0_mm.map_or_else(|| "·".into(), |et0| Measure::DepthADay.figure(et0, units)),
            figure_unit: Measure::DepthADay.unit(units),
            ways: both.iter().flat_map(|both| ways(both, units)).collect(),
            why: both.first().map_or_else(String::new, why),
        }
    }
}

fn rows(hours: &[HourlyWeather], et0: &[Option<HourlyEt0>], units: Units) -> Vec<HourRow> {
    let offset = |hour: &HourlyWeather| hour.start.offset().local_minus_utc();
    let clock_changes = hours.windows(2).any(|pair| matches!(pair, [a, b] if offset(a) != offset(b)));
    let figure = |value: Option<f64>, measure: Measure| value.map_or_else(|| "·".into(), |v| measure.figure(v, units));
    hours
        .iter()
        .zip(et0)
        .map(|(hour, et0)| HourRow {
            // Two hours of one name are told apart by how far their clock is from UTC.
            time: hour.start.format(if clock_changes { "%H:%M %:z" } else { "%H:%M" }).to_string(),
            air: hour.t.map_or_else(|| "·".into(), |t| number(Measure::Temperature.in_units(t, units), 1)),
            humidity: hour.rh.map_or_else(|| "·".into(), |rh| number(rh, 0)),
            wind: figure(hour.wind, Measure::Wind),
            sun: hour.solar.map_or_else(|| "·".into(), |mj| number((mj / MJ_OF_A_WATT_HOUR).max(0.0), 0)),
            rain: hour
                .rain
                .map_or_else(|| "·".into(), |mm| if mm > 0.0 { Measure::Depth.figure(mm, units) } else { "0".into() }),
            et0: figure(et0.map(|et0| et0.et0_mm), Measure::DepthADay),
            note: et0.map_or_else(String::new, |et0| estimated(&et0)),
        })
        .collect()
}

/// What of an hour was estimated, in words.
fn estimated(et0: &HourlyEt0) -> String {
    let method = et0.method;
    let guesses = [
        (method.humidity_guessed, "input-humidity"),
        (method.sun_guessed, "input-sun"),
        (method.wind_guessed, "input-wind"),
    ];
    let names: Vec<String> =
        guesses.iter().filter(|(is_guessed, _)| *is_guessed).map(|(_, key)| Words.t(key).to_lowercase()).collect();
    names.join(", ")
}

fn ways(both: &BothWays, units: Units) -> Vec<(String, String, String)> {
    let line = |key: &str, figure: DayFigure| {
        let (mm, how) = match figure {
            Some((mm, method)) => (Measure::DepthADay.show(mm, units), method_words(&method.to_string())),
            None => ("·".to_owned(), Words.t("hours-no-figure")),
        };
        (Words.t(key), mm, how)
    };
    vec![line("hours-sum", both.by_hours), line("hours-daily", both.by_day)]
}

/// Which of the two figures counts, and why.
fn why(both: &BothWays) -> String {
    Words.t(match both.counts {
        Counts::Hours => "hours-counts-sum",
        Counts::DayAsHoursAreMissing => "hours-counts-missing",
        Counts::DayAsHoursAreDoubted => "hours-counts-doubted",
        Counts::DayAsHoursAreGuessed => "hours-counts-guessed",
    })
}
