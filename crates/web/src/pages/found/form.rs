//! A panel as a form, in the panel's own order.

use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta, Weekday};
use upland_core::controller::{Capability, Controller, DayMode, Days, PercentScope, ProgramLetter, StartTime};
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use upland_core::quantity::{Percent, RunTime, range};

use crate::form::{Form, new_key, parse_number};
use crate::pages::days_form::{read_date, read_every, tick_days, ticked_days};
use crate::show::{Measure, Units, minutes, panel_start};
use crate::words::Words;

/// How a moment is written in the form.
const MOMENT: &str = "%Y-%m-%d %H:%M";

/// Most days of "every N days" that any panel has.
const MOST_DAYS: u8 = 31;

/// The letters of a panel's programs.
pub(crate) fn letters(capability: &Capability) -> impl Iterator<Item = ProgramLetter> {
    ProgramLetter::ALL.into_iter().take(usize::from(capability.programs))
}

/// An empty form: nothing of what we know is put in but which program each station stands in.
pub(crate) fn empty(controller: &Controller, now: NaiveDateTime) -> Form {
    let mut form = Form::default();
    form.set("record", new_key());
    form.set("seen", now.format(MOMENT).to_string());
    form.set("switch", "on");
    form.set("sensor", if controller.sensors.is_empty() { "none" } else { "active" });
    for station in &controller.stations {
        form.set(&format!("p{}{}", station.number, station.program.get()), "1");
    }
    for letter in letters(&controller.capability) {
        form.set(&format!("mode{}", letter.get()), "weekdays");
        form.set(&percent_field(&controller.capability, letter), "100");
    }
    form
}

/// The field of a program's percent: one for all programs where the panel has one for all.
pub(crate) fn percent_field(capability: &Capability, letter: ProgramLetter) -> String {
    match capability.percent_scope {
        PercentScope::AllPrograms => "pct".to_owned(),
        PercentScope::EachProgram => format!("pct{}", letter.get()),
    }
}

/// The form of a panel that was written down before.
pub(crate) fn filled(panel: &Panel, capability: &Capability) -> Form {
    let mut form = Form::default();
    form.set("clock_date", panel.clock.date.to_string());
    form.set("clock_time", panel.clock.time.to_string());
    for s in &panel.stations {
        form.set(&format!("m{}", s.number), minutes(s.minutes));
    }
    for p in &panel.programs {
        let l = p.letter.get();
        let mode = match p.days {
            DayMode::Weekdays(days) => {
                tick_days(&mut form, &format!("on{l}"), days);
                "weekdays"
            }
            DayMode::Odd => "odd",
            DayMode::Even => "even",
            DayMode::Every { .. } => "every",
        };
        form.set(&format!("mode{l}"), mode);
        for (i, start) in p.starts.iter().enumerate() {
            form.set(&format!("start{l}{i}"), panel_start(*start, capability.clock_face));
        }
        form.set(&percent_field(capability, p.letter), p.percent.get().to_string());
    }
    form
}

/// Reads the panel as far as it is written down; errors stand beside their fields, and what is
/// missing counts as nothing.
pub(crate) fn read(form: &mut Form, capability: &Capability, now: NaiveDateTime) -> Panel {
    let seen = form.get("seen").to_owned();
    let seen_at = NaiveDateTime::parse_from_str(&seen, MOMENT)
        .ok()
        .filter(|at| (2000..2200).contains(&at.year()) && *at <= now + TimeDelta::days(1));
    if seen_at.is_none() {
        form.fail("seen", Words.t("found-seen-bad"));
    }
    let seen_at = seen_at.unwrap_or(now);
    let clock = read_clock(form, seen_at);
    let stations = read_stations(form, capability);
    let programs = letters(capability).filter_map(|letter| read_program(form, capability, letter)).collect();
    let sensor = match form.get("sensor") {
        "active" => SensorSwitch::Active,
        "bypassed" => SensorSwitch::Bypassed,
        _ => SensorSwitch::None,
    };
    let note = form.get("note").to_owned();
    let panel = Panel {
        seen_at,
        clock,
        switch: if form.is("switch", "off") { Switch::Off } else { Switch::On },
        sensor,
        stations,
        programs,
        note,
    };
    if let Err(error) = panel.check(capability) {
        let field = match error {
            upland_core::found::PanelError::Note => "note",
            upland_core::found::PanelError::Date => "clock_date",
            _ => "stations",
        };
        form.fail(field, Words.t1("found-cannot-be", error.to_string()));
    }
    panel
}

fn read_clock(form: &mut Form, seen_at: NaiveDateTime) -> PanelClock {
    let weekday = form.get("clock_weekday").parse::<usize>().ok().and_then(|n| Days::WEEK.get(n).copied());
    let today = seen_at.date();
    let shown = read_date(form, "clock_date");
    if shown.is_none() && weekday.is_none() && form.error("clock_date").is_empty() {
        form.fail("clock_date", Words.t("found-date-missing"));
    }
    let typed = form.get("clock_time").to_owned();
    let time = StartTime::read(&typed);
    if time.is_none() {
        form.fail("clock_time", Words.t("field-time"));
    }
    PanelClock {
        // A panel that shows no more than a weekday: the last day that it can mean.
        date: shown.unwrap_or_else(|| weekday.map_or(today, |w| last(w, today))),
        weekday,
        time: time.unwrap_or_else(|| StartTime::of(seen_at.time())),
    }
}

fn last(weekday: Weekday, today: NaiveDate) -> NaiveDate {
    let back = (7 + today.weekday().num_days_from_monday() - weekday.num_days_from_monday()) % 7;
    today - TimeDelta::days(i64::from(back))
}

fn read_stations(form: &mut Form, capability: &Capability) -> Vec<FoundStation> {
    let beyond = form.pairs().find_map(|(name, value)| {
        let number = name.strip_prefix('m')?.parse::<u16>().ok()?;
        (!value.trim().is_empty() && !(1..=u16::from(capability.stations)).contains(&number)).then_some(number)
    });
    if let Some(number) = beyond {
        form.fail("stations", Words.t2("found-no-terminal", number.to_string(), capability.stations.to_string()));
    }
    let mut out = Vec::new();
    for number in 1..=capability.stations {
        let field = format!("m{number}");
        let typed = form.get(&field).to_owned();
        if typed.is_empty() {
            continue;
        }
        let minutes = parse_number(&typed).and_then(|m| RunTime::from_minutes(m).ok());
        let Some(minutes) = minutes.filter(|m| *m <= capability.run_max) else {
            let most = Measure::Plain.typed(capability.run_max.minutes(), Units::Metric);
            form.fail(&field, Words.t1("found-minutes-bad", most));
            continue;
        };
        let programs = letters(capability).filter(|l| !form.get(&format!("p{number}{}", l.get())).is_empty()).collect();
        out.push(FoundStation { number, minutes, programs });
    }
    out
}

fn read_program(form: &mut Form, capability: &Capability, letter: ProgramLetter) -> Option<FoundProgram> {
    let l = letter.get();
    let mode = match form.get(&format!("mode{l}")) {
        "odd" => DayMode::Odd,
        "even" => DayMode::Even,
        "every" => read_every(form, [&format!("every{l}"), &format!("next{l}")], MOST_DAYS)?,
        _ => DayMode::Weekdays(ticked_days(form, &format!("on{l}"))),
    };
    let mut starts = Vec::new();
    for slot in 0..capability.starts {
        let field = format!("start{l}{slot}");
        let typed = form.get(&field).to_owned();
        if typed.is_empty() || typed.eq_ignore_ascii_case(&Words.t("off")) {
            continue;
        }
        match StartTime::read(&typed) {
            Some(start) if starts.contains(&start) => form.fail(&field, Words.t("found-start-twice")),
            Some(start) => starts.push(start),
            None => form.fail(&field, Words.t("found-start-bad")),
        }
    }
    starts.sort_unstable();
    let field = percent_field(capability, letter);
    let percent = form.get(&field).parse::<u16>().ok().and_then(|p| Percent::new(p).ok());
    if percent.is_none() {
        form.fail(&field, Measure::Plain.allowed(range::PERCENT, Units::Metric));
    }
    Some(FoundProgram { letter, days: mode, starts, percent: percent.unwrap_or(capability.percent_max) })
}
