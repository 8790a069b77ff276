//! The year strip: 365 days in one line, the signature of every controller's page.

use crate::context::WeatherDay;
use chrono::{Datelike, NaiveDate};
use upland_core::budget::Group;
use upland_core::climate::normals::Normals;
use upland_core::quantity::MonthOfYear;

use super::path::PathData;
use crate::show::{Fixed, Measure, Units, month_of, month_short};
use crate::words::Words;

/// A month on the strip's time axis.
#[derive(Debug, Clone)]
pub(crate) struct MonthMark {
    pub(crate) x: Fixed,
    pub(crate) mid: Fixed,
    pub(crate) label: String,
    pub(crate) now: bool,
}

/// A percent written over its step.
#[derive(Debug, Clone)]
pub(crate) struct PercentMark {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) text: String,
}

/// The strip, ready to be written down.
#[derive(Debug, Clone)]
pub(crate) struct Strip {
    pub(crate) width: Fixed,
    pub(crate) height: Fixed,
    pub(crate) base: Fixed,
    pub(crate) label_y: Fixed,
    pub(crate) months: Vec<MonthMark>,
    pub(crate) strokes: String,
    pub(crate) rain: String,
    pub(crate) dots: Vec<(Fixed, Fixed)>,
    pub(crate) steps: String,
    pub(crate) percents: Vec<PercentMark>,
    pub(crate) now_x: Fixed,
    pub(crate) now_text_x: Fixed,
    pub(crate) now_flag: String,
    pub(crate) now_label: String,
    pub(crate) year_label: String,
    pub(crate) scale_label: String,
    pub(crate) describe: String,
    pub(crate) has_days: bool,
    /// Whether the year is so far on that the legend has to make room for the date's flag.
    pub(crate) late: bool,
}

/// What a strip is drawn from.
#[derive(Debug, Clone, Copy)]
pub(crate) struct StripInput<'a> {
    pub(crate) normals: &'a Normals,
    pub(crate) group: Option<&'a Group>,
    /// Days of one year, those that are measured.
    pub(crate) days: &'a [WeatherDay],
    pub(crate) today: NaiveDate,
    pub(crate) units: Units,
}

/// The strip's frame: where the axis, the drawing and the words are.
#[derive(Debug, Clone, Copy)]
struct Frame {
    width: f64,
    height: f64,
    base: f64,
    top: f64,
    words: bool,
}

impl Strip {
    /// The strip of a desk page, 1248 by 78.
    pub(crate) fn wide(input: &StripInput<'_>) -> Self {
        Self::draw(input, Frame { width: 1248.0, height: 78.0, base: 62.0, top: 20.0, words: true })
    }

    /// The strip of a phone, without words.
    pub(crate) fn phone(input: &StripInput<'_>) -> Self {
        Self::draw(input, Frame { width: 390.0, height: 34.0, base: 33.0, top: 5.0, words: false })
    }

    /// The strip of the door card.
    pub(crate) fn card(input: &StripInput<'_>) -> Self {
        Self::draw(input, Frame { width: 704.0, height: 64.0, base: 49.0, top: 18.0, words: true })
    }

    fn draw(input: &StripInput<'_>, frame: Frame) -> Self {
        let w = Words;
        let most = scale(input);
        let x = |day0: f64| day0 / 365.0 * frame.width;
        let y = |mm: f64| frame.base - (mm / most).clamp(0.0, 1.0) * (frame.base - frame.top);
        let starts = MONTH_STARTS;
        let month_of_today = input.today.month0() as usize;
        let months = MonthOfYear::ALL
            .map(|m| MonthMark {
                x: Fixed(x(starts[m.index()])),
                mid: Fixed(x((starts[m.index()] + starts[m.index() + 1]) / 2.0)),
                label: month_short(m),
                now: m.index() == month_of_today,
            })
            .to_vec();
        let (mut strokes, mut rain) = (PathData::default(), PathData::default());
        for day in input.days {
            let at = x(f64::from(day.date.ordinal0().min(364)) + 0.5);
            if let Some(et0) = day.et0_mm {
                strokes.stroke(at, frame.base, y(et0));
            }
            if let Some(fell) = day.rain_mm.filter(|r| *r >= 1.0) {
                // Hangs from the top: 40 mm fills the room above the drawing.
                rain.stroke(at, 0.0, (fell / 40.0 * frame.top).clamp(1.5, frame.top));
            }
        }
        let middles = middles(input.normals);
        let dots = (0..365)
            .step_by(3)
            .map(|d| f64::from(d) + 0.5)
            .map(|d| (Fixed(x(d)), Fixed(y(normal_at(&middles, d)))))
            .collect();
        let peak = input.group.map_or(0.0, |g| input.normals[g.base_month.index()].et0_mm_per_day);
        let percent_of = |m: MonthOfYear| input.group.map_or(0, |g| g.month(m).dial.percent());
        let level = |m: MonthOfYear| y(f64::from(percent_of(m)) / 100.0 * peak);
        let steps = if input.group.is_some() {
            PathData::steps(MonthOfYear::ALL.map(|m| (x(starts[m.index()]), x(starts[m.index() + 1]), level(m))))
        } else {
            PathData::default()
        };
        let percents = MonthOfYear::ALL
            .into_iter()
            .filter(|m| frame.words && percent_of(*m) > 0)
            .map(|m| PercentMark {
                x: months_mid(&months, m),
                y: Fixed((level(m) - 4.0).max(24.0)),
                text: percent_of(m).to_string(),
            })
            .collect();
        let now = x(f64::from(input.today.ordinal0().min(364)) + 0.5);
        let year = input.days.first().map(|d| d.date.year().to_string()).unwrap_or_default();
        // The flag hangs to the left when there is no room for it on the right.
        let left = now + 70.0 > frame.width;
        let flag = if left {
            format!("M{} 0h-70l5 8-5 8h70z", Fixed(now))
        } else {
            format!("M{} 0h70l-5 8 5 8h-70z", Fixed(now))
        };
        Self {
            width: Fixed(frame.width),
            height: Fixed(frame.height),
            base: Fixed(frame.base),
            label_y: Fixed(frame.height - 4.0),
            months,
            strokes: strokes.into_string(),
            rain: rain.into_string(),
            dots,
            steps: steps.into_string(),
            percents,
            now_x: Fixed(now),
            now_text_x: Fixed(if left { now - 63.0 } else { now + 7.0 }),
            now_flag: if frame.words { flag } else { format!("M{} 0h8l-4 6z", Fixed(now - 4.0)) },
            late: input.today.month() >= 7,
            now_label: w.t2(
                "date-short",
                ("day", input.today.day().to_string()),
                ("month", month_short(month_of(input.today))),
            ),
            year_label: year,
            scale_label: w.t1("strip-scale", Measure::Depth.show(most, input.units)),
            describe: w.t("strip-describe"),
            has_days: !input.days.is_empty(),
        }
    }
}

fn months_mid(months: &[MonthMark], month: MonthOfYear) -> Fixed {
    months.get(month.index()).map_or(Fixed(0.0), |m| m.mid)
}

/// The top of the scale: the thirstiest day or month, to the next half millimetre.
fn scale(input: &StripInput<'_>) -> f64 {
    let days = input.days.iter().filter_map(|d| d.et0_mm);
    let months = input.normals.iter().map(|n| n.et0_mm_per_day);
    let most = days.chain(months).fold(1.0, f64::max);
    (most * 2.0).ceil() / 2.0
}

/// Days of a common year on which the months begin, counted from 0; the last is the year's end.
const MONTH_STARTS: [f64; 13] = [0.0, 31.0, 59.0, 90.0, 120.0, 151.0, 181.0, 212.0, 243.0, 273.0, 304.0, 334.0, 365.0];

/// The middles of the months with their normals, from the December before to the January after.
fn middles(normals: &Normals) -> [(f64, f64); 14] {
    std::array::from_fn(|at| {
        let (year, month) = match at {
            0 => (-365.0, 11),
            13 => (365.0, 0),
            at => (0.0, at - 1),
        };
        let middle = (MONTH_STARTS[month] + MONTH_STARTS[month + 1]) / 2.0;
        (year + middle, normals[month].et0_mm_per_day)
    })
}

/// The normal of a day: a straight line between the middles of the months.
fn normal_at(middles: &[(f64, f64); 14], day0: f64) -> f64 {
    let between = middles.windows(2).find(|pair| day0 <= pair[1].0);
    between.map_or(0.0, |pair| {
        let [(a, low), (b, high)] = [pair[0], pair[1]];
        low + (high - low) * (day0 - a) / (b - a)
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::climate::normals::MonthNormal;

    #[test]
    fn the_normal_runs_through_the_middles_of_the_months() {
        let mut normals = [MonthNormal { et0_mm_per_day: 1.0, rain_mm: None }; 12];
        normals[6].et0_mm_per_day = 5.0;
        let middles = middles(&normals);
        assert!((normal_at(&middles, 196.5) - 5.0).abs() < 1e-9, "16 July");
        assert!((normal_at(&middles, 0.0) - 1.0).abs() < 1e-9);
        assert!((normal_at(&middles, 364.5) - 1.0).abs() < 1e-9);
    }

    #[test]
    fn the_year_ends_where_it_begins() {
        let normals = std::array::from_fn(|m| MonthNormal { et0_mm_per_day: m as f64, rain_mm: None });
        let middles = middles(&normals);
        assert!(middles.is_sorted_by(|a, b| a.0 < b.0));
        assert!((normal_at(&middles, 0.0) - normal_at(&middles, 365.0)).abs() < 1e-9);
    }
}
