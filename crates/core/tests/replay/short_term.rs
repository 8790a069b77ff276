//! The percent for a wet or a hot week.

use chrono::TimeDelta;
use proptest::prelude::*;
use upland_core::controller::*;
use upland_core::place::Bound;
use upland_core::quantity::Percent;
use upland_core::replay::{Recent, Season};
use upland_core::schedule::Plan;
use upland_core::tuning::{ShortTerm, short_term};

use crate::builders::*;

/// An hour on Monday and Thursday: 24 mm a week, where K_L 1 at 24 / 7 mm a day uses as much.
fn lawn() -> Controller {
    let mut c = controller(vec![station(1, A, 60)]);
    set(&mut c, A, mondays_and_thursdays(), &["04:30"]);
    c
}

fn even(days: i64, rain: &[(i64, f64)]) -> Season {
    let mut season = season(days, rain);
    season.et0_mm.fill(24.0 / 7.0);
    season
}

/// Asked on the morning after the season, since a week before.
fn ask(c: &Controller, season: &Season) -> ShortTerm {
    ask_at(c, season, 24.0 / 7.0)
}

fn ask_at(c: &Controller, season: &Season, et0_mm_per_day: f64) -> ShortTerm {
    let plan = Plan::of(c, None);
    let today = *season.dates.last().unwrap() + TimeDelta::days(1);
    let recent = Recent {
        controller: c,
        plan: &plan,
        rules: &Bound::open(),
        season,
        sunrise_hours: [6.0; 12],
        since: today - TimeDelta::days(7),
    };
    short_term(&recent, A, today, et0_mm_per_day).unwrap()
}

/// Monday morning after four plain weeks: 10.3 mm are missing, and to Thursday evening 13.7 more are used.
/// That is what a week uses, 24 mm, and what two waterings give.
#[test]
fn a_plain_week_stays_at_a_hundred() {
    let found = ask(&lawn(), &even(28, &[]));
    assert_eq!((found.waterings, found.days, found.base_mm), (2, 4, 12.0));
    assert!((found.percent_exact - 100.0).abs() < 0.01, "{found:?}");
    assert!((found.watered_mm - 24.0).abs() < 1e-9 && (found.used_mm - 24.0).abs() < 1e-9);
    assert_eq!(found.until, monday() + TimeDelta::days(34));
}

/// In a month that is off there is nothing to turn down, and nothing is turned on.
#[test]
fn a_month_that_is_off_is_not_woken_by_rain() {
    let mut c = lawn();
    let season = even(28, &[(27, 8.0)]);
    let today = *season.dates.last().unwrap() + TimeDelta::days(1);
    let asked = |c: &Controller| {
        let plan = Plan::of(c, None);
        let rules = Bound::open();
        let since = today - TimeDelta::days(7);
        let sunrise_hours = [6.0; 12];
        let recent = Recent { controller: c, plan: &plan, rules: &rules, season: &season, sunrise_hours, since };
        short_term(&recent, A, today, 3.0)
    };
    assert!(asked(&c).is_some());
    c.programs[0].months[chrono::Datelike::month0(&today) as usize].dial = MonthDial::Off;
    assert_eq!(asked(&c), None);
}

/// 60 mm a week ago are used up or gone; 60 mm yesterday leave nothing missing.
#[test]
fn the_order_of_days_matters() {
    let ago = ask(&lawn(), &even(28, &[(21, 60.0)]));
    let yesterday = ask(&lawn(), &even(28, &[(27, 60.0)]));
    assert_eq!((ago.rain_mm, yesterday.rain_mm), (60.0, 60.0));
    assert!(yesterday.missing_mm < 0.01 && ago.missing_mm > 10.0, "{ago:?} {yesterday:?}");
    // By hand: (0 + 4 x 3.43) / 24 = 57 %.
    assert!((yesterday.percent_exact - 57.143).abs() < 0.01, "{}", yesterday.percent_exact);
    assert!(ago.percent_exact > 95.0, "{}", ago.percent_exact);
}

/// A rain delay that is on record ran nothing on its days, and a percent for a while ran at that.
#[test]
fn what_was_set_for_a_while_is_counted() {
    let from = monday() + TimeDelta::days(21);
    let with = |kind| {
        let mut c = lawn();
        let until = from + TimeDelta::days(6);
        c.add_temporary(Temporary {
            id: 0,
            kind,
            since: from,
            until,
            reason: "storm".into(),
            by: "Oda".into(),
            left_standing: false,
        });
        ask(&c, &even(28, &[]))
    };
    let delayed = with(TemporaryKind::RainDelay);
    assert_eq!(delayed.watered_mm, 0.0);
    assert!(delayed.percent_exact > 160.0 && delayed.percent_exact < 210.0, "{}", delayed.percent_exact);
    let half = with(TemporaryKind::Percent { letter: Some(A), percent: Percent::new(50).unwrap() });
    assert!((half.watered_mm - 12.0).abs() < 1e-9);
}

/// Soaked through before the only watering of a week that uses next to nothing: off is nearer than the
/// lowest percent.
#[test]
fn a_soaked_week_is_off() {
    let mut c = lawn();
    set(&mut c, A, DayMode::Weekdays(Days::of([chrono::Weekday::Mon])), &["04:30"]);
    let found = ask_at(&c, &even(28, &[(26, 40.0), (27, 60.0)]), 0.2);
    assert_eq!((found.percent, found.days), (None, 1), "{found:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    #[test]
    fn more_rain_never_raises_the_percent(
        rain in proptest::collection::vec(0.0..20.0f64, 28), day in 0usize..28, more in 0.0..40.0f64,
    ) {
        let mut season = even(28, &[]);
        season.rain_mm.copy_from_slice(&rain);
        let before = ask(&lawn(), &season);
        season.rain_mm[day] += more;
        let after = ask(&lawn(), &season);
        prop_assert!(after.percent_exact <= before.percent_exact + 1e-9);
    }
}
