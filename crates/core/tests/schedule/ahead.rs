//! What is to be set by hand in the time to come, held against what dialling in asks for day by day.

use std::collections::HashMap;

use chrono::{NaiveDate, TimeDelta, Weekday};
use proptest::prelude::*;
use upland_core::controller::{Controller, DayMode, Days, MonthDial, Preset, ProgramLetter, Temporary, TemporaryKind};
use upland_core::dial_in::{Change, Section, Value, changes_ahead, slots};
use upland_core::quantity::Percent;
use upland_core::schedule::{Level, Plan, expand};

use crate::builders::{controller, day, set, station, time};

const A: ProgramLetter = ProgramLetter::ALL[0];

/// A lawn under program A whose percent is 100 in summer, 60 in May and September, and off in winter.
fn panel(preset: Preset) -> Controller {
    let mut c = controller(vec![station(1, A, 20)]);
    c.capability = preset.capability();
    set(&mut c, A, DayMode::Weekdays(Days::of([Weekday::Mon])), &["04:00"]);
    for (index, month) in c.programs[0].months.iter_mut().enumerate() {
        month.dial = match index {
            4 | 8 => MonthDial::Set(Percent::new(60).unwrap()),
            5..=7 => MonthDial::Set(Percent::FULL),
            _ => MonthDial::Off,
        };
    }
    c
}

fn temporary(kind: TemporaryKind, since: NaiveDate, until: NaiveDate) -> Temporary {
    let (reason, by) = ("seed".into(), "O. Marrick".into());
    Temporary { id: 0, kind, since, until, reason, by, left_standing: false }
}

fn ahead(c: &Controller, span: [NaiveDate; 2]) -> Vec<(NaiveDate, Vec<Change>)> {
    changes_ahead(c, &Plan::of(c, None), span).into_iter().map(|d| (d.on, d.changes)).collect()
}

#[test]
fn a_panel_with_one_percent_is_set_in_five_months_and_one_with_twelve_never() {
    let year = [day(2026, 1, 1), day(2026, 12, 31)];
    let mut one = panel(Preset::Plain);
    let days = ahead(&one, year);
    let dates: Vec<NaiveDate> = days.iter().map(|(on, _)| *on).collect();
    assert_eq!(dates, [day(2026, 5, 1), day(2026, 6, 1), day(2026, 9, 1), day(2026, 10, 1)]);
    // Off in winter is the switch, since this panel holds no month that is off.
    assert!(!one.capability.months_off);
    let switched =
        |changes: &[Change]| changes.iter().find(|c| c.slot.section == Section::Switch).map(|c| c.slot.value);
    assert_eq!(switched(&days[0].1), Some(Value::SwitchOn));
    assert_eq!(switched(&days[3].1), Some(Value::SwitchOff));
    let sixty = Value::Percent(Percent::new(60).unwrap());
    assert_eq!(days[2].1[0].before, Some(Value::Percent(Percent::FULL)));
    assert_eq!(days[2].1[0].slot.value, sixty);
    // In winter nobody turns the percent: in May it stands where September left it.
    assert_eq!(ahead(&one, [day(2026, 9, 15), day(2027, 5, 2)]).len(), 2);
    one.capability = Preset::Monthly.capability();
    assert!(one.capability.months_off);
    assert_eq!(ahead(&one, year), [], "it turns its months itself");
}

#[test]
fn what_is_set_for_a_while_is_set_and_put_back() {
    let mut c = panel(Preset::Plain);
    let fifty = TemporaryKind::Percent { letter: None, percent: Percent::new(50).unwrap() };
    c.add_temporary(temporary(fifty, day(2026, 6, 10), day(2026, 6, 20)));
    let days = ahead(&c, [day(2026, 6, 5), day(2026, 7, 5)]);
    let figures: Vec<_> = days.iter().map(|(on, changes)| (*on, changes[0].slot.value)).collect();
    let percent = |p| Value::Percent(Percent::new(p).unwrap());
    assert_eq!(figures, [(day(2026, 6, 10), percent(50)), (day(2026, 6, 21), percent(100))]);
    // Nothing before the span counts, nor what is asked on its first day.
    assert_eq!(ahead(&c, [day(2026, 6, 21), day(2026, 7, 5)]), []);
    // A rain delay is set once, and ends by itself.
    let mut c = panel(Preset::Plain);
    c.add_temporary(temporary(TemporaryKind::RainDelay, day(2026, 6, 10), day(2026, 6, 12)));
    assert_eq!(ahead(&c, [day(2026, 6, 5), day(2026, 6, 30)]).len(), 1);
}

#[test]
fn a_weaning_is_a_step_a_week() {
    let mut c = panel(Preset::Plain);
    let weaning = TemporaryKind::Weaning { letter: None, extra_pct: 60, step_pct: 20 };
    c.add_temporary(temporary(weaning, day(2026, 6, 3), day(2026, 6, 23)));
    let days = ahead(&c, [day(2026, 6, 2), day(2026, 6, 30)]);
    let dates: Vec<NaiveDate> = days.iter().map(|(on, _)| *on).collect();
    assert_eq!(dates, [day(2026, 6, 3), day(2026, 6, 10), day(2026, 6, 17), day(2026, 6, 24)]);
}

/// A new lawn: every day at 06:00, 10:00 and 14:00, 30 % of 20 min each, for two weeks; then as usual.
#[test]
fn a_planting_that_grows_in_has_days_and_starts_of_its_own_and_gives_them_back() {
    let mut c = panel(Preset::Monthly);
    let [from, to] = ["06:00", "14:00"].map(time);
    let grow_in = TemporaryKind::GrowIn { letter: A, percent: Percent::new(30).unwrap(), starts: 3, from, to };
    c.add_temporary(temporary(grow_in, day(2026, 6, 10), day(2026, 6, 23)));
    c.check().unwrap();
    let plan = Plan::of(&c, None);
    let runs = expand(&c, &plan, &chrono::Utc, [day(2026, 6, 8), day(2026, 6, 29)], Level::Calendar).runs;
    let on = |d: u32| -> Vec<String> {
        let own = runs.iter().filter(|r| r.date == day(2026, 6, d));
        own.map(|r| format!("{} {}", r.local_start.format("%H:%M"), r.length.minutes())).collect()
    };
    assert_eq!(on(8), ["04:00 20"], "a Monday before");
    assert_eq!(on(9), [""; 0]);
    assert_eq!(on(10), ["06:00 6", "10:00 6", "14:00 6"]);
    assert_eq!(on(15), on(10), "the usual start of Monday is not there");
    assert_eq!((on(23), on(24), on(29)), (on(10), vec![], on(8)));
    // The year's highest percent is that of the usual days and starts.
    let highest = expand(&c, &plan, &chrono::Utc, [day(2026, 6, 10), day(2026, 6, 16)], Level::Highest);
    assert_eq!(highest.starts.iter().map(|s| (s.date, s.by)).collect::<Vec<_>>(), [(day(2026, 6, 15), time("04:00"))]);
    // On the panel: the days and three starts, set on the 10th, and back on the 24th.
    let days = ahead(&c, [day(2026, 6, 8), day(2026, 7, 5)]);
    let dates: Vec<NaiveDate> = days.iter().map(|(on, _)| *on).collect();
    assert_eq!(dates, [day(2026, 6, 10), day(2026, 6, 24)]);
    let starts = |date| -> Vec<Value> {
        slots(&c, &plan, date).into_iter().map(|s| s.value).filter(|v| matches!(v, Value::Start(_))).collect()
    };
    assert_eq!(starts(day(2026, 6, 10)), ["06:00", "10:00", "14:00"].map(|t| Value::Start(time(t))));
    assert_eq!(starts(day(2026, 6, 24)), [Value::Start(time("04:00"))]);
    // More starts than the panel has, and a window that ends before it begins, are refused.
    let with = |starts, from, to| {
        let mut c = panel(Preset::Monthly);
        let kind = TemporaryKind::GrowIn { letter: A, percent: Percent::new(30).unwrap(), starts, from, to };
        c.add_temporary(temporary(kind, day(2026, 6, 10), day(2026, 6, 23)));
        c.check().is_ok()
    };
    let most = c.capability.starts;
    assert_eq!(
        [with(most, from, to), with(most + 1, from, to), with(0, from, to), with(2, to, from)],
        [true, false, false, false]
    );
}

fn any_temporary() -> impl Strategy<Value = Temporary> {
    let kind = prop_oneof![
        (1u16..150).prop_map(|p| TemporaryKind::Percent { letter: None, percent: Percent::new(p).unwrap() }),
        (20u16..90, 5u16..30).prop_map(|(extra_pct, step_pct)| TemporaryKind::Weaning {
            letter: Some(A),
            extra_pct,
            step_pct
        }),
        (1u8..4).prop_map(|starts| TemporaryKind::GrowIn {
            letter: A,
            percent: Percent::new(30).unwrap(),
            starts,
            from: time("06:00"),
            to: time("14:00"),
        }),
        Just(TemporaryKind::RainDelay),
        Just(TemporaryKind::Off),
    ];
    (kind, 0i64..420, 0i64..60).prop_map(|(kind, since, long)| {
        let since = day(2026, 1, 1) + TimeDelta::days(since);
        temporary(kind, since, since + TimeDelta::days(long))
    })
}

proptest! {
    /// Whatever is set for a while: every day's slots read what the changes so far have made of the first day's.
    #[test]
    fn the_changes_lead_from_each_day_to_the_next(
        temporaries in proptest::collection::vec(any_temporary(), 0..4),
        preset in prop_oneof![Just(Preset::Plain), Just(Preset::Monthly)],
    ) {
        let mut c = panel(preset);
        for t in temporaries {
            c.add_temporary(t);
        }
        let plan = Plan::of(&c, None);
        let span = [day(2026, 2, 10), day(2027, 3, 1)];
        let days = changes_ahead(&c, &plan, span);
        let mut panel: HashMap<String, Value> =
            slots(&c, &plan, span[0]).iter().filter(|s| !s.is_clock()).map(|s| (s.key(), s.value)).collect();
        for date in span[0].iter_days().skip(1).take_while(|d| *d <= span[1]) {
            for change in days.iter().filter(|d| d.on == date).flat_map(|d| &d.changes) {
                prop_assert_ne!(Some(change.slot.value), change.before);
                prop_assert_eq!(panel.insert(change.slot.key(), change.slot.value), change.before);
            }
            for slot in slots(&c, &plan, date).iter().filter(|s| !s.is_clock()) {
                prop_assert_eq!(panel.get(&slot.key()), Some(&slot.value), "{} on {}", slot.key(), date);
            }
        }
    }
}
