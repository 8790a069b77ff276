//! Schedules against an independent recurrence library, weeks worked by hand, and properties.

#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod ahead;
mod builders;
mod by_hand;
mod calendars;
mod dial_in;
mod exhaustive;
mod findings;
mod in_force;
mod panels;
mod properties;
mod proposals;
pub(crate) mod rounds;
mod rounds_sensor;
mod seasons;
mod why;
mod windows;
