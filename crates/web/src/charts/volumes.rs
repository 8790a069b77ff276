//! Volumes of water as the week's plate and its foot show them.

use chrono::NaiveDate;
use upland_core::schedule::{Expansion, WeekWork};

use crate::show::number;
use crate::words::Words;

/// Water of each day of a week by stations of known area, m³: by the date of the program's start.
pub(crate) fn day_volumes(
    first: NaiveDate,
    week: &Expansion,
    volume: impl Fn(&upland_core::schedule::Run) -> f64,
) -> [f64; 7] {
    let mut out = [0.0; 7];
    for run in &week.runs {
        if let Some(day) = out.get_mut(usize::try_from((run.date - first).num_days()).unwrap_or(7)) {
            *day += volume(run);
        }
    }
    out
}

/// The legend's sum, in words.
pub(crate) fn week_total(work: &WeekWork, volume: &dyn Fn(f64) -> String, unit: &str) -> String {
    let w = Words;
    let total = w.t2("week-total", ("volume", volume(work.volume_m3())), ("unit", unit));
    match work.unknown_areas {
        0 => total,
        n => format!("{total} {}", w.count("week-total-without", n)),
    }
}

/// A volume as text, m³ to a tenth or gallons whole.
pub(crate) fn volume_text(units: crate::show::Units) -> impl Fn(f64) -> String {
    move |m3| match units {
        crate::show::Units::Metric => number(m3, 1),
        // US gallon: 3.785 411 784 L, by definition.
        crate::show::Units::Us => number(m3 * 1000.0 / 3.785_411_784, 0),
    }
}

/// The unit of [`volume_text`].
pub(crate) const fn volume_unit(units: crate::show::Units) -> &'static str {
    match units {
        crate::show::Units::Metric => "m³",
        crate::show::Units::Us => "gal",
    }
}
