//! What comes within a year, by date: on the page and in the calendar.

use chrono::{NaiveDate, TimeDelta};
use upland_core::controller::{Days, PercentStorage};
use upland_core::place::{DayOfYear, DayRule, Season, SeasonRule};

use super::each;
use super::fixture::{Half, context};
use crate::context::{ControllerContext, PlaceContext};
use crate::pages::ahead::{Coming, Dated, ahead, by_month, clock_changes};
use crate::pages::field::FieldState;

/// A panel that holds one percent for the whole year, and a sensor with a battery.
fn coming(half: Half) -> Vec<Dated> {
    let mut context = context(half);
    let (c, today) = (&mut context.controller.value.controller, half.today());
    c.capability.percent_storage = PercentStorage::Single;
    c.sensors[0].battery = "CR2032".into();
    c.sensors[0].battery_on = Some(today - TimeDelta::days(300));
    let context = ControllerContext::new(context.controller, context.at);
    ahead(&context, &FieldState::default(), today)
}

#[test]
fn the_year_ahead() {
    each("ahead", |half, _| {
        let (dated, clocks) = (coming(half), clock_changes(&[chrono_tz::Europe::Vienna], half.today()));
        let all: Vec<Coming> = dated.iter().chain(&clocks).map(|dated| Coming { head: None, dated }).collect();
        let events: Vec<String> = all.iter().map(|c| format!("{:?}", c.event())).collect();
        format!("{:#?}\n{}", by_month(&all), events.join("\n"))
    });
}

#[test]
fn everything_lies_ahead_within_a_year_and_in_order() {
    for half in [Half::North, Half::South] {
        let (dated, today) = (coming(half), half.today());
        assert!(!dated.is_empty());
        assert!(dated.iter().all(|d| d.on > today && d.on <= today + TimeDelta::days(366)), "{dated:#?}");
        assert!(dated.is_sorted_by_key(|d| d.on));
        let mut names: Vec<_> = dated.iter().map(|d| (d.on, &d.key)).collect();
        names.dedup();
        assert_eq!(names.len(), dated.len(), "two events of a calendar would be one");
    }
}

#[test]
fn clocks_change_twice_a_year_where_they_do_and_once_for_two_zones_on_a_day() {
    let on =
        |zones: &[chrono_tz::Tz], from| -> Vec<NaiveDate> { clock_changes(zones, from).iter().map(|d| d.on).collect() };
    let day = |y, m, d| NaiveDate::from_ymd_opt(y, m, d).unwrap();
    use chrono_tz::{Africa::Accra, Europe::Lisbon, Europe::Vienna};
    assert_eq!(on(&[Vienna], day(2026, 6, 11)), [day(2026, 10, 25), day(2027, 3, 28)]);
    assert_eq!(on(&[Vienna, Lisbon], day(2026, 6, 11)), [day(2026, 10, 25), day(2027, 3, 28)]);
    assert!(on(&[Accra], day(2026, 6, 11)).is_empty());
    assert!(on(&[], day(2026, 6, 11)).is_empty());
    // The day itself has passed its first hours already.
    assert_eq!(on(&[Vienna], day(2026, 10, 25)).first(), Some(&day(2027, 3, 28)));
}

#[test]
fn rules_of_another_season_are_told_of_and_whether_the_schedule_keeps_them() {
    let half = Half::North;
    let mut full = context(half);
    // Its second program runs on Sundays, on which nobody may water there.
    full.controller.value.controller.programs[1].schedule.starts.clear();
    let place = &mut full.at.place.value;
    let day = |month, day| DayOfYear::new(month, day).unwrap();
    let only = |days: &[chrono::Weekday]| SeasonRule {
        season: Season { from: day(7, 1), to: day(8, 31) },
        days: DayRule::Weekdays(Days::of(days.iter().copied())),
        hours: Vec::new(),
    };
    let mark = |rule: SeasonRule, place: &mut crate::context::PlaceRecord| {
        place.rules.seasons = vec![rule];
        let at = PlaceContext::new(
            crate::context::Versioned { id: full.at.place.id, version: 1, value: place.clone() },
            full.at.weather.clone(),
        );
        let context = ControllerContext::new(full.controller.clone(), at);
        let first = NaiveDate::from_ymd_opt(2026, 7, 1).unwrap();
        let dated = ahead(&context, &FieldState::default(), half.today());
        dated.into_iter().find(|d| d.key == "rules" && d.on == first).map(|d| d.mark)
    };
    // Nothing on the panel runs on a Sunday only.
    assert_eq!(mark(only(&[chrono::Weekday::Sun]), place), Some("caution"));
    assert_eq!(mark(only(&Days::WEEK), place), Some("flag"));
}
