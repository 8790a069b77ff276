//! A year of rain, and the waterings that a rain sensor let through or held back.

use chrono::{Datelike, NaiveDate};
use upland_core::quantity::MonthOfYear;
use upland_core::sensor::RainDay;

use crate::show::{Fixed, month_short};

#[derive(Debug, Clone)]
pub(crate) struct HoldPlate {
    pub(crate) year: String,
    /// Strokes of rain: x and lower end.
    pub(crate) rain: Vec<(Fixed, Fixed)>,
    /// Waterings that were made.
    pub(crate) ran: Vec<Fixed>,
    /// Waterings that were held.
    pub(crate) kept: Vec<Fixed>,
    pub(crate) months: Vec<(Fixed, Fixed, String)>,
    pub(crate) made: String,
    pub(crate) held: String,
}

/// Width of the drawing.
const WIDTH: f64 = 524.0;
/// Rain that hangs to the row of waterings, mm.
const FULL_MM: f64 = 40.0;
/// Room for the rain.
const DEPTH: f64 = 30.0;

impl HoldPlate {
    /// The last whole year of the record; nothing when no year is whole.
    pub(crate) fn draw(days: &[RainDay], held: &[bool]) -> Option<Self> {
        let last = days.last()?.date;
        let year = (last.year() - 1..=last.year())
            .rev()
            .find(|y| days.iter().filter(|d| d.date.year() == *y).count() >= 365)?;
        let first = NaiveDate::from_ymd_opt(year, 1, 1)?;
        let x = |date: NaiveDate| WIDTH * (date - first).num_days() as f64 / 366.0;
        let mut out = Self {
            year: year.to_string(),
            rain: Vec::new(),
            ran: Vec::new(),
            kept: Vec::new(),
            months: Vec::new(),
            made: String::new(),
            held: String::new(),
        };
        for (day, held) in days.iter().zip(held).filter(|(d, _)| d.date.year() == year) {
            if day.rain_mm > 0.2 {
                out.rain.push((Fixed(x(day.date)), Fixed((day.rain_mm / FULL_MM * DEPTH).clamp(1.5, DEPTH))));
            }
            if day.water_mm > 0.0 {
                let row = if *held { &mut out.kept } else { &mut out.ran };
                row.push(Fixed(x(day.date)));
            }
        }
        out.months = MonthOfYear::ALL
            .iter()
            .filter_map(|m| {
                let start = x(NaiveDate::from_ymd_opt(year, m.number().into(), 1)?);
                Some((Fixed(start), Fixed(start + WIDTH / 24.0), month_short(*m)))
            })
            .collect();
        out.made = out.ran.len().to_string();
        out.held = out.kept.len().to_string();
        Some(out)
    }
}
