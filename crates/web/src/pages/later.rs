//! Putting a job off, with a reason and a date.

use chrono::{NaiveDate, TimeDelta};
use upland_core::field::check_text;
use upland_core::quantity::limit;

use super::days_form::read_date;
use super::shell::Shell;
use crate::form::Form;
use crate::show::date_short;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "later.html")]
pub(crate) struct LaterTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) job: String,
    pub(crate) reason_of_job: String,
}

/// Days for which a job is put off unless somebody says otherwise.
const DAYS: i64 = 7;
/// And at most: what nobody does within a season is no job.
const MOST_DAYS: i64 = 183;

/// The form of a job that is not put off yet.
pub(crate) fn fill(form: &mut Form, today: NaiveDate) {
    if form.get("until").is_empty() {
        form.set("until", (today + TimeDelta::days(DAYS)).to_string());
    }
}

/// Reads the day and the reason; what is wrong stands beside its field.
pub(crate) fn read(form: &mut Form, today: NaiveDate) -> Option<(NaiveDate, String)> {
    let w = Words;
    let until = read_date(form, "until");
    let last = today + TimeDelta::days(MOST_DAYS);
    if form.get("until").is_empty() || until.is_some_and(|day| day <= today || day > last) {
        form.fail("until", w.t1("later-until-bad", date_short(last)));
    }
    let reason = form.get("reason").to_owned();
    if check_text(&reason, 1, limit::REASON).is_err() {
        form.fail("reason", w.t("later-reason-bad"));
    }
    form.is_sound().then_some(until?).map(|day| (day, reason))
}
