use super::*;
use crate::controller::StartTime;
use crate::place::DayOfYear;
use chrono::Weekday::{Mon, Sat, Sun, Thu, Tue};
use chrono::{Datelike, NaiveDateTime, TimeDelta};

fn hours(from: &str, to: &str) -> Hours {
    Hours { from: StartTime::read(from).unwrap(), to: StartTime::read(to).unwrap() }
}

fn at(text: &str) -> NaiveDateTime {
    NaiveDateTime::parse_from_str(text, "%Y-%m-%d %H:%M").unwrap()
}

fn forbidden(bound: &Bound, began: &str, start: NaiveDateTime, stop: NaiveDateTime) -> Option<NaiveDateTime> {
    bound.first_forbidden(began.parse().unwrap(), start, stop)
}

#[test]
fn days_go_by_the_house_number() {
    let parity =
        Rules { days: DayRule::ByParity { odd: Days::of([Tue, Sat]), even: Days::of([Mon, Thu]) }, ..Rules::default() };
    assert_eq!(parity.allowed_days("14b"), Ok(Days::of([Mon, Thu])));
    assert_eq!(parity.allowed_days("3"), Ok(Days::of([Tue, Sat])));
    assert_eq!(parity.check(""), Err(RulesError::HouseNumber));
    let mut digits = [Days::NONE; 10];
    digits[4] = Days::of([Sun]);
    let digit = Rules { days: DayRule::ByLastDigit(digits), ..Rules::default() };
    assert_eq!(digit.allowed_days("114-116"), Ok(Days::of([Sun])));
    assert_eq!(digit.check("5"), Err(RulesError::NoDay));
}

#[test]
fn never_water_days_come_off_whatever_the_authority_allows() {
    let rules = Rules { never: Days::of([Thu]), ..Rules::default() };
    assert_eq!(rules.allowed_days("").unwrap().count(), 6);
    assert_eq!(Rules { never: Days::ALL, ..Rules::default() }.check(""), Err(RulesError::NoDay));
}

#[test]
fn the_hour_by_which_watering_is_done_is_the_places_own() {
    let by = |at| Rules { done_by: StartTime::read(at), ..Rules::default() };
    for (at, expected) in
        [("05:00", Ok(())), ("12:00", Ok(())), ("04:59", Err(RulesError::DoneBy)), ("12:01", Err(RulesError::DoneBy))]
    {
        assert_eq!(by(at).check(""), expected, "{at}");
    }
    let authority = Rules { hours: vec![hours("10:00", "18:00")], ..by("09:00") };
    let here = by("07:30").under(&authority);
    assert_eq!((here.done_by, here.hours.len()), (StartTime::read("07:30"), 1));
    assert!(!by("07:30").is_open() && !by("07:30").has_authority() && authority.has_authority());
    assert_eq!(here.bind("").in_use().unwrap().usual.hours, [(450, 1020)]);
    assert_eq!(Rules::default().bind("").in_use(), None);
}

#[test]
fn odd_houses_water_on_odd_dates_and_the_31st_only_where_the_rule_lets_them() {
    let on = |house: &str, with_31st| {
        let rules = Rules { days: DayRule::ByDate { with_31st }, ..Rules::default() };
        rules.check(house).unwrap();
        let bound = rules.bind(house);
        let first = NaiveDate::from_ymd_opt(2026, 7, 29).unwrap();
        (0..5).map(|n| first + TimeDelta::days(n)).filter(|d| bound.allows_day(*d)).map(|d| d.day()).collect::<Vec<_>>()
    };
    assert_eq!(on("7", true), [29, 31, 1]);
    assert_eq!(on("7", false), [29, 1]);
    assert_eq!(on("12b", false), [30, 2]);
    let rules = Rules { days: DayRule::ByDate { with_31st: true }, ..Rules::default() };
    assert_eq!(rules.check(""), Err(RulesError::HouseNumber));
    assert_eq!(rules.bind("7").limit(crate::controller::Preset::Plain.capability()).watering_days, 4);
}

#[test]
fn dates_of_an_event_are_closed_and_a_ban_may_close_some_hours_alone() {
    let day = |d| NaiveDate::from_ymd_opt(2026, 8, d).unwrap();
    let event = ClosedDates { from: day(8), to: day(9), why: "wedding".into() };
    let ban = Ban { from: day(3), to: day(5), hours: Some(hours("20:00", "06:00")) };
    let rules = Rules { closed: vec![event.clone()], ban: Some(ban), ..Rules::default() };
    assert_eq!(rules.check(""), Ok(()));
    let bound = rules.bind("");
    let open: Vec<u32> = (3..=10).map(day).filter(|d| bound.allows_day(*d)).map(|d| d.day()).collect();
    assert_eq!(open, [3, 4, 5, 6, 7, 10]);
    assert_eq!(
        forbidden(&bound, "2026-08-04", at("2026-08-04 05:00"), at("2026-08-04 07:00")),
        Some(at("2026-08-04 05:00"))
    );
    assert_eq!(forbidden(&bound, "2026-08-06", at("2026-08-06 05:00"), at("2026-08-06 07:00")), None);
    let turned = ClosedDates { from: day(9), to: day(8), ..event };
    assert_eq!(Rules { closed: vec![turned], ..Rules::default() }.check(""), Err(RulesError::Closed(0)));
}

/// Two days a week in summer, any day from 1 October on, over the turn of the year to the end of April.
#[test]
fn a_season_has_days_and_hours_of_its_own_and_may_go_over_the_turn_of_the_year() {
    let day = |month, day| DayOfYear::new(month, day).unwrap();
    let winter = SeasonRule {
        season: Season { from: day(10, 1), to: day(4, 30) },
        days: DayRule::Any,
        hours: vec![hours("20:00", "08:00")],
    };
    let rules = Rules {
        days: DayRule::Weekdays(Days::of([Tue, Sat])),
        hours: vec![hours("10:00", "18:00")],
        seasons: vec![winter.clone()],
        ..Rules::default()
    };
    assert_eq!(rules.check(""), Ok(()));
    let bound = rules.bind("");
    let date = |text: &str| text.parse::<NaiveDate>().unwrap();
    // 30 September and 1 October 2026 are a Wednesday and a Thursday, 30 April and 1 May a Thursday and a Friday.
    let open = ["2026-09-30", "2026-10-01", "2026-12-31", "2027-01-01", "2027-02-28", "2026-04-30", "2026-05-01"]
        .map(|d| bound.allows_day(date(d)));
    assert_eq!(open, [false, true, true, true, true, true, false]);
    assert!(bound.allows_day(date("2028-02-29")));
    assert_eq!(bound.closed_minutes(date("2026-12-31")).collect::<Vec<_>>(), [(1200, 1440), (0, 480)]);
    assert_eq!(bound.closed_minutes(date("2026-06-02")).collect::<Vec<_>>(), [(600, 1080)]);
    assert_eq!(bound.changes_after(date("2026-06-11")), Some(date("2026-10-01")));
    assert_eq!(bound.changes_after(date("2026-12-31")), Some(date("2027-05-01")));
    assert_eq!(Bound::open().changes_after(date("2026-06-11")), None);
    // A year is planned by the days of its widest season, a date by its own.
    let seven = crate::controller::Preset::Plain.capability();
    let seven = crate::controller::Capability { watering_days: 7, ..seven };
    assert_eq!(bound.limit(seven).watering_days, 7);
    assert_eq!(bound.on(date("2026-06-11")).limit(seven).watering_days, 2);
    assert_eq!(bound.days_all_year(), Days::of([Tue, Sat]));
    // The evening of 30 September is open until midnight, when the winter's hours begin.
    assert_eq!(
        forbidden(&bound, "2026-09-29", at("2026-09-29 23:00"), at("2026-10-01 01:00")),
        Some(at("2026-09-30 00:00"))
    );
    let meets = SeasonRule { season: Season { from: day(4, 30), to: day(6, 1) }, ..winter.clone() };
    let two = Rules { seasons: vec![winter, meets], ..rules };
    assert_eq!(two.check(""), Err(RulesError::Seasons));
}

#[test]
fn seasons_meet_where_they_share_a_day() {
    let season = |from: (u8, u8), to: (u8, u8)| Season {
        from: DayOfYear::new(from.0, from.1).unwrap(),
        to: DayOfYear::new(to.0, to.1).unwrap(),
    };
    let summer = season((5, 1), (9, 30));
    for (other, meets) in [
        (season((10, 1), (4, 30)), false),
        (season((9, 30), (10, 2)), true),
        (season((6, 1), (6, 2)), true),
        (season((11, 1), (5, 1)), true),
        (season((1, 1), (12, 31)), true),
    ] {
        assert_eq!((summer.meets(other), other.meets(summer)), (meets, meets), "{other:?}");
    }
    assert_eq!((DayOfYear::new(2, 30), DayOfYear::new(13, 1)), (None, None));
}

/// What an authority changes is changed everywhere; what a place closes itself stays its own.
#[test]
fn places_are_under_the_same_rules_whatever_they_close_themselves() {
    let town = Rules { hours: vec![hours("10:00", "18:00")], authority: "Town".into(), ..Rules::default() };
    let mown = Rules { never: Days::of([Thu]), ..town.clone() };
    let stricter = Rules { days: DayRule::Weekdays(Days::of([Tue, Sat])), ..town.clone() };
    let after = mown.under(&stricter);
    assert_eq!((after.never, after.days), (Days::of([Thu]), stricter.days));
    assert!(town.has_authority());
    assert!(!Rules { never: Days::of([Thu]), ..Rules::default() }.has_authority());
}

/// A run that began on an open evening is in a closed day from midnight on.
#[test]
fn a_run_past_midnight_into_a_closed_day_is_forbidden_from_midnight_on() {
    let bound = Rules { never: Days::of([Thu]), ..Rules::default() }.bind("");
    assert_eq!(forbidden(&bound, "2026-06-10", at("2026-06-10 23:30"), at("2026-06-11 00:00")), None);
    assert_eq!(
        forbidden(&bound, "2026-06-10", at("2026-06-10 23:30"), at("2026-06-11 00:40")),
        Some(at("2026-06-11 00:00"))
    );
    assert_eq!(
        forbidden(&bound, "2026-06-11", at("2026-06-11 23:30"), at("2026-06-12 00:40")),
        None,
        "the day of its start is its own finding"
    );
    // The second station of a program that began on the open evening.
    let second = forbidden(&bound, "2026-06-10", at("2026-06-11 00:10"), at("2026-06-11 00:40"));
    assert_eq!(second, Some(at("2026-06-11 00:10")));
}

#[test]
fn a_free_stretch_runs_across_midnight() {
    let bound = Rules { hours: vec![hours("10:00", "18:00")], ..Rules::default() }.bind("");
    assert_eq!(bound.usual.free_minutes(), [(0, 600), (1080, 1440)]);
    assert_eq!(bound.usual.free_stretches(), [(1080, 1440 + 600)]);
    assert_eq!(Allowed::default().free_stretches(), [(0, 1440)]);
    let two = Rules { hours: vec![hours("00:00", "02:00"), hours("10:00", "18:00")], ..Rules::default() }.bind("");
    assert_eq!(two.usual.free_stretches(), [(120, 600), (1080, 1440)], "midnight itself is closed");
}

#[test]
fn hours_may_go_over_midnight() {
    let rules = Rules { hours: vec![hours("22:00", "03:00"), hours("10:00", "18:00")], ..Rules::default() };
    assert_eq!(rules.bind("").usual.free_minutes(), [(180, 600), (1080, 1320)]);
    let bound = rules.bind("");
    assert_eq!(
        forbidden(&bound, "2026-06-08", at("2026-06-08 21:00"), at("2026-06-08 23:00")),
        Some(at("2026-06-08 22:00"))
    );
    assert_eq!(forbidden(&bound, "2026-06-08", at("2026-06-08 04:00"), at("2026-06-08 10:00")), None);
    assert_eq!(
        forbidden(&bound, "2026-06-08", at("2026-06-08 09:59"), at("2026-06-08 10:01")),
        Some(at("2026-06-08 10:00"))
    );
    assert_eq!(Rules { hours: vec![hours("06:00", "06:00")], ..Rules::default() }.check(""), Err(RulesError::NoHour));
}

#[test]
fn a_ban_closes_its_days_and_no_others() {
    let day = |d| NaiveDate::from_ymd_opt(2026, 8, d).unwrap();
    let rules = Rules { ban: Some(Ban { from: day(3), to: day(5), hours: None }), ..Rules::default() };
    let open: Vec<u32> = (1..=7).map(day).filter(|d| rules.bind("").allows_day(*d)).map(|d| d.day()).collect();
    assert_eq!(open, [1, 2, 6, 7]);
    assert_eq!(
        Rules { ban: Some(Ban { from: day(5), to: day(3), hours: None }), ..rules }.check(""),
        Err(RulesError::Ban)
    );
}
