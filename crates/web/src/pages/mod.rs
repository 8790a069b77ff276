//! View models: text ready to show, units included.

pub(crate) mod account;
pub(crate) mod ahead;
pub(crate) mod by_hand;
pub(crate) mod clock_change;
pub(crate) mod company;
pub(crate) mod controller_error;
pub(crate) mod controller_form;
pub(crate) mod days_form;
pub(crate) mod dial;
pub(crate) mod differences;
pub(crate) mod door_card;
pub(crate) mod due;
pub(crate) mod effect;
pub(crate) mod feel;
pub(crate) mod field;
pub(crate) mod field_form;
pub(crate) mod finder;
pub(crate) mod findings;
pub(crate) mod first_steps;
pub(crate) mod found;
pub(crate) mod frame;
pub(crate) mod job_list;
pub(crate) mod last_weeks;
pub(crate) mod later;
pub(crate) mod log;
pub(crate) mod measure;
pub(crate) mod normals;
pub(crate) mod place_form;
pub(crate) mod places;
pub(crate) mod proposals;
pub(crate) mod provenance;
pub(crate) mod reference;
pub(crate) mod replay;
pub(crate) mod round;
pub(crate) mod rules_form;
pub(crate) mod sensors;
pub(crate) mod series;
pub(crate) mod shell;
pub(crate) mod sign_in;
pub(crate) mod site;
pub(crate) mod soil_view;
mod soon;
pub(crate) mod spine;
pub(crate) mod stations;
pub(crate) mod temporary;
pub(crate) mod today;
pub(crate) mod waiting;
pub(crate) mod water_windows;
pub(crate) mod ways;
pub(crate) mod weather;
pub(crate) mod weather_file;
pub(crate) mod week;
pub(crate) mod why;
pub(crate) mod working;
pub(crate) mod year;

/// A choice of a select.
#[derive(Debug, Clone)]
pub(crate) struct Choice {
    pub(crate) value: String,
    pub(crate) label: String,
}

impl Choice {
    pub(crate) fn new(value: impl Into<String>, label: impl Into<String>) -> Self {
        Self { value: value.into(), label: label.into() }
    }
}
