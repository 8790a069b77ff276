//! Rules of an authority, in a sentence.

use chrono::NaiveDate;
use upland_core::controller::{Days, Hours, StartTime};
use upland_core::place::{Ban, ClosedDates, DayOfYear, DayRule, Rules, Season, SeasonRule};

use crate::pages::rules_form::rules_line;

fn hours(from: &str, to: &str) -> Hours {
    let at = |text| StartTime::read(text).unwrap();
    Hours { from: at(from), to: at(to) }
}

fn date(month: u32, day: u32) -> NaiveDate {
    NaiveDate::from_ymd_opt(2026, month, day).unwrap()
}

#[test]
fn each_kind_of_rule_in_words() {
    use chrono::Weekday::{Mon, Sat, Sun, Thu};
    let days = |days| Rules { days, ..Rules::default() };
    let day = |month, day| DayOfYear::new(month, day).unwrap();
    let winter = SeasonRule {
        season: Season { from: day(10, 15), to: day(2, 29) },
        days: DayRule::Weekdays(Days::of([Sat])),
        hours: vec![hours("10:00", "16:00")],
    };
    let summer = SeasonRule { season: Season { from: day(6, 1), to: day(8, 31) }, days: DayRule::Any, hours: vec![] };
    let closed = |from, to, why: &str| ClosedDates { from, to, why: why.into() };
    let ban = Ban { from: date(7, 1), to: date(8, 15), hours: None };
    let digits = std::array::from_fn(|d| Days::of([if d % 2 == 0 { Mon } else { Thu }]));
    let all: Vec<(&str, Rules)> = vec![
        ("none", Rules::default()),
        ("weekdays", days(DayRule::Weekdays(Days::of([Mon, Thu])))),
        ("odd and even houses", days(DayRule::ByParity { odd: Days::of([Mon]), even: Days::of([Thu]) })),
        ("by the last digit", days(DayRule::ByLastDigit(digits))),
        ("by date", days(DayRule::ByDate { with_31st: false })),
        ("by date, the 31st too", days(DayRule::ByDate { with_31st: true })),
        ("never on Sunday", Rules { never: Days::of([Sun]), ..Rules::default() }),
        ("closed hours", Rules { hours: vec![hours("10:00", "18:00"), hours("22:00", "04:00")], ..Rules::default() }),
        ("seasons", Rules { seasons: vec![summer, winter], ..Rules::default() }),
        (
            "closed dates",
            Rules {
                closed: vec![closed(date(5, 1), date(5, 1), ""), closed(date(6, 19), date(6, 21), "the market")],
                ..Rules::default()
            },
        ),
        ("a ban", Rules { ban: Some(ban), ..Rules::default() }),
        ("a ban by day", Rules { ban: Some(Ban { hours: Some(hours("08:00", "20:00")), ..ban }), ..Rules::default() }),
        ("done by", Rules { done_by: StartTime::read("07:00"), ..Rules::default() }),
        ("a sensor", Rules { needs_sensor: true, ..Rules::default() }),
    ];
    let told: Vec<String> = all
        .iter()
        .flat_map(|(name, rules)| ["14", "7"].map(|house| format!("{name}, {house}: {}", rules_line(rules, house))))
        .collect();
    insta::assert_snapshot!("rules", told.join("\n"));
}

#[test]
fn rules_that_say_nothing_say_so_and_others_never_do() {
    let open = rules_line(&Rules::default(), "14");
    let sensor = Rules { needs_sensor: true, ..Rules::default() };
    assert_ne!(rules_line(&sensor, "14"), open);
    assert!(!rules_line(&sensor, "").is_empty());
}
