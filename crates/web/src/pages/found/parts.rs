//! The form of a panel: its parts hang on what the panel has.

use upland_core::controller::{Capability, Controller, Days, PercentScope, PercentStorage, ProgramLetter};
use upland_core::quantity::MonthOfYear;

use super::form;
use crate::pages::Choice;
use crate::pages::water_windows::{self, WindowRow};
use crate::show::{day_letter, day_long, month_short};
use crate::words::Words;

/// A station's line of the form.
#[derive(Debug, Clone)]
pub(crate) struct StationPart {
    pub(crate) number: u8,
    pub(crate) name: String,
    pub(crate) field: String,
    /// Letter and field of each program.
    pub(crate) programs: Vec<(String, String)>,
    /// Field and label of cycle and of soak, on a panel that has them.
    pub(crate) cycle: Vec<(String, String)>,
}

/// A program's part of the form.
#[derive(Debug, Clone)]
pub(crate) struct ProgramPart {
    pub(crate) letter: String,
    pub(crate) mode: String,
    /// Field, letter, name.
    pub(crate) days: Vec<(String, String, String)>,
    pub(crate) starts: Vec<(String, String)>,
    pub(crate) every: String,
    pub(crate) next: String,
    /// Days that the panel numbers.
    pub(crate) numbers: String,
    /// As `days`, for the weekdays on which it never waters; empty where the panel has none.
    pub(crate) never: Vec<(String, String, String)>,
    pub(crate) percent: String,
    pub(crate) has_percent: bool,
    /// Field and month of its percents by month; empty where the panel has one percent.
    pub(crate) months: Vec<(String, String)>,
}

/// The parts of the form that hang on the panel.
#[derive(Debug, Clone)]
pub(crate) struct PanelParts {
    pub(crate) weekdays: Vec<Choice>,
    pub(crate) stations: Vec<StationPart>,
    pub(crate) programs: Vec<ProgramPart>,
    pub(crate) modes: Vec<(&'static str, String)>,
    pub(crate) one_percent: bool,
    /// The months of the percent of all programs.
    pub(crate) months: Vec<(String, String)>,
    /// The number that a panel shows for today, where it numbers its days.
    pub(crate) numbers: Vec<Choice>,
    pub(crate) percent_step: u16,
    pub(crate) percent_ends: [u16; 2],
    pub(crate) sensors: Vec<(&'static str, String)>,
    pub(crate) switches: Vec<(&'static str, String)>,
    /// A row for each water window that the panel keeps.
    pub(crate) windows: Vec<WindowRow>,
}

/// The twelve percents of a panel that keeps them by month.
fn months(k: &Capability, letter: ProgramLetter) -> Vec<(String, String)> {
    let by_month = k.percent_storage == PercentStorage::ByMonth;
    let field = form::percent_field(k, letter);
    let months = MonthOfYear::ALL.into_iter().filter(|_| by_month);
    months.map(|m| (form::month_field(&field, m), month_short(m))).collect()
}

impl PanelParts {
    pub(crate) fn of(controller: &Controller) -> Self {
        let w = Words;
        let k = &controller.capability;
        let days: Vec<_> = Days::WEEK.into_iter().enumerate().collect();
        let mut weekdays = vec![Choice::new("", w.t("found-not-shown"))];
        weekdays.extend(days.iter().map(|(i, d)| Choice::new(i.to_string(), day_long(*d))));
        let one_percent = k.percent_scope == PercentScope::AllPrograms;
        let mut modes = vec![("weekdays", w.t("found-days"))];
        let mut numbers = vec![Choice::new("", w.t("found-not-shown"))];
        numbers.extend((1..=7).map(|n| Choice::new(n.to_string(), n.to_string())));
        modes.push(("numbers", w.t("found-mode-numbers")));
        if k.day_modes.odd_even {
            modes.extend([("odd", w.t("found-mode-odd")), ("even", w.t("found-mode-even"))]);
        }
        if k.day_modes.every_max > 0 {
            modes.push(("every", w.t("found-mode-every")));
        }
        Self {
            weekdays,
            stations: (1..=k.stations)
                .map(|n| StationPart {
                    number: n,
                    name: controller.station(n).map_or_else(|| w.t("found-unused"), |s| s.name.clone()),
                    field: format!("m{n}"),
                    programs: form::letters(k).map(|l| (l.get().to_string(), format!("p{n}{}", l.get()))).collect(),
                    cycle: if k.cycle_soak {
                        vec![(format!("cycle{n}"), w.t("found-cycle")), (format!("soak{n}"), w.t("found-soak"))]
                    } else {
                        Vec::new()
                    },
                })
                .collect(),
            programs: form::letters(k)
                .map(|letter| {
                    let l = letter.get();
                    ProgramPart {
                        letter: l.to_string(),
                        mode: format!("mode{l}"),
                        days: days.iter().map(|(i, d)| (format!("on{l}{i}"), day_letter(*d), day_long(*d))).collect(),
                        numbers: format!("numbers{l}"),
                        never: days
                            .iter()
                            .filter(|_| k.never_days)
                            .map(|(i, d)| (format!("never{l}{i}"), day_letter(*d), day_long(*d)))
                            .collect(),
                        starts: (0..k.starts)
                            .map(|i| (format!("start{l}{i}"), w.t1("week-start-n", (i + 1).to_string())))
                            .collect(),
                        every: format!("every{l}"),
                        next: format!("next{l}"),
                        percent: form::percent_field(k, letter),
                        has_percent: !one_percent,
                        months: if one_percent { Vec::new() } else { months(k, letter) },
                    }
                })
                .collect(),
            modes,
            one_percent,
            months: if one_percent { months(k, ProgramLetter::A) } else { Vec::new() },
            numbers,
            percent_step: k.percent_step.get(),
            percent_ends: [k.percent_min.get(), k.percent_max.get()],
            sensors: vec![
                ("none", w.t("found-sensor-none")),
                ("active", w.t("found-sensor-active")),
                ("bypassed", w.t("found-sensor-bypassed")),
            ],
            windows: water_windows::rows().into_iter().take(usize::from(k.water_windows)).collect(),
            switches: vec![("on", w.t("found-on")), ("held", w.t("found-held")), ("off", w.t("found-off"))],
        }
    }
}
