//! A season run again, day by day, under one way of watering or another.
//!
//! [`Season`] is the weather, [`Ground`] the stations with their root zones, a [`Strategy`] decides
//! what is watered on a day, and [`replay`] keeps the [daily balance](crate::balance) of the average
//! and of the driest quarter of each station. [`strategies`] makes the usual ones of a controller.
//!
//! Assumptions, ours unless a source is named: rain has no runoff of its own; a sensor that holds is
//! judged at the first start of a program; what is set for a while on the controller is left out, since
//! it belongs to its own dates; "every N days" counts back before its next date as well as on.

mod best;
mod by_hand;
mod deficit;
mod dose;
mod engine;
mod frost;
mod ground;
mod hold;
mod judged;
mod recent;
mod results;
mod scheduled;
mod season;
mod set;
mod state;
mod strategy;
mod ways;
mod what_if;

pub use best::{Best, BestInput, Progress, Search, best_setting};
pub use by_hand::{ByHand, HandRun, used_without_water};
pub use deficit::Deficit;
pub use dose::{Dose, DoseBook, ProgramPercents};
pub use engine::{Keep, replay};
pub use frost::frost_nights;
pub use ground::{Ground, Part, ReplayStation};
pub use hold::Hold;
pub use judged::Judged;
pub use recent::{Recent, SoilNow, SoilVerdict};
pub use results::{Daily, PartTotals, Replayed, StationReplay, WholeTotals};
pub use scheduled::{DueProgram, PercentBy, Scheduled};
pub use season::{Season, SeasonDay, SeasonError};
pub use set::{Candidate, Found, Kind, REFILL_SHARE, SOIL_SHARE_OF_RAW, peak_et0, strategies};
pub use state::{Day, Standing, State};
pub use strategy::{Nothing, Strategy};
pub use ways::{Way, WayWeek};
pub use what_if::{RainChange, WhatIf};
