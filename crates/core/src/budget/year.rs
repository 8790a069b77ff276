use thiserror::Error;

use super::month::{MonthBudget, MonthInput, StationDemand, station_demand};
use super::station::{BaseDemand, StationBase, StationNeed};
use crate::climate::normals::Normals;
use crate::controller::{BaseMonth, Controller, PercentScope, Program, ProgramLetter, Station};
use crate::quantity::MonthOfYear;

/// Programs that share a percent, through the year.
#[derive(Debug, Clone, PartialEq)]
pub struct Group {
    /// The letters of the programs in it; the first holds the group's month plans.
    pub letters: Vec<ProgramLetter>,
    /// The month in which base minutes run at 100 %.
    pub base_month: MonthOfYear,
    /// The month of most demand.
    pub peak_month: MonthOfYear,
    /// Base runs, by station number.
    pub stations: Vec<StationBase>,
    /// The twelve months.
    pub months: Vec<MonthBudget>,
}

impl Group {
    /// A month of the group.
    #[must_use]
    pub fn month(&self, month: MonthOfYear) -> &MonthBudget {
        &self.months[month.index()]
    }
}

/// A controller's whole year.
#[derive(Debug, Clone, PartialEq)]
pub struct YearBudget {
    /// One group, or one a program, as the controller's percent governs.
    pub groups: Vec<Group>,
}

impl YearBudget {
    /// The group that a program belongs to.
    #[must_use]
    pub fn group(&self, letter: ProgramLetter) -> Option<&Group> {
        self.groups.iter().find(|g| g.letters.contains(&letter))
    }
}

/// Why there is no budget yet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum BudgetError {
    /// No stations were entered.
    #[error("the controller has no stations")]
    NoStations,
    /// Rain covers everything in every month, or there is no reference ET.
    #[error("program {} needs no water in any month", .0.get())]
    NoDemand(ProgramLetter),
    /// The stated base month needs no water, so nothing can be a share of it.
    #[error("program {} needs no water in its base month {}", .0.get(), .1.number())]
    NoDemandInBaseMonth(ProgramLetter, MonthOfYear),
}

/// Works out a controller's year.
///
/// Each group's base minutes give the demand of the base month at 100 %; each month's percent is
/// its demand as a share of that (see [`MonthBudget`]). The method is our own; the parts name
/// their sources. Waterings a week follow from soil and plant in the peak month, within the
/// days a week on which the controller may water, unless the program states them.
///
/// # Errors
/// [`BudgetError`] when there is nothing to take a share of.
pub fn year_budget(controller: &Controller, normals: &Normals) -> Result<YearBudget, BudgetError> {
    if controller.stations.is_empty() {
        return Err(BudgetError::NoStations);
    }
    let used: Vec<&Program> =
        controller.programs.iter().filter(|p| controller.stations.iter().any(|s| s.program == p.letter)).collect();
    let groups = match controller.capability.percent_scope {
        PercentScope::AllPrograms => vec![group(controller, &used, normals)?],
        PercentScope::EachProgram => used.iter().map(|p| group(controller, &[p], normals)).collect::<Result<_, _>>()?,
    };
    Ok(YearBudget { groups })
}

fn group(controller: &Controller, programs: &[&Program], normals: &Normals) -> Result<Group, BudgetError> {
    let Some(first) = programs.first() else { return Err(BudgetError::NoStations) };
    let members: Vec<(&Station, &Program, StationNeed)> = controller
        .stations
        .iter()
        .filter_map(|s| programs.iter().find(|p| p.letter == s.program).map(|p| (s, *p, StationNeed::of(s))))
        .collect();
    let demands: Vec<Vec<StationDemand>> = MonthOfYear::ALL
        .iter()
        .map(|&month| {
            members
                .iter()
                .map(|(s, p, need)| station_demand(need, month, &normals[month.index()], p.count_rain && !s.roofed))
                .collect()
        })
        .collect();
    let peak_month = peak(&demands).ok_or(BudgetError::NoDemand(first.letter))?;
    let base_month = match controller.base_month {
        BaseMonth::Peak => peak_month,
        BaseMonth::Month(month) if demands[month.index()].iter().all(|d| d.demand_mm <= 0.0) => {
            return Err(BudgetError::NoDemandInBaseMonth(first.letter, month));
        }
        BaseMonth::Month(month) => month,
    };
    let etl_peak = |need: &StationNeed| normals[peak_month.index()].et0_mm_per_day * need.kl;
    let stations: Vec<StationBase> = members
        .iter()
        .zip(&demands[base_month.index()])
        .map(|((station, program, need), demand)| {
            let base = BaseDemand {
                etl_peak_mm_per_day: etl_peak(need),
                demand_mm_per_day: demand.demand_mm / base_month.mean_days(),
                waterings: waterings(controller, program, &members, &etl_peak),
            };
            StationBase::fit(station, need, &controller.capability, base)
        })
        .collect();
    let months = MonthOfYear::ALL
        .iter()
        .map(|&month| {
            let plan = &first.months[month.index()];
            MonthInput {
                month,
                plan,
                capability: &controller.capability,
                bases: &stations,
                demands: &demands[month.index()],
            }
            .budget()
        })
        .collect();
    Ok(Group { letters: programs.iter().map(|p| p.letter).collect(), base_month, peak_month, stations, months })
}

/// The month with the most demand a day; the earlier one of equals.
fn peak(demands: &[Vec<StationDemand>]) -> Option<MonthOfYear> {
    let a_day = |m: &MonthOfYear| demands[m.index()].iter().map(|d| d.demand_mm).sum::<f64>() / m.mean_days();
    MonthOfYear::ALL.into_iter().rev().max_by(|a, b| a_day(a).total_cmp(&a_day(b))).filter(|m| a_day(m) > 0.0)
}

/// Waterings a week of a program: stated, or what its thirstiest station's soil asks for,
/// `ceil(7 / interval)`, within the allowed days.
fn waterings(
    controller: &Controller,
    program: &Program,
    members: &[(&Station, &Program, StationNeed)],
    etl_peak: &impl Fn(&StationNeed) -> f64,
) -> u8 {
    let allowed = controller.capability.watering_days.max(1);
    if let Some(stated) = program.waterings_per_week {
        return stated.clamp(1, allowed);
    }
    let asked = members
        .iter()
        .filter(|(s, ..)| s.program == program.letter)
        .map(|(.., need)| (7.0 / need.interval_days(etl_peak(need))).ceil())
        .fold(1.0, f64::max);
    // 1 to 7 by the interval's own limits.
    (asked as u8).clamp(1, allowed)
}
