//! What stands beside anything that is tried: the present and the usual strategies. It does not follow from a slider, so
//! that a page that asks ten times a second works it out once.

use std::sync::Arc;

use chrono::{Datelike, NaiveDate};
use upland_core::replay::{Kind, Season, WholeTotals};

use super::asked::{Asked, years};
use super::seasons::{Field, Run};
use crate::context::WeatherDay;
use crate::remembered::Remembered;

/// The strategies that stand between the present and what is tried.
pub(super) const USUAL: [Kind; 7] =
    [Kind::Fixed, Kind::ByMonth, Kind::EtSensor, Kind::RainSensor, Kind::SoilSensor, Kind::Deficit, Kind::ByHand];

/// The present and the usual strategies of a question.
#[derive(Debug)]
pub(crate) struct Beside {
    pub(super) present: Run,
    pub(super) usual: Vec<(Kind, Run)>,
    /// The dry, the middle and the wet year: key of the name, year, rain in mm, and the present in it.
    pub(super) years: Vec<(&'static str, i32, f64, WholeTotals)>,
}

impl Beside {
    /// Nothing where the period has no day.
    fn of(field: &Field<'_>, asked: &Asked, days: &[WeatherDay]) -> Option<Self> {
        let season = field.season(asked.span)?;
        let year = |(key, year, rain): (&'static str, i32, f64)| {
            let span = [NaiveDate::from_ymd_opt(year, 1, 1)?, NaiveDate::from_ymd_opt(year, 12, 31)?];
            let present = field.usual(Kind::AsFound, &field.season(span)?, asked).totals;
            Some((key, year, rain, present))
        };
        Some(Self {
            present: field.usual(Kind::AsFound, &season, asked),
            usual: USUAL.into_iter().map(|kind| (kind, field.usual(kind, &season, asked))).collect(),
            years: telling_years(&field.whole, &years(days)).into_iter().filter_map(year).collect(),
        })
    }
}

/// What was worked out of late, by everything that it follows from. Nothing is lost with it.
#[derive(Debug)]
pub(crate) struct KnownBeside(Remembered<String, Arc<Beside>>);

impl Default for KnownBeside {
    fn default() -> Self {
        Self(Remembered::with_room(MOST))
    }
}

/// Questions that are remembered.
const MOST: usize = 64;
/// Of a longer period nothing is remembered: the days of its present take megabytes.
const MOST_DAYS: i64 = 1500;

impl KnownBeside {
    /// What stands beside a question. `basis` names everything but the question that it follows from.
    pub(crate) fn of(&self, basis: &str, field: &Field<'_>, asked: &Asked, days: &[WeatherDay]) -> Option<Arc<Beside>> {
        let Asked { letters, station, period, refill_share, .. } = asked;
        let key = format!("{basis} {letters:?} {station} {period} {refill_share}");
        if let Some(known) = self.0.get(&key) {
            return Some(known);
        }
        let beside = Arc::new(Beside::of(field, asked, days)?);
        if (asked.span[1] - asked.span[0]).num_days() <= MOST_DAYS {
            self.0.keep(key, beside.clone(), 1);
        }
        Some(beside)
    }
}

/// The driest, the middle and the wettest year on record by their rain: key of the name, year, rain in mm.
pub(super) fn telling_years(season: &Season, years: &[i32]) -> Vec<(&'static str, i32, f64)> {
    let rain = |year: i32| -> f64 {
        season.dates.iter().zip(&season.rain_mm).filter(|(d, _)| d.year() == year).map(|(_, mm)| mm).sum()
    };
    let mut by_rain: Vec<(i32, f64)> = years.iter().map(|y| (*y, rain(*y))).collect();
    by_rain.sort_by(|a, b| a.1.total_cmp(&b.1));
    let picked = match by_rain.len() {
        0 => Vec::new(),
        1 => vec![("replay-the-year", 0)],
        2 => vec![("replay-dry", 0), ("replay-wet", 1)],
        n => vec![("replay-dry", 0), ("replay-middle", n / 2), ("replay-wet", n - 1)],
    };
    picked.into_iter().map(|(key, i)| (key, by_rain[i].0, by_rain[i].1)).collect()
}
