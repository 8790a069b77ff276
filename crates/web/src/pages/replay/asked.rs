//! What is asked of a replay: program, station, period, and what is tried.

use chrono::{Datelike, NaiveDate};
use upland_core::budget::Dial;
use upland_core::controller::{Controller, DayMode, PercentScope, ProgramLetter, Station};
use upland_core::quantity::{Percent, RunTime};
use upland_core::replay::{Part, REFILL_SHARE, RainChange, WhatIf};
use upland_core::schedule::Plan;
use upland_core::sensor::{RainSetting, SensorKind, Vent};
use upland_core::word::Word as _;

use crate::context::WeatherDay;
use crate::form::{Form, parse_number};
use crate::words::Words;

/// A question to the weather on record.
#[derive(Debug, Clone)]
pub(crate) struct Asked {
    /// The programs that share a percent, the chosen one among them.
    pub(crate) letters: Vec<ProgramLetter>,
    pub(crate) station: u8,
    pub(crate) part: Part,
    /// `all`, or a year.
    pub(crate) period: String,
    pub(crate) span: [NaiveDate; 2],
    pub(crate) what_if: WhatIf,
    /// Money a m³.
    pub(crate) price: Option<f64>,
    /// Share of the demand that has to be met.
    pub(crate) enough: f64,
    /// Share of the readily available water at which a deficit controller refills.
    pub(crate) refill_share: f64,
}

/// What is enough unless somebody says otherwise.
pub(crate) const ENOUGH: f64 = 0.95;

/// The years of which the weather has most days.
pub(crate) fn years(days: &[WeatherDay]) -> Vec<i32> {
    let mut years: Vec<i32> = days.iter().map(|d| d.date.year()).collect();
    years.dedup();
    years.retain(|y| days.iter().filter(|d| d.date.year() == *y).count() >= 300);
    years
}

/// The rain sensor of a controller: the settings that are printed on it, and how it is set.
pub(crate) fn rain_sensor(c: &Controller) -> (Vec<f64>, Option<RainSetting>) {
    c.sensors
        .iter()
        .find_map(|s| match &s.kind {
            SensorKind::Rain { thresholds_mm, setting } => Some((thresholds_mm.clone(), Some(*setting))),
            _ => None,
        })
        .unwrap_or_else(|| (SensorKind::COMMON_RAIN_MM.to_vec(), None))
}

impl Asked {
    /// Reads the question of an address or a form. What makes no sense is asked as if it were not there,
    /// and the form says so. Nothing without a station or a day of weather.
    pub(crate) fn read(form: &mut Form, (c, plan): (&Controller, &Plan), days: &[WeatherDay]) -> Option<Self> {
        let station = form.get("station").parse().ok().and_then(|n| c.station(n));
        let letter = form.get("program").chars().next().and_then(ProgramLetter::new);
        let in_program = |l: ProgramLetter| c.stations.iter().find(|s| s.program == l);
        // A station of another program than the chosen one gives way to that program's first.
        let station = match (station, letter) {
            (Some(s), Some(l)) if s.program != l => in_program(l).or(Some(s)),
            (Some(s), _) => Some(s),
            (None, Some(l)) => in_program(l).or(c.stations.first()),
            (None, None) => c.stations.first(),
        }?;
        let letters = match c.capability.percent_scope {
            PercentScope::AllPrograms => c.programs.iter().map(|p| p.letter).collect(),
            PercentScope::EachProgram => vec![station.program],
        };
        let (period, span) = period(form, days)?;
        let (price, enough) = price_and_enough(form);
        let refill_share = number_of(form, "refill", 10.0, 100.0).map_or(REFILL_SHARE, |percent| percent / 100.0);
        Some(Self {
            letters,
            station: station.number,
            part: if form.is("part", "average") { Part::Average } else { Part::DriestQuarter },
            period,
            span,
            what_if: what_if(form, c, station, plan),
            price,
            enough,
            refill_share,
        })
    }
}

fn days_of_year(year: i32) -> Option<[NaiveDate; 2]> {
    Some([NaiveDate::from_ymd_opt(year, 1, 1)?, NaiveDate::from_ymd_opt(year, 12, 31)?])
}

/// The last year of which the weather has most days, its days on record.
pub(crate) fn last_year(days: &[WeatherDay]) -> Option<[NaiveDate; 2]> {
    let [first, last] = days_of_year(*years(days).last()?)?;
    Some([first.max(days.first()?.date), last.min(days.last()?.date)])
}

/// The period that is asked for, a year or all, and its days on record: the last whole year unless somebody says
/// otherwise. Nothing without a day of weather.
pub(super) fn period(form: &Form, days: &[WeatherDay]) -> Option<(String, [NaiveDate; 2])> {
    let (first, last) = (days.first()?.date, days.last()?.date);
    let years = years(days);
    let year = form.get("period").parse::<i32>().ok().filter(|y| years.contains(y));
    let year = year.or_else(|| years.last().copied().filter(|_| form.get("period") != "all"));
    let span = year.and_then(days_of_year).unwrap_or([first, last]);
    Some((year.map_or_else(|| "all".into(), |y| y.to_string()), [span[0].max(first), span[1].min(last)]))
}

/// Money a m³, and the share of the demand that has to be met.
pub(super) fn price_and_enough(form: &mut Form) -> (Option<f64>, f64) {
    (number_of(form, "price", 0.0, 1000.0), number_of(form, "enough", 0.5, 1.0).unwrap_or(ENOUGH))
}

/// A number of a field; nothing where it is blank, and an error where it is no such number.
fn number_of(form: &mut Form, field: &str, min: f64, max: f64) -> Option<f64> {
    let text = form.get(field).trim().to_owned();
    if text.is_empty() {
        return None;
    }
    let number = parse_number(&text).filter(|n| (min..=max).contains(n));
    if number.is_none() {
        form.fail(
            field,
            Words.t2("replay-number", ("min", crate::show::number(min, 1)), ("max", crate::show::number(max, 0))),
        );
    }
    number
}

/// Minutes at 100 % of a station, where others than the planned ones are asked for.
fn minutes(form: &mut Form, c: &Controller, station: &Station, plan: &Plan) -> Option<(u8, RunTime)> {
    let most = c.capability.run_max.minutes();
    let run = c.capability.run(number_of(form, "minutes", 0.0, most)?);
    (plan.station(station.number)?.panel != run).then_some((station.number, run))
}

fn what_if(form: &mut Form, c: &Controller, station: &Station, plan: &Plan) -> WhatIf {
    let letter = station.program;
    let minutes = minutes(form, c, station, plan);
    let scale = number_of(form, "scale", 0.0, 400.0).filter(|s| (s - 100.0).abs() > 1e-9);
    // 0 to 7 by its range; 0, and as many as are set, keep the days that are set.
    let days = number_of(form, "days", 0.0, 7.0).map(|d| d as u8).filter(|d| *d >= 1);
    let days = days.filter(|d| weekdays_of(c, letter) != Some(*d));
    let (_, own) = rain_sensor(c);
    let wait = number_of(form, "wait", 0.0, 14.0);
    let vent = Vent::of_word(form.get("vent")).ok();
    let rain = match form.get("trip") {
        "none" => RainChange::Without,
        text => match (parse_number(text), wait.is_some() || vent.is_some(), own) {
            (Some(mm), _, _) if !(0.5..=25.0).contains(&mm) => RainChange::Keep,
            (None, false, _) | (None, _, None) => RainChange::Keep,
            (mm, _, own) => {
                let own_or = own.unwrap_or(RainSetting::USUAL);
                let setting = RainSetting {
                    threshold_mm: mm.unwrap_or(own_or.threshold_mm),
                    // 0 to 14 by its range.
                    delay_days: wait.map_or(own_or.delay_days, |d| d as u8),
                    vent: vent.unwrap_or(own_or.vent),
                    disc: own_or.disc,
                };
                if own == Some(setting) { RainChange::Keep } else { RainChange::Set(setting) }
            }
        },
    };
    WhatIf { percents: percents(form.get("set")), scale: scale.map(|s| s / 100.0), days, rain, minutes }
}

/// Days a week of a program that goes by weekdays.
pub(crate) fn weekdays_of(c: &Controller, letter: ProgramLetter) -> Option<u8> {
    match c.program(letter)?.schedule.days {
        DayMode::Weekdays(days) if !days.is_empty() => Some(days.count()),
        _ => None,
    }
}

/// Twelve percents, January first, as an address holds them: `off` or a number between commas.
fn percents(text: &str) -> Option<[Dial; 12]> {
    let dials: Vec<Dial> = text
        .split(',')
        .filter_map(|t| match t {
            "off" => Some(Dial::Off),
            number => number.parse().ok().and_then(|p| Percent::new(p).ok()).map(Dial::Percent),
        })
        .collect();
    dials.try_into().ok()
}

/// As [`percents`] reads them.
pub(crate) fn percents_text(dials: &[Dial; 12]) -> String {
    let text = |d: &Dial| match d {
        Dial::Off => "off".to_owned(),
        Dial::Percent(p) => p.get().to_string(),
    };
    dials.iter().map(text).collect::<Vec<_>>().join(",")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn percents_read_back_as_they_were_written() {
        let mut dials = [Dial::Percent(Percent::FULL); 12];
        dials[0] = Dial::Off;
        assert_eq!(percents(&percents_text(&dials)), Some(dials));
        for no in ["", "100", "off,off", "a,b,c,d,e,f,g,h,i,j,k,l", "401,1,1,1,1,1,1,1,1,1,1,1"] {
            assert_eq!(percents(no), None, "{no}");
        }
    }
}
