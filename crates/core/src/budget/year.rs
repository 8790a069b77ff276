use thiserror::Error;

use super::month::{MonthBudget, MonthInput, Rain, StationDemand, station_demand};
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
    /// Waterings a week of the program that waters most often, before a month has its own.
    #[must_use]
    pub fn waterings(&self) -> f64 {
        self.stations.iter().map(|s| s.waterings).fold(0.0, f64::max)
    }

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

    /// What a station of a program needs in a mean week of a month, net mm; `None` where it is not in the program's
    /// group.
    #[must_use]
    pub fn weekly_need_mm(&self, letter: ProgramLetter, number: u8, month: MonthOfYear) -> Option<f64> {
        let stations = &self.group(letter)?.month(month).stations;
        stations.iter().find(|s| s.number == number).map(|s| s.demand.demand_mm / month.mean_days() * 7.0)
    }
}

/// Why there is no budget yet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum BudgetError {
    /// No stations were entered.
    #[error("the controller has no stations")]
    NoStations,
}

/// Works out a controller's year.
///
/// Each group's base minutes give ET_L of a week of the base month at 100 %; each month's percent is
/// its demand as a share of that (see [`MonthBudget`]). The method is our own; the parts name their
/// sources. Waterings a week are those that the program states, else those of the days that are set,
/// else they follow from soil and plant in the peak month, within the days a week on which the
/// controller may water. A program that needs no water is off all year and spoils no other.
///
/// # Errors
/// [`BudgetError`] when there is nothing to work out.
pub fn year_budget(controller: &Controller, normals: &Normals) -> Result<YearBudget, BudgetError> {
    if controller.stations.is_empty() {
        return Err(BudgetError::NoStations);
    }
    let used: Vec<&Program> = controller.programs_with_stations().collect();
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
                .map(|(s, p, need)| station_demand(need, month, &normals[month.index()], rain_of(s, p)))
                .collect()
        })
        .collect();
    let peak_month = peak(normals, &members);
    let base_month = match controller.base_month {
        // A month without any ET cannot be what the others are a share of.
        BaseMonth::Month(month) if normals[month.index()].et0_mm_per_day > 0.0 => month,
        BaseMonth::Month(_) | BaseMonth::Peak => peak_month,
    };
    let etl = |need: &StationNeed, month: MonthOfYear| {
        normals[month.index()].et0_mm_per_day.max(0.0) * need.kl[month.index()]
    };
    let stations: Vec<StationBase> = members
        .iter()
        .map(|(station, program, need)| {
            let by_sensor = controller.et_reference_mm_per_day(program.letter);
            let base = BaseDemand {
                month: base_month,
                etl_peak_mm_per_day: etl(need, peak_month),
                base_mm_per_day: by_sensor
                    .map_or_else(|| etl(need, base_month), |reference| reference * need.kl[base_month.index()]),
                waterings: waterings(controller, program, &members, &|need| etl(need, peak_month)),
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

const fn rain_of(station: &Station, program: &Program) -> Rain {
    match (station.roofed, program.count_rain) {
        (true, _) => Rain::NeverFalls,
        (false, true) => Rain::Counts,
        (false, false) => Rain::Falls,
    }
}

/// The month in which a group's plants use most a day; the earlier one of equals.
fn peak(normals: &Normals, members: &[(&Station, &Program, StationNeed)]) -> MonthOfYear {
    let a_day = |m: &MonthOfYear| -> f64 {
        let kl: f64 = members.iter().map(|(.., need)| need.kl[m.index()]).sum();
        normals[m.index()].et0_mm_per_day * kl
    };
    MonthOfYear::ALL.into_iter().rev().max_by(|a, b| a_day(a).total_cmp(&a_day(b))).unwrap_or(MonthOfYear::ALL[0])
}

/// Waterings a week of a program: one where a person gives them, those it states, else those of its days, else what
/// the soil of its thirstiest station asks for, within the allowed days. Plants that can wait longer
/// than a week do so where the panel counts that many days.
fn waterings(
    controller: &Controller,
    program: &Program,
    members: &[(&Station, &Program, StationNeed)],
    etl_peak: &impl Fn(&StationNeed) -> f64,
) -> f64 {
    let capability = &controller.capability;
    let allowed = capability.watering_days.max(1);
    if program.by_hand {
        return 1.0;
    }
    if let Some(stated) = program.waterings_per_week {
        return f64::from(stated.clamp(1, allowed));
    }
    let schedule = &program.schedule;
    let idle = schedule.is_idle();
    if !idle {
        return schedule.waterings_a_week();
    }
    let own = members.iter().filter(|(s, ..)| s.program == program.letter);
    let interval = own.map(|(.., need)| need.interval_days(etl_peak(need))).fold(f64::INFINITY, f64::min);
    let counted = f64::from(capability.day_modes.every_max);
    // Days that go by a count fall on every weekday, so all of them have to be open.
    if interval > 7.0 && counted > 7.0 && allowed == 7 {
        return 7.0 / interval.min(counted);
    }
    (7.0 / interval).ceil().clamp(1.0, f64::from(allowed))
}
