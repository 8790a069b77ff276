//! Days, dates and hours as forms carry them: a box for each weekday, a date, every N days, from and to.

use chrono::NaiveDate;
use upland_core::controller::{DayMode, Days, Hours, StartTime};
use upland_core::field::check_date;

use crate::form::Form;
use crate::show::day_short;
use crate::words::Words;

/// The weekdays with the number that their boxes carry.
pub(crate) fn day_fields() -> Vec<(String, String)> {
    Days::WEEK.into_iter().enumerate().map(|(i, d)| (i.to_string(), day_short(d))).collect()
}

/// The days whose boxes are ticked; `group` is how the names of the boxes begin.
pub(crate) fn ticked_days(form: &Form, group: &str) -> Days {
    Days::of(Days::WEEK.into_iter().enumerate().filter(|(i, _)| form.is_ticked(group, i)).map(|(_, d)| d))
}

/// Ticks the boxes of days.
pub(crate) fn tick_days(form: &mut Form, group: &str, days: Days) {
    for (index, _) in Days::WEEK.into_iter().enumerate().filter(|(_, d)| days.holds(*d)) {
        form.set(&format!("{group}{index}"), "1");
    }
}

/// A date of the years that are kept, as people write it for machines: `2026-06-11`.
fn date_of(text: &str) -> Option<NaiveDate> {
    text.parse::<NaiveDate>().ok().filter(|date| check_date(*date).is_ok())
}

/// A date of a field; an empty field is none, and no error.
pub(crate) fn read_date(form: &mut Form, field: &str) -> Option<NaiveDate> {
    let found = date_of(form.get(field));
    if found.is_none() && !form.get(field).is_empty() {
        form.fail(field, Words.t("field-date"));
    }
    found
}

/// Every so many days, up to `most`, from a next one: `[days, next]` are the fields.
pub(crate) fn read_every(form: &mut Form, [days, next]: [&str; 2], most: u8) -> Option<DayMode> {
    let count = form.get(days).parse::<u8>().ok().filter(|n| (1..=most).contains(n));
    if count.is_none() {
        form.fail(days, Words.t1("week-every-bad", most.to_string()));
    }
    let date = date_of(form.get(next));
    if date.is_none() {
        form.fail(next, Words.t("week-next-bad"));
    }
    Some(DayMode::Every { days: count?, next: date? })
}

/// A time of the day; nothing where the field is empty, or where it is not a time, which is said.
pub(crate) fn read_time(form: &mut Form, name: &str) -> Option<StartTime> {
    let text = form.get(name).to_owned();
    let time = StartTime::read(&text);
    if time.is_none() && !text.is_empty() {
        form.fail(name, Words.t("field-time"));
    }
    time
}

/// Two times of a span of hours; nothing where both are empty, or where one is not a time, which is said.
pub(crate) fn read_hours(form: &mut Form, from: &str, to: &str) -> Option<Hours> {
    let (a, b) = (form.get(from).to_owned(), form.get(to).to_owned());
    if a.is_empty() && b.is_empty() {
        return None;
    }
    match (StartTime::read(&a), StartTime::read(&b)) {
        (Some(from), Some(to)) => return Some(Hours { from, to }),
        (None, _) => form.fail(from, Words.t("field-time")),
        (_, None) => form.fail(to, Words.t("field-time")),
    }
    None
}
