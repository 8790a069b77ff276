//! The seasonal water budget: from normals and stations to minutes and twelve percents.
//!
//! [`year_budget`] works out a whole controller. Its result carries every intermediate, so that
//! a page can show the working of each figure without computing anything again; [`what_if`] asks
//! whether a guess would change the answer.

mod effective_rain;
mod month;
mod percent;
mod station;
mod what_if;
mod year;

pub use effective_rain::effective_rain;
pub use month::{Dial, FewerDays, MonthBudget, StationDemand, StationMonth};
pub use percent::{BudgetRow, PercentRule, monthly_percents};
pub use station::{LEAST_RUN_MINUTES, StationBase};
pub use what_if::{StationGuess, Uncertainty, WhatIf, base_minutes_if, percent_if, uncertainty};
pub use year::{BudgetError, Group, YearBudget, year_budget};
