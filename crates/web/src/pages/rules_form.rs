//! The water rules of a place as a form.

use chrono::NaiveDate;
use upland_core::controller::{Days, StartTime};
use upland_core::place::{Ban, DayRule, Hours, Rules, RulesError};
use upland_store::PlaceRecord;

use super::Choice;
use super::shell::Shell;
use crate::form::Form;
use crate::show::day_short;
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

/// The weekdays with the number that fields carry.
pub(crate) fn day_fields() -> Vec<(String, String)> {
    Days::WEEK.into_iter().enumerate().map(|(i, d)| (i.to_string(), day_short(d))).collect()
}

/// The pairs of fields of the closed hours.
pub(crate) fn hour_fields() -> Vec<(String, String)> {
    (0..Rules::HOURS_MAX).map(|i| (format!("h{i}from"), format!("h{i}to"))).collect()
}

/// The form of the rules as they stand.
pub(crate) fn filled(place: &PlaceRecord, version: i32) -> Form {
    let rules = &place.rules;
    let mut form = Form::default();
    form.set("action", uuid::Uuid::new_v4().to_string());
    form.set("version", version.to_string());
    let mut set = |prefix: &str, days: Days| {
        for (index, day) in Days::WEEK.into_iter().enumerate() {
            if days.holds(day) {
                form.set(&format!("{prefix}{index}"), "1");
            }
        }
    };
    let kind = match rules.days {
        DayRule::Any => "any",
        DayRule::Weekdays(days) => {
            set("allow", days);
            "weekdays"
        }
        DayRule::ByParity { odd, even } => {
            set("odd", odd);
            set("even", even);
            "parity"
        }
        DayRule::ByLastDigit(digits) => {
            for (digit, days) in digits.into_iter().enumerate() {
                set(&format!("d{digit}_"), days);
            }
            "last_digit"
        }
    };
    set("never", rules.never);
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

fn days(form: &Form, prefix: &str) -> Days {
    let held = Days::WEEK.into_iter().enumerate().filter(|(i, _)| !form.get(&format!("{prefix}{i}")).is_empty());
    Days::of(held.map(|(_, d)| d))
}

/// A date of a field; an empty one is none.
pub(crate) fn date(form: &mut Form, field: &str) -> Option<NaiveDate> {
    use chrono::Datelike;
    let typed = form.get(field).to_owned();
    if typed.is_empty() {
        return None;
    }
    let found = typed.parse::<NaiveDate>().ok().filter(|d| (2000..2200).contains(&d.year()));
    if found.is_none() {
        form.fail(field, Words.t("field-date"));
    }
    found
}

/// Reads the rules; errors stand beside their fields.
pub(crate) fn read(form: &mut Form, house_number: &str) -> Option<Rules> {
    let w = Words;
    let rule = match form.get("by") {
        "any" => Some(DayRule::Any),
        "weekdays" => Some(DayRule::Weekdays(days(form, "allow"))),
        "parity" => Some(DayRule::ByParity { odd: days(form, "odd"), even: days(form, "even") }),
        "last_digit" => Some(DayRule::ByLastDigit(std::array::from_fn(|d| days(form, &format!("d{d}_"))))),
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
    let (ban_from, ban_to) = (date(form, "ban_from"), date(form, "ban_to"));
    if ban_from.is_some() != ban_to.is_some() {
        form.fail(if ban_from.is_some() { "ban_to" } else { "ban_from" }, w.t("rules-ban-both"));
    }
    let dated = date(form, "dated");
    let rules = Rules {
        days: rule?,
        never: days(form, "never"),
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
            RulesError::TooManyHours => ("h0from", "field-time"),
            RulesError::Authority => ("authority", "field-name"),
        };
        form.fail(field, w.t(key));
    }
    form.is_sound().then_some(rules)
}

/// What rules come to at a house, in a sentence.
pub(crate) fn rules_line(rules: &Rules, house_number: &str) -> String {
    let w = Words;
    if rules.is_open() {
        return w.t("rules-open");
    }
    let bound = rules.bind(house_number);
    let closed = bound.days.complement();
    let mut parts: Vec<String> =
        rules.hours.iter().map(|h| w.t2("rules-hours-line", h.from.to_string(), h.to.to_string())).collect();
    if !closed.is_empty() {
        parts.push(w.t1("rules-days-line", crate::show::day_list(closed)));
    }
    if let Some(ban) = rules.ban {
        parts.push(w.t2("rules-ban-line", crate::show::date_short(ban.from), crate::show::date_short(ban.to)));
    }
    parts.join("; ")
}
