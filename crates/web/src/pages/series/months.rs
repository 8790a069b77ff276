//! The normals with their spread, and how complete each month on record is.

use upland_core::climate::giving_way::measured_months;
use upland_core::climate::normals::Normals;
use upland_core::climate::record::{MonthOnRecord, Spread, rain_spread};
use upland_core::quantity::MonthOfYear;

use crate::context::{TypedNormals, Weather};
use crate::show::{Fixed, Measure, Units, month_short, number};
use crate::words::Words;

/// A line of figures under the twelve months.
#[derive(Debug, Clone)]
pub(crate) struct NormalLine {
    pub(crate) name: String,
    pub(crate) cells: Vec<String>,
    pub(crate) year: String,
    pub(crate) strong: bool,
}

/// A month's bar: days on record, missing, and not come yet.
#[derive(Debug, Clone, Copy)]
pub(crate) struct MonthBar {
    pub(crate) from: Fixed,
    pub(crate) there: Fixed,
    pub(crate) missing: Option<(Fixed, Fixed)>,
    pub(crate) to_come: Option<(Fixed, Fixed)>,
}

/// A year of bars; none where the record had not begun.
#[derive(Debug, Clone)]
pub(crate) struct YearBars {
    pub(crate) year: String,
    pub(crate) bars: Vec<Option<MonthBar>>,
    pub(crate) missing: String,
}

/// The twelve months of a record.
#[derive(Debug, Clone, Default)]
pub(crate) struct MonthsView {
    pub(crate) unit: &'static str,
    pub(crate) names: Vec<String>,
    pub(crate) now: usize,
    pub(crate) lines: Vec<NormalLine>,
    pub(crate) sub: String,
    /// How typed normals give way to the months measured since, where they do.
    pub(crate) giving_way: String,
    pub(crate) years: Vec<YearBars>,
    pub(crate) complete: String,
}

/// Width of a month's bar.
const WIDTH: f64 = 30.0;

impl MonthsView {
    pub(crate) fn of(weather: &Weather, months: &[MonthOnRecord], now: MonthOfYear, units: Units) -> Self {
        let typed = weather.typed().filter(|_| weather.is_giving_way());
        let (by_month, by_year) = rain_spread(months);
        let of_typed = typed.as_ref().map(|typed| typed_lines(typed, months, units));
        let due: u32 = months.iter().map(|m| m.days_due).sum();
        let counts = Counts::of(months);
        let there: u32 = months.iter().map(|m| counts.there(m)).sum();
        let complete = if due == 0 {
            String::new()
        } else {
            Words.t2("record-complete", ("there", number(f64::from(there), 0)), ("due", number(f64::from(due), 0)))
        };
        Self {
            unit: Measure::Depth.unit(units),
            names: MonthOfYear::ALL.map(month_short).to_vec(),
            now: now.index(),
            lines: lines(weather.normals(), of_typed, &by_month, by_year, units),
            giving_way: typed.map_or_else(String::new, |t| Words.count("normals-give-way", t.years() as usize)),
            sub: spread_words(months, by_year, &by_month),
            years: months.chunk_by(|a, b| a.year == b.year).map(|year| year_bars(year, counts)).collect(),
            complete,
        }
    }
}

/// What makes a day complete: its reference ET, or of a rain gauge its rain.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Counts {
    ReferenceEt,
    Rain,
}

impl Counts {
    fn of(months: &[MonthOnRecord]) -> Self {
        if months.iter().all(|m| m.with_et0 == 0) { Self::Rain } else { Self::ReferenceEt }
    }

    const fn there(self, month: &MonthOnRecord) -> u32 {
        match self {
            Self::ReferenceEt => month.with_et0,
            Self::Rain => month.with_rain,
        }
    }

    const fn missing(self, month: &MonthOnRecord) -> u32 {
        month.days_due.saturating_sub(self.there(month))
    }
}

/// The reference ET as it was typed, and as it was measured in whole months, from which the normals follow.
fn typed_lines(typed: &TypedNormals, months: &[MonthOnRecord], units: Units) -> [NormalLine; 2] {
    let a_month = |m: MonthOfYear, a_day: f64| Measure::Depth.season_figure(a_day * m.mean_days(), units);
    let measured = measured_months(months);
    let entered = MonthOfYear::ALL.map(|m| a_month(m, typed.normals[m.index()].et0_mm_per_day));
    let measured = MonthOfYear::ALL.map(|m| match measured[m.index()] {
        month if month.et0_years == 0 => "·".to_owned(),
        month => a_month(m, month.et0_mm_per_day),
    });
    [("record-et0-entered", entered), ("record-et0-measured", measured)].map(|(name, cells)| NormalLine {
        name: Words.t(name),
        cells: cells.to_vec(),
        year: String::new(),
        strong: false,
    })
}

fn lines(
    normals: Option<&Normals>,
    of_typed: Option<[NormalLine; 2]>,
    by_month: &[Option<Spread>; 12],
    by_year: Option<Spread>,
    units: Units,
) -> Vec<NormalLine> {
    let w = Words;
    let figure = |mm: Option<f64>| mm.map_or_else(|| "·".to_owned(), |mm| Measure::Depth.season_figure(mm, units));
    let mut lines = Vec::new();
    if let Some(normals) = normals {
        let monthly = |m: MonthOfYear| normals[m.index()].et0_mm_per_day * m.mean_days();
        let year: f64 = MonthOfYear::ALL.into_iter().map(monthly).sum();
        let cells = MonthOfYear::ALL.map(|m| figure(Some(monthly(m)))).to_vec();
        lines.push(NormalLine { name: w.t("record-et0"), cells, year: figure(Some(year)), strong: true });
        lines.extend(of_typed.into_iter().flatten());
        let rain: Option<f64> = normals.iter().map(|n| n.rain_mm).sum();
        if normals.iter().any(|n| n.rain_mm.is_some()) {
            let cells = normals.iter().map(|n| figure(n.rain_mm)).collect();
            lines.push(NormalLine { name: w.t("record-rain"), cells, year: figure(rain), strong: true });
        }
    }
    if by_month.iter().any(Option::is_some) {
        let mut line = |name: &str, value: fn(Spread) -> f64| {
            let cells = by_month.iter().map(|s| figure(s.map(value))).collect();
            lines.push(NormalLine { name: w.t(name), cells, year: figure(by_year.map(value)), strong: false });
        };
        // A single year is neither dry nor wet.
        if by_month.iter().flatten().all(|s| s.years == 1) {
            line("record-rain", |s| s.middle);
        } else {
            line("record-rain-dry", |s| s.dry);
            line("record-rain-middle", |s| s.middle);
            line("record-rain-wet", |s| s.wet);
        }
    }
    lines
}

/// From which years the spread is, and which of them is called dry.
fn spread_words(months: &[MonthOnRecord], by_year: Option<Spread>, by_month: &[Option<Spread>; 12]) -> String {
    let w = Words;
    let (Some(first), Some(last)) = (months.first(), months.last()) else { return String::new() };
    let spread = by_year.or_else(|| by_month.iter().flatten().max_by_key(|s| s.years).copied());
    let Some(spread) = spread else { return String::new() };
    if spread.years == 1 {
        return first.year.to_string();
    }
    let years = w.t2("record-years", ("first", first.year.to_string()), ("last", last.year.to_string()));
    let rank = if spread.rank == 1 {
        w.t1("record-spread-ends", spread.years.to_string())
    } else {
        w.t2("record-spread-rank", ("rank", spread.rank.to_string()), ("years", spread.years.to_string()))
    };
    format!("{years}; {rank}")
}

fn year_bars(months: &[MonthOnRecord], counts: Counts) -> YearBars {
    let bars = MonthOfYear::ALL
        .into_iter()
        .map(|month| months.iter().find(|m| m.month == month).map(|m| bar(m, counts)))
        .collect();
    let missing: u32 = months.iter().map(|m| counts.missing(m)).sum();
    YearBars {
        year: months.first().map_or_else(String::new, |m| m.year.to_string()),
        bars,
        missing: if missing == 0 { Words.t("record-all-days") } else { format!("−{missing}") },
    }
}

fn bar(month: &MonthOnRecord, counts: Counts) -> MonthBar {
    let a_day = WIDTH / f64::from(month.length());
    let from = f64::from(month.begins - 1) * a_day;
    let there = f64::from(counts.there(month)) * a_day;
    let missing = f64::from(counts.missing(month)) * a_day;
    let to_come = f64::from((month.length() + 1).saturating_sub(month.begins + month.days_due)) * a_day;
    let rest = |from: f64, width: f64| (width > 0.0).then_some((Fixed(from), Fixed(width)));
    MonthBar {
        from: Fixed(from),
        there: Fixed(there),
        missing: rest(from + there, missing),
        to_come: rest(from + there + missing, to_come),
    }
}
