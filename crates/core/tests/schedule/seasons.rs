//! Water rules that change with the season.

use chrono::Weekday::{Fri, Mon, Sat, Tue, Wed};
use upland_core::controller::*;
use upland_core::place::{Allowed, Bound, DayOfYear, Season};
use upland_core::schedule::*;

use crate::builders::*;

const A: ProgramLetter = ProgramLetter::A;

/// A summer of two days a week: the same schedule is fine in May and breaks the rule in June.
#[test]
fn a_rule_of_a_season_binds_the_week_that_it_falls_in() {
    let day = |month, day| DayOfYear::new(month, day).unwrap();
    let summer = Allowed { days: Days::of([Tue, Sat]), ..Allowed::default() };
    let rules = Bound { seasons: vec![(Season { from: day(6, 1), to: day(8, 31) }, summer)], ..Bound::open() };
    let around = Surroundings { rules, normals: None };
    let mut c = controller(vec![station(1, A, 20)]);
    set(&mut c, A, DayMode::Weekdays(Days::of([Mon, Wed, Fri])), &["04:00"]);
    let week = |first: &str| Situation { first: first.parse().unwrap(), ..around.situation() };
    let in_week = |first: &str| check(&week(first), &c).iter().map(Finding::code).collect::<Vec<_>>();
    assert!(!in_week("2026-05-18").contains(&Code::ForbiddenDay));
    assert!(in_week("2026-06-08").contains(&Code::ForbiddenDay));
    // 31 August is the Monday of a week in which any day is open from Tuesday on: what is left is one date.
    assert_eq!(check(&week("2026-08-31"), &c)[0].problem, Problem::ForbiddenWeekdays { days: Days::of([Mon]) });
    // What is to come is known before: in 366 days the rule comes and goes, and only its coming breaks it.
    let ahead = rule_changes(&week("2026-05-18"), &c, "2027-05-19".parse().unwrap());
    let expected = [("2026-06-01", true), ("2026-09-01", false)];
    assert_eq!(ahead, expected.map(|(on, breaks)| RuleChange { on: on.parse().unwrap(), breaks }));
    // A proposal for June keeps to the days of June.
    let proposal = propose(&week("2026-06-08"), &c, Grouping::Keep);
    assert!(check(&week("2026-06-08"), &proposal.controller).iter().all(|f| f.code() != Code::ForbiddenDay));
    assert!(proposal.days().iter().all(|d| [Tue, Sat].contains(&d)));
}
