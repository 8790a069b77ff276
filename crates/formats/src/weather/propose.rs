//! Units told from the values, with the evidence: what the other unit would mean.

use super::column::{Column, Unit};

/// A unit that the values speak for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Proposal {
    /// The unit.
    pub unit: Unit,
    /// Lowest and highest value, as they stand in the file.
    pub ends: [f64; 2],
    /// What speaks for it.
    pub evidence: Evidence,
}

/// What the values would mean in another unit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Evidence {
    /// The hottest would be this, °C.
    Hottest {
        /// The other unit.
        other: Unit,
        /// °C.
        celsius: f64,
    },
    /// A year would have this much rain, mm.
    RainOfYear {
        /// The other unit.
        other: Unit,
        /// mm a year.
        mm: f64,
    },
    /// The mean wind would be this, m/s; the unit is that of the other columns.
    MeanWind {
        /// The other unit.
        other: Unit,
        /// m/s.
        ms: f64,
    },
    /// The strongest sun would be this, MJ/m² a day.
    StrongestSun {
        /// The other unit.
        other: Unit,
        /// MJ/m² a day.
        mj: f64,
    },
}

/// Values that are enough to say anything.
const ENOUGH: usize = 20;

/// The unit that a column's values speak for; `None` where both would do. `metric` is whether the file's other
/// columns are metric, as far as that is known. Source of the limits: common practice.
#[must_use]
pub fn propose_unit(column: Column, values: &[f64], metric: Option<bool>) -> Option<Proposal> {
    if values.len() < ENOUGH {
        return None;
    }
    let low = values.iter().copied().fold(f64::INFINITY, f64::min);
    let high = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let mean = values.iter().sum::<f64>() / values.len() as f64;
    let (unit, evidence) = match column {
        Column::TMax | Column::TMin | Column::DewPoint => {
            // Highs over a year pass 10 °C (50 °F) and stay under 50 °C; lows and dew points stay under 35 °C.
            let most = if column == Column::TMax { 50.0 } else { 35.0 };
            let (unit, other) =
                if high > most { (Unit::Fahrenheit, Unit::Celsius) } else { (Unit::Celsius, Unit::Fahrenheit) };
            (unit, Evidence::Hottest { other, celsius: other.to_si(high) })
        }
        Column::Rain => {
            let a_year = mean * 365.25;
            // 150 mm is a steppe, 150 in would be nearly 4 m; 100 mm a desert, 100 in a rain forest.
            let (unit, other) = match a_year {
                y if y >= 150.0 => (Unit::Millimetres, Unit::Inches),
                y if y > 0.0 && y <= 80.0 => (Unit::Inches, Unit::Millimetres),
                _ => return None,
            };
            (unit, Evidence::RainOfYear { other, mm: other.to_si(a_year) })
        }
        Column::Wind => {
            let (unit, other) = match (metric?, mean) {
                (true, m) if m >= 8.0 => (Unit::KilometresPerHour, Unit::MetresPerSecond),
                (true, m) if m >= 1.2 => (Unit::MetresPerSecond, Unit::KilometresPerHour),
                (false, m) if m >= 2.0 => (Unit::MilesPerHour, Unit::MetresPerSecond),
                _ => return None,
            };
            (unit, Evidence::MeanWind { other, ms: other.to_si(mean) })
        }
        Column::Solar => {
            // A clear day in midsummer gives some 33 MJ/m², a mean of 380 W/m² or 790 langleys.
            let (unit, other) = match high {
                h if h <= 50.0 => (Unit::Megajoules, Unit::Watts),
                h if h <= 420.0 => (Unit::Watts, Unit::Megajoules),
                _ => (Unit::Langleys, Unit::Watts),
            };
            (unit, Evidence::StrongestSun { other, mj: other.to_si(high) })
        }
        Column::Date | Column::RhMax | Column::RhMin | Column::RhMean => return None,
    };
    Some(Proposal { unit, ends: [low, high], evidence })
}

/// The orders of day, month and year in which every date of a column can be read.
#[must_use]
pub fn date_orders(texts: &[String]) -> Vec<Unit> {
    let all = Column::Date.units().iter().copied();
    all.filter(|order| !texts.is_empty() && texts.iter().all(|text| order.date(text).is_some())).collect()
}

#[cfg(test)]
mod tests {
    use super::super::Table;
    use super::*;

    const SEATTLE: &[u8] = include_bytes!("../../../../docs/examples/seattle-weather.csv");

    /// The units proposed for the shipped record, with its values changed.
    fn of_the_record(column: usize, as_: Column, change: impl Fn(f64) -> f64, metric: Option<bool>) -> Option<Unit> {
        let values: Vec<f64> = Table::parse(SEATTLE).unwrap().numbers(column).into_iter().map(change).collect();
        propose_unit(as_, &values, metric).map(|p| p.unit)
    }

    #[test]
    fn the_shipped_record_is_told_in_either_system() {
        let fahrenheit = |c: f64| c * 1.8 + 32.0;
        assert_eq!(of_the_record(1, Column::Rain, |mm| mm, None), Some(Unit::Millimetres));
        assert_eq!(of_the_record(1, Column::Rain, |mm| mm / 25.4, None), Some(Unit::Inches));
        for (index, column) in [(2, Column::TMax), (3, Column::TMin)] {
            assert_eq!(of_the_record(index, column, |c| c, None), Some(Unit::Celsius));
            assert_eq!(of_the_record(index, column, fahrenheit, None), Some(Unit::Fahrenheit));
        }
        assert_eq!(of_the_record(4, Column::Wind, |ms| ms, Some(true)), Some(Unit::MetresPerSecond));
        assert_eq!(of_the_record(4, Column::Wind, |ms| ms * 3.6, Some(true)), Some(Unit::KilometresPerHour));
        assert_eq!(of_the_record(4, Column::Wind, |ms| ms / 0.44704, Some(false)), Some(Unit::MilesPerHour));
        assert_eq!(of_the_record(4, Column::Wind, |ms| ms, None), None, "nothing speaks for a unit");
    }

    #[test]
    fn the_evidence_says_what_the_other_unit_would_mean() {
        let values: Vec<f64> = (0..30).map(|n| f64::from(n) - 5.6).collect();
        let proposal = propose_unit(Column::TMax, &values, None).unwrap();
        assert_eq!(proposal.ends, [-5.6, 23.4]);
        let Evidence::Hottest { other: Unit::Fahrenheit, celsius } = proposal.evidence else { panic!() };
        assert!((celsius - (23.4 - 32.0) / 1.8).abs() < 1e-12);
        assert_eq!(propose_unit(Column::TMax, &values[..5], None), None, "five values say nothing");
        let sun = |most: f64| propose_unit(Column::Solar, &[most; 30], None).map(|p| p.unit);
        assert_eq!([sun(31.0), sun(360.0), sun(740.0)], [Unit::Megajoules, Unit::Watts, Unit::Langleys].map(Some));
    }

    #[test]
    fn a_date_that_can_be_read_both_ways_is_asked_about() {
        let texts = |list: &[&str]| list.iter().map(|t| (*t).to_owned()).collect::<Vec<_>>();
        assert_eq!(date_orders(&texts(&["2026-01-31"])), [Unit::YearMonthDay]);
        assert_eq!(date_orders(&texts(&["1/2/2026", "3/4/2026"])), [Unit::DayMonthYear, Unit::MonthDayYear]);
        assert_eq!(date_orders(&texts(&["1/2/2026", "13/4/2026"])), [Unit::DayMonthYear]);
        assert_eq!(date_orders(&texts(&["1/2/2026", "4/13/2026"])), [Unit::MonthDayYear]);
        assert_eq!(date_orders(&texts(&["yesterday"])), []);
        assert_eq!(date_orders(&[]), []);
    }
}
