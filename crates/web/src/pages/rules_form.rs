//! The water rules of a place as a form.

use crate::context::PlaceRecord;
use upland_core::controller::StartTime;
use upland_core::place::{Ban, Bound, DayRule, Hours, Rules, RulesError};

use super::Choice;
use super::days_form::{read_date, tick_days, ticked_days};
use super::shell::Shell;
use crate::form::{Form, new_key};
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
    pub(crate) hours: Vec<(String, String)>,
    /// Each last digit and the start of its fields' names.
    pub(crate) digits: Vec<(String, String)>,
    /// What the rules come to here, in words.
    pub(crate) here: String,
}

/// The kinds of day rules.
pub(crate) fn kinds() -> Vec<Choice> {
    let w = Words;
    vec![
        Choice::new("any", w.t("rules-any")),
        Choice::new("weekdays", w.t("rules-weekdays")),
        Choice::new("parity", w.t("rules-parity")),
        Choice::new("last_digit", w.t("rules-digit")),
    ]
}

/// The pairs of fields of the closed hours.
pub(crate) fn hour_fields() -> Vec<(String, String)> {
    (0..Rules::HOURS_MAX).map(|i| (format!("h{i}from"), format!("h{i}to"))).collect()
}

/// The form of the saved rules.
pub(crate) fn filled(place: &PlaceRecord, version: i32) -> Form {
    let rules = &place.rules;
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", version.to_string());
    let kind = match rules.days {
        DayRule::Any => "any",
        DayRule::Weekdays(days) => {
            tick_days(&mut form, "allow", days);
            "weekdays"
        }
        DayRule::ByParity { odd, even } => {
            tick_days(&mut form, "odd", odd);
            tick_days(&mut form, "even", even);
            "parity"
        }
        DayRule::ByLastDigit(digits) => {
            for (digit, days) in digits.into_iter().enumerate() {
                tick_days(&mut form, &format!("d{digit}_"), days);
            }
            "last_digit"
        }
    };
    tick_days(&mut form, "never", rules.never);
    form.set("by", kind);
    for ((from, to), hours) in hour_fields().iter().zip(&rules.hours) {
        form.set(from, hours.from.to_string());
        form.set(to, hours.to.to_string());
    }
    if let Some(ban) = rules.ban {
        form.set("ban_from", ban.from.to_string());
        form.set("ban_to", ban.to.to_string());
    }
    form.set("authority", &rules.authority);
    form.set("dated", rules.dated.map_or_else(String::new, |d| d.to_string()));
    form
}

/// Reads the rules; errors stand beside their fields.
pub(crate) fn read(form: &mut Form, house_number: &str) -> Option<Rules> {
    let w = Words;
    let rule = match form.get("by") {
        "any" => Some(DayRule::Any),
        "weekdays" => Some(DayRule::Weekdays(ticked_days(form, "allow"))),
        "parity" => Some(DayRule::ByParity { odd: ticked_days(form, "odd"), even: ticked_days(form, "even") }),
        "last_digit" => Some(DayRule::ByLastDigit(std::array::from_fn(|d| ticked_days(form, &format!("d{d}_"))))),
        _ => None,
    };
    if rule.is_none() {
        form.fail("by", w.t("field-choice"));
    }
    let mut hours = Vec::new();
    for (from, to) in hour_fields() {
        let (a, b) = (form.get(&from).to_owned(), form.get(&to).to_owned());
        if a.is_empty() && b.is_empty() {
            continue;
        }
        match (StartTime::read(&a), StartTime::read(&b)) {
            (Some(from), Some(to)) => hours.push(Hours { from, to }),
            (None, _) => form.fail(&from, w.t("field-time")),
            (_, None) => form.fail(&to, w.t("field-time")),
        }
    }
    let (ban_from, ban_to) = (read_date(form, "ban_from"), read_date(form, "ban_to"));
    if ban_from.is_some() != ban_to.is_some() {
        form.fail(if ban_from.is_some() { "ban_to" } else { "ban_from" }, w.t("rules-ban-both"));
    }
    let dated = read_date(form, "dated");
    let rules = Rules {
        days: rule?,
        never: ticked_days(form, "never"),
        hours,
        ban: ban_from.zip(ban_to).map(|(from, to)| Ban { from, to }),
        authority: form.get("authority").to_owned(),
        dated,
    };
    if let Err(error) = rules.check(house_number) {
        let (field, key) = match error {
            RulesError::HouseNumber => ("by", "rules-no-house-number"),
            RulesError::NoDay => ("by", "rules-no-day"),
            RulesError::NoHour => ("h0from", "rules-no-hour"),
            RulesError::Ban => ("ban_to", "rules-ban-order"),
            RulesError::Date => ("dated", "field-date"),
            RulesError::TooManyHours => ("h0from", "field-time"),
            RulesError::Authority => ("authority", "field-name"),
        };
        form.fail(field, w.t(key));
    }
    form.is_sound().then_some(rules)
}

/// What rules come to at a house, in a sentence.
pub(crate) fn rules_line(rules: &Rules, house_number: &str) -> String {
    if rules.is_open() { Words.t("rules-open") } else { rules_parts(rules, &rules.bind(house_number)).join("; ") }
}

/// What rules forbid at a house: closed hours, closed days, a ban.
pub(crate) fn rules_parts(rules: &Rules, bound: &Bound) -> Vec<String> {
    let w = Words;
    let closed = bound.days.complement();
    let mut parts: Vec<String> =
        rules.hours.iter().map(|h| w.t2("rules-hours-line", h.from.to_string(), h.to.to_string())).collect();
    if !closed.is_empty() {
        parts.push(w.t1("rules-days-line", crate::show::day_list(closed)));
    }
    if let Some(ban) = rules.ban {
        parts.push(w.t2("rules-ban-line", crate::show::date_short(ban.from), crate::show::date_short(ban.to)));
    }
    parts
}
