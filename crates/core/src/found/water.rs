//! Water as found against what the plants need.

use chrono::{Datelike, TimeZone};

use super::findings::panel_week;
use super::{Panel, Switch};
use crate::budget::YearBudget;
use crate::controller::Controller;
use crate::quantity::MonthOfYear;
use crate::schedule::{Expansion, Situation, week_work};

/// Water of a station in a week: as found, and what the plants need now.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FoundWater {
    /// Its number.
    pub number: u8,
    /// Net depth as found, mm a week.
    pub found_mm: f64,
    /// Net depth needed, mm a week, where it is known.
    pub need_mm: Option<f64>,
    /// Water let out as found, m³ a week, where the area is known.
    pub found_m3: Option<f64>,
    /// Water to let out for the need, m³ a week.
    pub need_m3: Option<f64>,
}

/// Water in the week after a panel was seen, against the month's need.
#[must_use]
pub fn panel_water<Tz: TimeZone>(
    panel: &Panel,
    known: &Controller,
    situation: &Situation<'_, Tz>,
    budget: Option<&YearBudget>,
) -> Vec<FoundWater> {
    let controller = panel.as_controller(known);
    let (plan, week) = panel_week(panel, &controller, situation);
    let week = if panel.switch == Switch::Off { Expansion::default() } else { week };
    let month = MonthOfYear::ALL[panel.seen_at.month0() as usize];
    week_work(&plan, &week)
        .stations
        .iter()
        .map(|s| {
            let need = known
                .station(s.number)
                .and_then(|own| budget.and_then(|b| b.group(own.program)))
                .and_then(|g| g.month(month).stations.iter().find(|m| m.number == s.number))
                .map(|m| m.demand.demand_mm / month.mean_days() * 7.0);
            let planned = plan.station(s.number);
            FoundWater {
                number: s.number,
                found_mm: s.net_mm,
                need_mm: need,
                found_m3: s.volume_m3,
                need_m3: need.zip(planned).and_then(|(mm, p)| p.area_m2.map(|a| mm * p.multiplier * a / 1000.0)),
            }
        })
        .collect()
}
