//! Days and hours of an authority as fields: the usual ones, and those of each season under names of their own.

use upland_core::controller::Hours;
use upland_core::place::{Allowed, DayOfYear, DayRule, Rules, Season, SeasonRule};
use upland_core::quantity::MonthOfYear;

use crate::form::Form;
use crate::pages::Choice;
use crate::pages::days_form::{read_hours, tick_days, ticked_days};
use crate::show::{day_list, month_long};
use crate::words::Words;

/// The names of the fields of one part of the year.
pub(crate) struct PartFields {
    /// How the names begin; empty for the usual days and hours.
    prefix: String,
    pub(crate) by: String,
    pub(crate) allow: String,
    pub(crate) odd: String,
    pub(crate) even: String,
    pub(crate) with_31st: String,
    /// Each last digit and the start of its fields' names.
    pub(crate) digits: Vec<(String, String)>,
    /// The pairs of fields of the closed hours.
    pub(crate) hours: Vec<(String, String)>,
    /// First and last day, each a month and a day; nothing for the usual part.
    pub(crate) season: Option<SeasonFields>,
}

/// The fields of the first and the last day of a season.
pub(crate) struct SeasonFields {
    pub(crate) number: String,
    pub(crate) from: [String; 2],
    pub(crate) to: [String; 2],
    /// Whether it is filled in, so that its fields are in sight.
    pub(crate) is_there: bool,
}

impl PartFields {
    fn of(prefix: &str) -> Self {
        let name = |field: &str| format!("{prefix}{field}");
        Self {
            by: name("by"),
            allow: name("allow"),
            odd: name("odd"),
            even: name("even"),
            with_31st: name("with_31st"),
            digits: (0..10).map(|d| (d.to_string(), name(&format!("d{d}_")))).collect(),
            hours: (0..Rules::HOURS_MAX).map(|i| (name(&format!("h{i}from")), name(&format!("h{i}to")))).collect(),
            season: None,
            prefix: prefix.to_owned(),
        }
    }

    /// The usual days and hours.
    pub(crate) fn usual() -> Self {
        Self::of("")
    }

    /// Every season that a form has room for.
    pub(crate) fn seasons(form: &Form) -> Vec<Self> {
        (0..Rules::SEASONS_MAX).map(|index| Self::season(index, form)).collect()
    }

    fn season(index: usize, form: &Form) -> Self {
        let prefix = format!("s{index}");
        let name = |field: &str| format!("{prefix}{field}");
        let mut fields = Self::of(&prefix);
        let [from, to] = ["from", "to"].map(|end| [name(&format!("{end}_month")), name(&format!("{end}_day"))]);
        let dated = from.iter().chain(&to).any(|field| !form.get(field).is_empty());
        let is_there = dated || fields.says_anything(form);
        fields.season = Some(SeasonFields { number: (index + 1).to_string(), from, to, is_there });
        fields
    }

    /// Whether anything but dates was filled in.
    fn says_anything(&self, form: &Form) -> bool {
        let by = form.get(&self.by);
        let hours = self.hours.iter().any(|(from, to)| !form.get(from).is_empty() || !form.get(to).is_empty());
        hours || !(by.is_empty() || by == "any")
    }

    /// Puts days and hours in.
    pub(crate) fn fill(&self, form: &mut Form, days: &DayRule, hours: &[Hours]) {
        let kind = match *days {
            DayRule::Any => "any",
            DayRule::Weekdays(days) => {
                tick_days(form, &self.allow, days);
                "weekdays"
            }
            DayRule::ByParity { odd, even } => {
                tick_days(form, &self.odd, odd);
                tick_days(form, &self.even, even);
                "parity"
            }
            DayRule::ByLastDigit(digits) => {
                for (days, (_, field)) in digits.into_iter().zip(&self.digits) {
                    tick_days(form, field, days);
                }
                "last_digit"
            }
            DayRule::ByDate { with_31st } => {
                form.set(&self.with_31st, if with_31st { "yes" } else { "no" });
                "date"
            }
        };
        form.set(&self.by, kind);
        for ((from, to), hours) in self.hours.iter().zip(hours) {
            form.set(from, hours.from.to_string());
            form.set(to, hours.to.to_string());
        }
    }

    /// Reads days and hours; errors stand beside their fields.
    pub(crate) fn read(&self, form: &mut Form) -> Option<(DayRule, Vec<Hours>)> {
        let rule = match form.get(&self.by) {
            "any" => Some(DayRule::Any),
            "weekdays" => Some(DayRule::Weekdays(ticked_days(form, &self.allow))),
            "parity" => {
                Some(DayRule::ByParity { odd: ticked_days(form, &self.odd), even: ticked_days(form, &self.even) })
            }
            "last_digit" => Some(DayRule::ByLastDigit(std::array::from_fn(|d| ticked_days(form, &self.digits[d].1)))),
            "date" => Some(DayRule::ByDate { with_31st: form.is(&self.with_31st, "yes") }),
            _ => None,
        };
        if rule.is_none() {
            form.fail(&self.by, Words.t("field-choice"));
        }
        let hours = self.hours.iter().filter_map(|(from, to)| read_hours(form, from, to)).collect();
        Some((rule?, hours))
    }
}

/// Puts the seasons of rules in.
pub(super) fn fill_seasons(form: &mut Form, seasons: &[SeasonRule]) {
    for (fields, rule) in PartFields::seasons(&Form::default()).iter().zip(seasons) {
        fields.fill(form, &rule.days, &rule.hours);
        let Some(season) = &fields.season else { continue };
        for ([month, day], at) in [(&season.from, rule.season.from), (&season.to, rule.season.to)] {
            form.set(month, at.month().to_string());
            form.set(day, at.day().to_string());
        }
    }
    // A season that is not there is on any day.
    for fields in PartFields::seasons(form).iter().filter(|f| !form.has(&f.by)).collect::<Vec<_>>() {
        form.set(&fields.by, "any");
    }
}

/// The seasons that are filled in, each with the field that its errors stand beside.
pub(super) fn read_seasons(form: &mut Form) -> Vec<(SeasonRule, String)> {
    let mut out = Vec::new();
    for fields in PartFields::seasons(form) {
        let Some(season) = fields.season.as_ref().filter(|s| s.is_there) else { continue };
        let [from, to] = [&season.from, &season.to].map(|ends| read_day(form, ends));
        if let (Some(from), Some(to), Some((days, hours))) = (from, to, fields.read(form)) {
            out.push((SeasonRule { season: Season { from, to }, days, hours }, fields.prefix.clone()));
        }
    }
    out
}

fn read_day(form: &mut Form, [month, day]: &[String; 2]) -> Option<DayOfYear> {
    let read = |field: &str| form.get(field).parse::<u8>().ok();
    let found = read(month).zip(read(day)).and_then(|(month, day)| DayOfYear::new(month, day));
    if found.is_none() {
        form.fail(day, Words.t("rules-season-day"));
    }
    found
}

/// The months to choose from, with none to begin with.
pub(crate) fn month_choices() -> Vec<Choice> {
    let months = MonthOfYear::ALL.iter().enumerate();
    std::iter::once(Choice::new("", Words.t("rules-season-none")))
        .chain(months.map(|(index, month)| Choice::new((index + 1).to_string(), month_long(*month))))
        .collect()
}

/// What one part of the year forbids: closed hours, closed days.
pub(super) fn part_words(hours: &[Hours], allowed: &Allowed) -> Vec<String> {
    let w = Words;
    let closed = allowed.days.complement();
    let mut parts: Vec<String> = hours
        .iter()
        .map(|h| w.t2("rules-hours-line", ("from", h.from.to_string()), ("to", h.to.to_string())))
        .collect();
    if !closed.is_empty() {
        parts.push(w.t1("rules-days-line", day_list(closed)));
    }
    if let Some(rule) = allowed.dates {
        parts.push(w.t(match (rule.odd, rule.with_31st) {
            (true, true) => "rules-odd-line",
            (true, false) => "rules-odd-not-31st-line",
            (false, _) => "rules-even-line",
        }));
    }
    parts
}

/// A season and what it forbids, in words.
pub(super) fn season_words(rule: &SeasonRule, allowed: &Allowed) -> String {
    let w = Words;
    let day = |at: DayOfYear| {
        let month = MonthOfYear::ALL[usize::from(at.month() - 1)];
        format!("{} {}", at.day(), month_long(month))
    };
    let span = w.t2("rules-span", ("first", day(rule.season.from)), ("last", day(rule.season.to)));
    let parts = part_words(&rule.hours, allowed);
    let what = if parts.is_empty() { w.t("rules-season-open") } else { parts.join(", ") };
    w.t2("rules-season-line", ("span", span), ("what", what))
}
