//! A panel as a form, in the panel's own order.

use chrono::{Datelike, NaiveDate, NaiveDateTime, TimeDelta, Weekday};
use upland_core::controller::{
    Capability, Controller, DayMode, Days, PercentScope, PercentStorage, ProgramLetter, StartTime,
};
use upland_core::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch, days_by_number};
use upland_core::landscape::CycleSoak;
use upland_core::quantity::{MonthOfYear, Percent, RunTime, range};

use crate::form::{Form, new_key, parse_number};
use crate::pages::controller_error::cannot_stand;
use crate::pages::days_form::{read_date, read_every, tick_days, ticked_days};
use crate::pages::water_windows;
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
        if let Some(set) = s.cycle {
            form.set(&format!("cycle{}", s.number), minutes(set.cycle));
            form.set(&format!("soak{}", s.number), minutes(set.soak));
        }
    }
    water_windows::fill(&mut form, &panel.windows, capability.clock_face);
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
        tick_days(&mut form, &format!("never{l}"), p.never);
        let field = percent_field(capability, p.letter);
        for (month, percent) in MonthOfYear::ALL.into_iter().zip(p.months.iter().flatten()) {
            let held = percent.map_or_else(|| Words.t("off"), |p| p.get().to_string());
            form.set(&month_field(&field, month), held);
        }
        form.set(&field, p.percent.get().to_string());
    }
    form
}

/// The field of a month's percent on a panel that keeps them by month.
pub(super) fn month_field(percent: &str, month: MonthOfYear) -> String {
    format!("{percent}_{}", month.number())
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
    let programs =
        letters(capability).filter_map(|letter| read_program(form, capability, letter, seen_at.date())).collect();
    let sensor = match form.get("sensor") {
        "active" => SensorSwitch::Active,
        "bypassed" => SensorSwitch::Bypassed,
        _ => SensorSwitch::None,
    };
    let note = form.get("note").to_owned();
    let panel = Panel {
        seen_at,
        clock,
        switch: match form.get("switch") {
            "off" => Switch::Off,
            "held" => Switch::Held,
            _ => Switch::On,
        },
        sensor,
        stations,
        programs,
        windows: water_windows::read(form),
        note,
    };
    if let Err(error) = panel.check(capability) {
        let field = match error {
            upland_core::found::PanelError::Note => "note",
            upland_core::found::PanelError::Date => "clock_date",
            upland_core::found::PanelError::WaterWindows(_) => "window0from",
            _ => "stations",
        };
        form.fail(field, cannot_stand(&error));
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
        form.fail(
            "stations",
            Words.t2(
                "found-no-terminal",
                ("station", number.to_string()),
                ("stations", capability.stations.to_string()),
            ),
        );
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
        let cycle = if capability.cycle_soak { read_cycle(form, capability, number) } else { None };
        out.push(FoundStation { number, minutes, programs, cycle });
    }
    out
}

/// Cycle and soak of a station; a soak alone means nothing.
fn read_cycle(form: &mut Form, capability: &Capability, number: u8) -> Option<CycleSoak> {
    let mut read = |field: String| {
        let typed = form.get(&field).to_owned();
        let run = parse_number(&typed).and_then(|m| RunTime::from_minutes(m).ok());
        if !typed.is_empty() && run.is_none_or(|r| r > capability.run_max) {
            let most = Measure::Plain.typed(capability.run_max.minutes(), Units::Metric);
            form.fail(&field, Words.t1("found-minutes-bad", most));
        }
        run
    };
    let (cycle, soak) = (read(format!("cycle{number}")), read(format!("soak{number}")));
    let cycle = cycle.filter(|c| *c > RunTime::ZERO)?;
    Some(CycleSoak { cycle, soak: soak.unwrap_or(RunTime::ZERO) })
}

/// Days as numbers that count from the number of today: `1 3 5`.
fn read_numbers(form: &mut Form, field: &str, today: NaiveDate) -> Days {
    let typed = form.get(field).to_owned();
    let parts = typed.split([' ', ',', ';']).filter(|p| !p.is_empty());
    let numbers: Option<Vec<u8>> = parts.map(|p| p.parse().ok()).collect();
    let Ok(today_is) = form.get("clock_number").parse::<u8>() else {
        form.fail("clock_number", Words.t("found-number-today"));
        return Days::NONE;
    };
    let days = numbers.and_then(|n| days_by_number(&n, today_is, today));
    if days.is_none() {
        form.fail(field, Words.t("found-numbers-bad"));
    }
    days.unwrap_or(Days::NONE)
}

/// The twelve percents, where the panel keeps them by month and any but the present one is typed.
fn read_months(
    form: &mut Form,
    capability: &Capability,
    field: &str,
    now: (MonthOfYear, Percent),
) -> Option<[Option<Percent>; 12]> {
    let typed = |form: &Form, m| form.get(&month_field(field, m)).to_owned();
    let by_month = capability.percent_storage == PercentStorage::ByMonth;
    if !by_month || MonthOfYear::ALL.iter().all(|m| typed(form, *m).is_empty()) {
        return None;
    }
    Some(MonthOfYear::ALL.map(|month| {
        let text = typed(form, month);
        if month == now.0 && text.is_empty() {
            return Some(now.1);
        }
        if text.eq_ignore_ascii_case(&Words.t("off")) {
            return None;
        }
        let percent = text.parse::<u16>().ok().and_then(|p| Percent::new(p).ok());
        if percent.is_none() {
            form.fail(&month_field(field, month), Words.t("found-month-bad"));
        }
        percent
    }))
}

fn read_program(
    form: &mut Form,
    capability: &Capability,
    letter: ProgramLetter,
    today: NaiveDate,
) -> Option<FoundProgram> {
    let l = letter.get();
    let mode = match form.get(&format!("mode{l}")) {
        "odd" => DayMode::Odd,
        "even" => DayMode::Even,
        "every" => read_every(form, [&format!("every{l}"), &format!("next{l}")], MOST_DAYS)?,
        "numbers" => DayMode::Weekdays(read_numbers(form, &format!("numbers{l}"), today)),
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
    let percent = percent.unwrap_or(capability.percent_max);
    let month = MonthOfYear::of(today);
    let months = read_months(form, capability, &field, (month, percent));
    // Today's percent is the month's where all twelve were written down.
    let percent = months.and_then(|m| m[month.index()]).unwrap_or(percent);
    let never = if capability.never_days { ticked_days(form, &format!("never{l}")) } else { Days::NONE };
    Some(FoundProgram { letter, days: mode, never, starts, percent, months })
}
