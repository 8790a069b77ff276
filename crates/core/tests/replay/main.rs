//! A season run again: doses against dated runs, strategies worked by hand, and what holds for any
//! weather.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod best;
mod builders;
mod doses;
mod properties;
mod recent;
mod short_term;
mod strategies;
mod ways;
