//! The field table of a controller: what is entered of it beside its panel and its lists.

use super::capability::Preset;
use super::model::{BaseMonth, Controller};
use crate::field::{Field, Fields, Value};
use crate::quantity::{MonthOfYear, RunTime, limit, range};

/// A line of the table.
type F = Field<Controller>;

impl Fields for Controller {
    const NOUN: &'static str = "controller";

    const FIELDS: &'static [Field<Self>] = &[
        F::text(
            "name",
            1,
            limit::NAME,
            |c| c.name.clone().into(),
            |c, v| v.text().map(|name| c.name = name.to_owned()),
        ),
        // None for the peak.
        F::whole(
            "base_month",
            range::MONTH,
            |c| match c.base_month {
                BaseMonth::Peak => Value::Absent,
                BaseMonth::Month(month) => month.number().into(),
            },
            |c, v| {
                let number: Option<u8> = v.maybe(Value::whole)?;
                c.base_month = match number {
                    None => BaseMonth::Peak,
                    Some(number) => BaseMonth::Month(MonthOfYear::new(number)?),
                };
                Some(())
            },
        )
        .optional(),
        F::whole(
            "station_delay_s",
            range::STATION_DELAY_SECONDS,
            |c| c.station_delay.seconds().into(),
            |c, v| v.whole().map(|seconds| c.station_delay = RunTime::from_seconds(seconds)),
        )
        .defaulted(),
    ];

    fn blank() -> Self {
        Self::new(String::new(), Preset::Plain.capability())
    }
}
