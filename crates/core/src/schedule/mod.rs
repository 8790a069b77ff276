//! From what is set on a controller to what it does: runs, findings, repairs and a first proposal.
//!
//! [`Plan`] holds the figures that stand on the panel, [`expand`] the dated runs they give,
//! [`check`] what is wrong with them, each finding with its [`Repair`]; [`propose`] makes a first
//! schedule, and [`why_dry`] answers why a station got no water on a day.

mod candidates;
mod check;
mod finding;
mod findings;
mod follow;
mod forbidden;
mod helps;
mod longest_start;
mod plan;
mod propose;
mod repair;
mod repairs;
mod rules_ahead;
mod runs;
mod situation;
mod stood;
mod valve_line;
mod water_findings;
mod why;
mod wish;
mod work;

pub use candidates::{Candidate, candidates, costed};
pub use check::{check, repair_all};
pub use finding::{Code, Finding, Mark, Problem, Severity, Stake};
pub use findings::detect;
pub use follow::follow_soil;
pub(crate) use forbidden::first_forbidden;
pub use helps::{Help, Helped, helps};
pub use plan::{Level, Plan, PlanStation};
pub use propose::{Grouping, Proposal, Shortfall, propose, propose_as};
pub use repair::Repair;
pub use rules_ahead::{RuleChange, rule_changes};
pub use runs::{Began, Expansion, Run, expand, resolve};
pub use situation::Situation;
pub use stood::{Stood, on_panel};
pub(crate) use valve_line::{Due, Opening, ValveLine};
pub use why::{Known, Obstacle, Unknown, Why, why_dry};
pub use wish::{DayWish, Pinned, TimeWish, Wish};
pub use work::{ProgramWeek, StationWeek, WeekWork, week_work};
