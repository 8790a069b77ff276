//! Stations side by side: what is known of each, and what follows from it.

use upland_core::budget::{StationBase, YearBudget};
use upland_core::controller::{Controller, Station};
use upland_core::quantity::MonthOfYear;

use super::station::{cut, station_provenance};
use crate::charts::{MonthBars, Strip};
use crate::pages::shell::Shell;
use crate::pages::spine::Spine;
use crate::show::{Measure, Units, minutes, number, times};
use crate::words::Words;

/// Stations that stand beside each other at most.
pub(crate) const MOST: usize = 6;

/// The page.
#[derive(askama::Template)]
#[template(path = "station_compare.html")]
pub(crate) struct CompareTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) path: String,
    pub(crate) back: String,
    pub(crate) pick: String,
    /// Number, name, and whether it is compared.
    pub(crate) choices: Vec<(u8, String, bool)>,
    pub(crate) view: Option<CompareView>,
}

/// Up to six stations.
#[derive(Debug, Clone)]
pub(crate) struct CompareView {
    pub(crate) heads: Vec<CompareHead>,
    pub(crate) inputs: Vec<CompareRow>,
    pub(crate) results: Vec<CompareRow>,
}

#[derive(Debug, Clone)]
pub(crate) struct CompareHead {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) program: String,
    /// Minutes at 100 %.
    pub(crate) minutes: String,
    /// Somebody chose them.
    pub(crate) is_chosen: bool,
    /// What it needs by month, on one scale.
    pub(crate) need: MonthBars,
}

#[derive(Debug, Clone)]
pub(crate) struct CompareRow {
    pub(crate) name: String,
    pub(crate) cells: Vec<CompareCell>,
    /// Not all of them read alike.
    pub(crate) differs: bool,
}

#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct CompareCell {
    pub(crate) value: String,
    pub(crate) note: String,
    pub(crate) mark: &'static str,
}

/// A station with its figures.
type Known<'a> = (&'a Station, &'a StationBase);

impl CompareView {
    /// Nothing where none of the numbers is a station with figures.
    pub(crate) fn of(numbers: &[u8], controller: &Controller, budget: &YearBudget, units: Units) -> Option<Self> {
        let stations: Vec<Known<'_>> = numbers
            .iter()
            .filter_map(|n| {
                let station = controller.station(*n)?;
                let base = budget.group(station.program)?.stations.iter().find(|b| b.number == *n)?;
                Some((station, base))
            })
            .take(MOST)
            .collect();
        if stations.is_empty() {
            return None;
        }
        let need = |(station, base): &Known<'_>| {
            MonthOfYear::ALL.map(|m| budget.weekly_need_mm(station.program, base.number, m).unwrap_or(0.0))
        };
        let most = stations.iter().flat_map(need).fold(0.0, f64::max);
        Some(Self {
            heads: stations
                .iter()
                .map(|known| CompareHead {
                    number: known.0.number,
                    name: known.0.name.clone(),
                    program: Words.t1("found-program", known.0.program.get().to_string()),
                    minutes: minutes(known.1.run),
                    is_chosen: known.1.chosen,
                    need: MonthBars::draw(&need(known), most),
                })
                .collect(),
            inputs: inputs(&stations, units),
            results: results(&stations, controller, units),
        })
    }
}

/// The same rows as in the working of each.
fn inputs(stations: &[Known<'_>], units: Units) -> Vec<CompareRow> {
    let all: Vec<_> = stations.iter().map(|(station, base)| station_provenance(station, base, units)).collect();
    let Some(first) = all.first() else { return Vec::new() };
    let row = |index: usize, name: &str| {
        let cells = all.iter().filter_map(|own| own.get(index));
        let cells = cells.map(|p| CompareCell { value: p.value.clone(), note: p.note.clone(), mark: p.mark });
        CompareRow::of(name.to_owned(), cells.collect())
    };
    first.iter().enumerate().map(|(index, p)| row(index, &p.name)).collect()
}

fn results(stations: &[Known<'_>], controller: &Controller, units: Units) -> Vec<CompareRow> {
    let w = Words;
    let row = |key: &str, cell: &dyn Fn(&Known<'_>) -> (String, String)| {
        let cells = stations.iter().map(|known| {
            let (value, note) = cell(known);
            CompareCell { value, note, mark: "" }
        });
        CompareRow::of(w.t(key), cells.collect())
    };
    let plain = |value: String| (value, String::new());
    let depth = |mm: f64| Measure::Depth.show(mm, units);
    vec![
        row("compare-peak", &|(_, b)| plain(w.t1("a-day", Measure::DepthADay.show(b.etl_peak_mm_per_day, units)))),
        row("compare-interval", &|(_, b)| plain(w.t1("work-days", number(b.interval_days, 0)))),
        row("compare-times", &|(_, b)| plain(times(b.waterings))),
        row("compare-net", &|(_, b)| (depth(b.net_depth_mm), over_raw(b, units))),
        row("compare-week", &|(_, b)| plain(depth(b.week_mm()))),
        row("compare-multiplier", &|(_, b)| plain(format!("× {}", number(b.multiplier, 2)))),
        row("compare-cycles", &|(s, b)| plain(cut_words(s, b, controller))),
    ]
}

/// A depth beyond what the roots hold is lost.
fn over_raw(base: &StationBase, units: Units) -> String {
    if base.net_depth_mm <= base.raw_mm {
        return String::new();
    }
    Words.t1("compare-over-raw", Measure::Depth.show(base.net_depth_mm - base.raw_mm, units))
}

/// `3 × at most 9 min, 40 min between`, or one run.
fn cut_words(station: &Station, base: &StationBase, controller: &Controller) -> String {
    let w = Words;
    let Some((setting, count)) = cut(station, base, controller) else { return w.t("hand-one-run") };
    let [cycle, soak] = [setting.cycle, setting.soak].map(minutes);
    w.with("compare-cut", &[("count", &count.to_string()), ("cycle", &cycle), ("soak", &soak)])
}

impl CompareRow {
    fn of(name: String, cells: Vec<CompareCell>) -> Self {
        let differs = cells.windows(2).any(|pair| pair[0] != pair[1]);
        Self { name, cells, differs }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::budget::year_budget;
    use upland_core::climate::normals::MonthNormal;
    use upland_core::controller::Preset;
    use upland_core::landscape::{Plant, SprinklerType};

    #[test]
    fn only_what_differs_is_marked() {
        let mut c = Controller::new("Shed".into(), Preset::Fine.capability());
        c.stations = vec![
            Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Rotor),
            Station::plain(2, "Bank", Plant::CoolTurf, SprinklerType::Spray),
        ];
        c.normalise_programs();
        let normals = [MonthNormal { et0_mm_per_day: 4.0, rain_mm: None }; 12];
        let budget = year_budget(&c, &normals).unwrap();
        let view = CompareView::of(&[2, 1, 9], &c, &budget, Units::Metric).unwrap();
        assert_eq!(view.heads.iter().map(|h| h.number).collect::<Vec<_>>(), [2, 1], "in the order asked for");
        let differs = |name: &str| view.inputs.iter().chain(&view.results).find(|r| r.name == name).unwrap().differs;
        assert!(differs("Rate") && differs("For uneven cover"));
        assert!(!differs("Coefficient") && !differs("Need in the peak month"));
        // Common practice: spray 31.8 mm/h, rotors 14.7.
        assert_eq!(view.inputs[0].cells[0].value, "31.8\u{a0}mm/h");
        assert!(CompareView::of(&[], &c, &budget, Units::Us).is_none());
        assert!(CompareView::of(&[7], &c, &budget, Units::Us).is_none());
    }
}
