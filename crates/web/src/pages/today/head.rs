//! The head of Today: the last two weeks at a place, or its normals.

use chrono::{NaiveDate, TimeDelta};

use crate::charts::TwoWeeks;
use crate::context::{PlaceContext, WeatherDay};
use crate::pages::weather::typed_source;
use crate::show::{Measure, Units, month_long, month_of};
use crate::words::Words;

/// The last days on record at a place, beside the sun.
#[derive(Debug, Clone)]
pub(crate) struct RecentDays {
    pub(crate) plate: TwoWeeks,
    pub(crate) describe: String,
    /// Reference ET and rain of yesterday, figures alone.
    pub(crate) et0: String,
    pub(crate) rain: String,
    pub(crate) unit: &'static str,
    pub(crate) week: String,
    /// How far off the station is, or that there is a record.
    pub(crate) source: String,
    pub(crate) href: String,
}

impl RecentDays {
    /// Nothing where yesterday is not on record.
    pub(crate) fn of(place: &PlaceContext, days: &[WeatherDay], today: NaiveDate, units: Units) -> Option<Self> {
        let w = Words;
        let yesterday = days.iter().find(|d| d.date == today - TimeDelta::days(1))?;
        let weather = place.weather.as_ref()?;
        let week = || days.iter().filter(|d| (today - TimeDelta::days(7)..today).contains(&d.date));
        let figure = |mm: Option<f64>| mm.map_or_else(|| "·".to_owned(), |mm| Measure::Depth.figure(mm, units));
        let sum = |of: fn(&WeatherDay) -> Option<f64>| Measure::Depth.figure(week().filter_map(of).sum(), units);
        let [et0, rain] = [figure(yesterday.et0_mm), figure(yesterday.rain_mm)];
        Some(Self {
            plate: TwoWeeks::draw(days, today)?,
            describe: w.t2("today-two-weeks-describe", ("et0", &et0), ("rain", &rain)),
            et0,
            rain,
            unit: Measure::Depth.unit(units),
            week: w.t2("today-seven-days", ("et0", sum(|d| d.et0_mm)), ("rain", sum(|d| d.rain_mm))),
            source: place
                .distance_km()
                .map_or_else(|| w.t("today-record"), |km| w.t1("weather-off", Measure::Distance.show(km, units))),
            href: format!("/weather/{}", weather.series.id),
        })
    }
}

/// The month's normals, beside the sun.
#[derive(Debug, Clone)]
pub(crate) struct NormalNow {
    pub(crate) title: String,
    pub(crate) et0: String,
    pub(crate) et0_unit: String,
    pub(crate) rain: String,
    pub(crate) rain_unit: String,
    pub(crate) week: String,
    pub(crate) source: String,
    pub(crate) mark: &'static str,
    pub(crate) href: String,
}

/// The month's normals at a place.
pub(crate) fn normal_now(context: &PlaceContext, today: NaiveDate, units: Units) -> Option<NormalNow> {
    let w = Words;
    let weather = context.weather.as_ref()?;
    let month = month_of(today);
    let n = weather.normals()?[month.index()];
    let week = n.et0_mm_per_day * 7.0;
    Some(NormalNow {
        title: w.t1("today-normal", month_long(month)),
        et0: Measure::DepthADay.figure(n.et0_mm_per_day, units),
        et0_unit: w.t1("a-day", Measure::DepthADay.unit(units)),
        rain: n.rain_mm.map_or_else(|| "·".to_owned(), |r| Measure::Depth.figure(r, units)),
        rain_unit: w.t1("today-rain", Measure::Depth.unit(units)),
        week: w.t1("today-week", Measure::Depth.show(week, units)),
        source: if weather.is_typed() {
            typed_source(weather)
        } else {
            context.distance_km().map_or_else(String::new, |km| w.t1("weather-off", Measure::Distance.show(km, units)))
        },
        mark: if weather.is_typed() { "table" } else { "measured" },
        href: format!("/weather/{}", weather.series.id),
    })
}
