//! The water rules of a place as a form.

mod part;

use upland_core::field::check_text;
use upland_core::place::{Ban, Bound, ClosedDates, Rules, RulesError};
use upland_core::quantity::limit;
use uuid::Uuid;

pub(crate) use self::part::{PartFields, month_choices};
use self::part::{fill_seasons, part_words, read_seasons, season_words};
use super::Choice;
use super::days_form::{read_date, read_hours, read_time, tick_days, ticked_days};
use super::shell::Shell;
use crate::context::PlaceRecord;
use crate::form::{Form, new_key};
use crate::show::date_short;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "rules_form.html")]
pub(crate) struct RulesFormTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) post_to: String,
    pub(crate) place: String,
    pub(crate) place_href: String,
    pub(crate) house_number: String,
    pub(crate) kinds: Vec<Choice>,
    pub(crate) days: Vec<(String, String)>,
    pub(crate) usual: PartFields,
    pub(crate) seasons: Vec<PartFields>,
    pub(crate) months: Vec<Choice>,
    /// The fields of the closed dates: from, to, why.
    pub(crate) closed: Vec<[String; 3]>,
    pub(crate) yes_no: Vec<Choice>,
    /// What the rules come to here, in words.
    pub(crate) here: String,
    /// Places under the same rules.
    pub(crate) together: Vec<Together>,
    /// Places that have rules, to begin from theirs.
    pub(crate) others: Vec<Choice>,
}

/// The kinds of day rules.
pub(crate) fn kinds() -> Vec<Choice> {
    let w = Words;
    vec![
        Choice::new("any", w.t("rules-any")),
        Choice::new("weekdays", w.t("rules-weekdays")),
        Choice::new("parity", w.t("rules-parity")),
        Choice::new("last_digit", w.t("rules-digit")),
        Choice::new("date", w.t("rules-date")),
    ]
}

/// The form of the saved rules.
pub(crate) fn filled(place: &PlaceRecord, version: i32) -> Form {
    let rules = &place.rules;
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", version.to_string());
    PartFields::usual().fill(&mut form, &rules.days, &rules.hours);
    fill_seasons(&mut form, &rules.seasons);
    tick_days(&mut form, "never", rules.never);
    if let Some(ban) = rules.ban {
        form.set("ban_from", ban.from.to_string());
        form.set("ban_to", ban.to.to_string());
        if let Some(hours) = ban.hours {
            form.set("ban_hour_from", hours.from.to_string());
            form.set("ban_hour_to", hours.to.to_string());
        }
    }
    for ([from, to, why], closed) in closed_fields(rules.closed.len()).iter().zip(&rules.closed) {
        form.set(from, closed.from.to_string());
        form.set(to, closed.to.to_string());
        form.set(why, &closed.why);
    }
    form.set("closed_rows", closed_fields(rules.closed.len()).len().to_string());
    form.set("done_by", rules.done_by.map_or_else(String::new, |at| at.to_string()));
    form.set("needs_sensor", if rules.needs_sensor { "yes" } else { "no" });
    form.set("authority", &rules.authority);
    form.set("dated", rules.dated.map_or_else(String::new, |d| d.to_string()));
    form
}

/// Reads the rules; errors stand beside their fields.
pub(crate) fn read(form: &mut Form, house_number: &str) -> Option<Rules> {
    let w = Words;
    let usual = PartFields::usual().read(form);
    let (seasons, beside): (Vec<_>, Vec<_>) = read_seasons(form).into_iter().unzip();
    let ban_hours = read_hours(form, "ban_hour_from", "ban_hour_to");
    if ban_hours.is_some() && form.get("ban_from").is_empty() {
        form.fail("ban_from", w.t("rules-ban-both"));
    }
    let closed = read_closed(form);
    let (ban_from, ban_to) = (read_date(form, "ban_from"), read_date(form, "ban_to"));
    if ban_from.is_some() != ban_to.is_some() {
        form.fail(if ban_from.is_some() { "ban_to" } else { "ban_from" }, w.t("rules-ban-both"));
    }
    let done_by = read_time(form, "done_by");
    let dated = read_date(form, "dated");
    let (days, hours) = usual?;
    let rules = Rules {
        days,
        never: ticked_days(form, "never"),
        hours,
        seasons,
        closed,
        done_by,
        ban: ban_from.zip(ban_to).map(|(from, to)| Ban { from, to, hours: ban_hours }),
        needs_sensor: form.is("needs_sensor", "yes"),
        authority: form.get("authority").to_owned(),
        dated,
    };
    if let Err(error) = rules.check(house_number) {
        let prefix = first_wrong(&rules, house_number).map_or("", |index| beside[index].as_str());
        let (field, key) = error_words(error);
        form.fail(&format!("{prefix}{field}"), w.t(key));
    }
    form.is_sound().then_some(rules)
}

/// The season that is wrong by itself, by its place in the list; nothing where the fault lies elsewhere.
fn first_wrong(rules: &Rules, house_number: &str) -> Option<usize> {
    let alone = |seasons| Rules { seasons, ..rules.clone() }.check(house_number);
    alone(Vec::new()).ok()?;
    rules.seasons.iter().position(|season| alone(vec![season.clone()]).is_err())
}

/// The field that an error stands beside, and its words.
pub(crate) const fn error_words(error: RulesError) -> (&'static str, &'static str) {
    match error {
        RulesError::HouseNumber => ("by", "rules-no-house-number"),
        RulesError::NoDay => ("by", "rules-no-day"),
        RulesError::NoHour => ("h0from", "rules-no-hour"),
        RulesError::Ban => ("ban_to", "rules-ban-order"),
        RulesError::Closed(_) | RulesError::TooManyClosed => ("closed0to", "rules-closed-order"),
        RulesError::DoneBy => ("done_by", "rules-done-by-range"),
        RulesError::Date => ("dated", "field-date"),
        RulesError::TooManyHours => ("h0from", "field-time"),
        RulesError::Seasons => ("s0from_day", "rules-seasons-meet"),
        RulesError::Authority => ("authority", "field-name"),
    }
}

/// Places under the same rules of the authority, with the boxes that take them along.
pub(crate) struct Together {
    pub(crate) field: String,
    pub(crate) name: String,
}

/// The box that takes a place along.
pub(crate) fn together_field(id: Uuid) -> String {
    format!("with_{id}")
}

/// The fields of the closed dates: those that are there, and two more rows.
pub(crate) fn closed_fields(there: usize) -> Vec<[String; 3]> {
    let rows = (there + 2).min(limit::CLOSED_DATES);
    (0..rows).map(|i| ["from", "to", "why"].map(|part| format!("closed{i}{part}"))).collect()
}

fn read_closed(form: &mut Form) -> Vec<ClosedDates> {
    let mut out = Vec::new();
    for [from, to, why] in closed_fields(limit::CLOSED_DATES) {
        if [&from, &to, &why].iter().all(|field| form.get(field).is_empty()) {
            continue;
        }
        let reason = form.get(&why).to_owned();
        if check_text(&reason, 0, limit::NAME).is_err() {
            form.fail(&why, Words.t("field-name"));
        }
        // A single day has no other end.
        if form.get(&to).is_empty() {
            form.set(&to, form.get(&from).to_owned());
        }
        match (read_date(form, &from), read_date(form, &to)) {
            (Some(first), Some(last)) if last < first => form.fail(&to, Words.t("rules-closed-order")),
            (Some(first), Some(last)) => out.push(ClosedDates { from: first, to: last, why: reason }),
            (None, _) if form.get(&from).is_empty() => form.fail(&from, Words.t("field-date")),
            _ => {}
        }
    }
    out
}

/// What rules come to at a house, in a sentence.
pub(crate) fn rules_line(rules: &Rules, house_number: &str) -> String {
    if rules.is_open() { Words.t("rules-open") } else { rules_parts(rules, &rules.bind(house_number)).join("; ") }
}

/// What rules forbid at a house: closed hours, closed days, a ban.
pub(crate) fn rules_parts(rules: &Rules, bound: &Bound) -> Vec<String> {
    let w = Words;
    let mut parts = part_words(&rules.hours, &bound.usual);
    parts.extend(rules.seasons.iter().zip(&bound.seasons).map(|(rule, (_, allowed))| season_words(rule, allowed)));
    for closed in &rules.closed {
        let span = if closed.from == closed.to {
            date_short(closed.from)
        } else {
            w.t2("rules-span", ("first", date_short(closed.from)), ("last", date_short(closed.to)))
        };
        let why =
            if closed.why.is_empty() { span } else { w.t2("rules-closed-why", ("span", span), ("why", &closed.why)) };
        parts.push(w.t1("rules-closed-line", why));
    }
    if let Some(by) = rules.done_by {
        parts.push(w.t1("rules-done-by-line", by.to_string()));
    }
    if let Some(ban) = rules.ban {
        let span = w.t2("rules-span", ("first", date_short(ban.from)), ("last", date_short(ban.to)));
        parts.push(match ban.hours {
            None => w.t1("rules-ban-line", span),
            Some(h) => {
                let hours = w.t2("rules-hours-line", ("from", h.from.to_string()), ("to", h.to.to_string()));
                w.t2("rules-ban-hours-line", ("hours", hours), ("span", span))
            }
        });
    }
    if rules.needs_sensor {
        parts.push(w.t("rules-sensor-line"));
    }
    parts
}
