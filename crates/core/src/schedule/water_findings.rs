//! What is wrong with the water itself: rain counted twice, percents and runs cut at the panel's ends,
//! waterings deeper than the soil holds.

use super::finding::{Finding, Problem, Severity, Stake};
use super::plan::Plan;
use crate::budget::{Group, StationBase, YearBudget};
use crate::controller::{Controller, MonthDial, ProgramLetter};

/// A watering may go this share over what plants use before they feel it without being a finding:
/// neither is known more finely.
const GRACE: f64 = 1.1;

/// The findings of a year's budget.
pub(super) fn water_findings(controller: &Controller, budget: &YearBudget, plan: &Plan, out: &mut Vec<Finding>) {
    for group in &budget.groups {
        out.extend(percent_held(controller, group));
        for letter in &group.letters {
            out.extend(rain_twice(controller, *letter));
        }
        // Whoever starts a run by hand gives what is missing, neither more nor less.
        let on_panel = |b: &&StationBase| !controller.is_by_hand(b.program);
        for base in group.stations.iter().filter(on_panel) {
            let mut station = |problem, severity, stake| {
                let f = Finding::new(problem, severity, Some(base.program));
                out.push(Finding { station: Some(base.number), stake, ..f });
            };
            let highest = plan.highest(base.program).map_or(0.0, |(_, p)| f64::from(p.get()) / 100.0);
            let longest = controller.capability.run_max;
            // A dialled minute stays under the longest run; what it is cut to is asked of the exact ones.
            let base_minutes = if base.chosen { base.run.minutes() } else { base.exact_minutes };
            let wanted = base_minutes * highest.max(1.0);
            if wanted > longest.minutes() + controller.capability.run_step.minutes() {
                let missing = (wanted - longest.minutes()) / 60.0 * base.rate.0 / base.multiplier;
                station(
                    Problem::RunHeld { wanted_minutes: wanted, longest },
                    Severity::Fault,
                    Stake::DepthMm(missing * base.waterings),
                );
            }
            let run = controller.capability.run(base_minutes * highest);
            let net_mm = base.net_mm(run);
            if net_mm > base.taw_mm {
                let beyond = Problem::DeeperThanSoil { net_mm, taw_mm: base.taw_mm };
                station(beyond, Severity::Fault, Stake::DepthMm((net_mm - base.taw_mm) * base.waterings));
            } else if net_mm > GRACE * base.raw_mm {
                let beyond = Problem::DeeperThanReady { net_mm, raw_mm: base.raw_mm };
                station(beyond, Severity::Note, Stake::None);
            }
        }
    }
}

/// A month that calls for more than the panel's highest percent: the one that lacks most.
fn percent_held(controller: &Controller, group: &Group) -> Option<Finding> {
    let most = f64::from(controller.capability.percent_max.get());
    let step = f64::from(controller.capability.percent_step.get());
    let letter = *group.letters.first()?;
    if !controller.percent_is_dialled(letter) {
        return None;
    }
    let computed = |m: &&crate::budget::MonthBudget| {
        controller.program(letter).is_none_or(|p| p.months[m.month.index()].dial == MonthDial::Computed)
    };
    let cut = group.months.iter().filter(computed).filter(|m| m.percent_exact > most + step / 2.0);
    let worst = cut.max_by(|a, b| a.percent_exact.total_cmp(&b.percent_exact))?;
    let problem = Problem::PercentHeld {
        month: worst.month,
        wanted: worst.percent_exact,
        highest: controller.capability.percent_max,
    };
    let mut f = Finding::new(problem, Severity::Fault, Some(letter));
    f.stake = Stake::DepthMm(-worst.difference_mm() / worst.month.mean_days() * 7.0);
    Some(f)
}

/// A program that counts rain by month while a sensor counts it too.
fn rain_twice(controller: &Controller, letter: ProgramLetter) -> Option<Finding> {
    let counts = controller.program(letter).is_some_and(|p| p.count_rain);
    (counts && controller.rain_is_sensed(letter))
        .then(|| Finding::new(Problem::RainCountedTwice, Severity::Fault, Some(letter)))
}
