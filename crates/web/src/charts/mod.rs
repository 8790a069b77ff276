//! Drawings by the server: coordinates out of figures; the templates only write them down.

mod can_map;
mod day_arc;
mod hold_plate;
mod ledger;
mod mini_week;
mod path;
mod record_brush;
mod season_plate;
mod series_plate;
mod soil_gauge;
mod strategy_plot;
mod strip;
mod time_axis;
mod tiny;
mod two_weeks;
mod volumes;
mod weather_plate;
mod week_plate;
mod year_plate;

pub(crate) use can_map::CanMap;
pub(crate) use day_arc::{DayArc, sun_of};
pub(crate) use hold_plate::HoldPlate;
pub(crate) use ledger::{Ledger, LedgerValue};
pub(crate) use mini_week::MiniWeek;
pub(crate) use record_brush::RecordBrush;
pub(crate) use season_plate::{SeasonPlate, SeasonPlateInput};
pub(crate) use series_plate::SeriesPlate;
pub(crate) use soil_gauge::SoilGauge;
pub(crate) use strategy_plot::StrategyPlot;
pub(crate) use strip::{Strip, StripInput};
pub(crate) use tiny::Tiny;
pub(crate) use two_weeks::{DAYS as TWO_WEEKS, TwoWeeks};
pub(crate) use volumes::{day_volumes, volume_text, volume_unit, week_total};
pub(crate) use weather_plate::{PlateFlag, WeatherPlate, WeatherPlateInput};
pub(crate) use week_plate::{WeekPlate, WeekPlateInput, severity_word};
pub(crate) use year_plate::{InHand, YearPlate, YearPlateInput};
