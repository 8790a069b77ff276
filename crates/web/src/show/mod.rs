//! Figures as people read them: numbers, units and dates. What is stored is never converted.

mod dates;
mod number;
mod units;

pub(crate) use dates::{
    ago, clock, clock_time, date_long, date_short, date_tiny, day_letter, day_list, day_long, day_short, mode_words,
    month_long, month_of, month_short, nearest_minute, panel_start, panel_time, weekday,
};
pub(crate) use number::{Fixed, dial, dial_figure, minutes, number, percent, signed, times};
pub(crate) use units::{Measure, Units, fraction, rain_setting, rain_text, vent_words};
