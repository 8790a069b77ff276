//! What is saved, and the setting that saves it.

use upland_core::controller::{Controller, DayMode, ProgramLetter};
use upland_core::quantity::MonthOfYear;
use upland_core::replay::{RainChange, WholeTotals};
use upland_core::schedule::Plan;
use upland_core::sensor::RainSetting;

use super::asked::Asked;
use super::seasons::Field;
use crate::show::{Measure, Units, dial_figure, mode_words, month_short, number, rain_setting};
use crate::words::Words;

/// The saving, and the setting that gives it.
#[derive(Debug, Clone)]
pub(crate) struct Saving {
    pub(crate) title: String,
    pub(crate) figure: String,
    pub(crate) unit: &'static str,
    pub(crate) say: String,
    pub(crate) more: String,
    pub(crate) short: String,
    /// Month, percent tried, percent now, whether they differ.
    pub(crate) months: Vec<Vec<(String, String, String, bool)>>,
    pub(crate) also: Vec<String>,
    /// Whether something is tried that can be applied.
    pub(crate) can_apply: bool,
    pub(crate) cannot: String,
}

/// What the setting that is tried saves against the present.
pub(super) fn saving(
    field: &Field<'_>,
    asked: &Asked,
    (changed, plan): (&Controller, &Plan),
    [tried, present]: [&WholeTotals; 2],
    own: Option<RainSetting>,
    units: Units,
) -> Saving {
    let w = Words;
    let saved = present.volume_m3.zip(tried.volume_m3).map(|(p, t)| p - t);
    let saved_mm = present.applied_mm - tried.applied_mm;
    let less = saved.unwrap_or(saved_mm) >= 0.0;
    let (figure, unit) = match saved {
        Some(m3) => (number(Measure::Volume.in_units(m3.abs(), units), 0), Measure::Volume.unit(units)),
        None => (Measure::Depth.figure(saved_mm.abs(), units), Measure::Depth.unit(units)),
    };
    let money = saved.zip(asked.price).map(|(m3, price)| number((m3 * price).abs(), 0));
    let share = if present.applied_mm > 0.0 { saved_mm.abs() / present.applied_mm * 100.0 } else { 0.0 };
    let amounts = |totals: &WholeTotals| {
        let volume = totals.volume_m3.map(|v| Measure::Volume.season(v, units));
        volume.unwrap_or_else(|| Measure::Depth.season(totals.applied_mm, units))
    };
    let letter = asked.letters.first().copied().unwrap_or(ProgramLetter::A);
    let fits_sensor = matches!(asked.what_if.rain, RainChange::Keep) || own.is_some();
    let nothing = asked.what_if.is_nothing();
    Saving {
        title: w.t(match (nothing, less) {
            (true, true) => "replay-plan-saves",
            (true, false) => "replay-plan-takes",
            (false, true) => "replay-tried-saves",
            (false, false) => "replay-tried-takes",
        }),
        figure,
        unit,
        say: match money {
            Some(money) => w.t2("replay-say-money", ("money", money), ("share", number(share, 0))),
            None => w.t1("replay-say-share", number(share, 0)),
        },
        more: w.with(
            "replay-say-more",
            &[
                ("tried", &amounts(tried)),
                ("present", &amounts(present)),
                ("adequacy", &number(tried.adequacy, 2)),
                ("limit", &number(asked.enough, 2)),
            ],
        ),
        short: if tried.adequacy < asked.enough {
            w.t1("replay-short", number(asked.enough, 2))
        } else {
            String::new()
        },
        months: months(field, plan, letter),
        also: also(field, changed, asked, own, letter, units),
        can_apply: !nothing && fits_sensor,
        cannot: if fits_sensor { String::new() } else { w.t("replay-no-sensor") },
    }
}

/// The twelve months as tried, and as they are.
fn months(field: &Field<'_>, tried: &Plan, letter: ProgramLetter) -> Vec<Vec<(String, String, String, bool)>> {
    let found = field.found.as_ref().filter(|f| f.on);
    let cells: Vec<(String, String, String, bool)> = MonthOfYear::ALL
        .into_iter()
        .map(|month| {
            let set = tried.dial(letter, month);
            let now = found.map_or_else(|| field.plan.dial(letter, month), |f| f.plan.dial(letter, month));
            (month_short(month), dial_figure(set), dial_figure(now), set != now)
        })
        .collect();
    cells.chunks(6).map(<[_]>::to_vec).collect()
}

/// Days and the rain sensor as tried, against now.
fn also(
    field: &Field<'_>,
    changed: &Controller,
    asked: &Asked,
    own: Option<RainSetting>,
    letter: ProgramLetter,
    units: Units,
) -> Vec<String> {
    let w = Words;
    let days = |c: &Controller| c.program(letter).map(|p| mode_words(p.schedule.days, p.schedule.never));
    let before = field.found.as_ref().map_or(&field.controller, |f| &f.controller);
    let none = |text: Option<String>| text.filter(|t| !t.is_empty()).unwrap_or_else(|| w.t("replay-no-days"));
    let (to, from) = (none(days(changed)), none(days(before)));
    let is_weekdays = changed.program(letter).is_some_and(|p| matches!(p.schedule.days, DayMode::Weekdays(_)));
    let mut out = Vec::new();
    if to == from || !is_weekdays {
        out.push(w.t1("replay-days-same", to));
    } else {
        out.push(w.t2("replay-days-new", ("days", to), ("now", from)));
    }
    if let Some((station, run)) = asked.what_if.minutes {
        let planned = field.plan.station(station).map_or(0.0, |s| s.panel.minutes());
        out.push(w.with(
            "replay-minutes-new",
            &[("station", &station.to_string()), ("to", &number(run.minutes(), 1)), ("from", &number(planned, 1))],
        ));
    }
    let setting = |s: RainSetting| {
        w.t2("replay-rain-is", ("setting", rain_setting(s.threshold_mm, units)), ("days", s.delay_days.to_string()))
    };
    let now = own.map_or_else(|| w.t("replay-rain-none"), setting);
    out.push(match asked.what_if.rain {
        RainChange::Keep => w.t1("replay-rain-same", now),
        RainChange::Without => w.t2("replay-rain-new", ("setting", w.t("replay-rain-none")), ("now", now)),
        RainChange::Set(set) => w.t2("replay-rain-new", ("setting", setting(set)), ("now", now)),
    });
    out
}
