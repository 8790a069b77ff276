//! Daily doses are the dated runs, cut at midnight.

use std::collections::BTreeMap;

use chrono::{NaiveDate, NaiveTime, TimeDelta, Utc};
use upland_core::controller::*;
use upland_core::landscape::{CycleSoak, Slope, Soil, SprinklerType};
use upland_core::place::Bound;
use upland_core::replay::{Ground, Keep, Kind, PercentBy, Scheduled, Season, replay};
use upland_core::schedule::{Level, Plan, expand};

use crate::builders::*;

/// Seconds of each station on each date, from the dated runs.
fn by_runs(c: &Controller, season: &Season) -> BTreeMap<(u8, NaiveDate), f64> {
    let span = [season.dates[0] - TimeDelta::days(1), *season.dates.last().unwrap()];
    let mut out = BTreeMap::new();
    for run in expand(c, &Plan::of(c, None), &Utc, span, Level::Calendar).runs {
        let midnight = (run.local_start.date() + TimeDelta::days(1)).and_time(NaiveTime::MIN);
        let before = (run.local_stop().min(midnight) - run.local_start).num_seconds();
        let after = (run.local_stop() - run.local_start).num_seconds() - before;
        *out.entry((run.station, run.local_start.date())).or_insert(0.0) += before as f64;
        if after > 0 {
            *out.entry((run.station, midnight.date())).or_insert(0.0) += after as f64;
        }
    }
    out
}

#[test]
fn doses_come_to_what_the_runs_give_on_every_date() {
    let next = monday();
    for days in [
        DayMode::Weekdays(Days::ALL),
        DayMode::Odd,
        DayMode::Even,
        DayMode::Every { days: 3, next },
        mondays_and_thursdays(),
    ] {
        let mut c = controller(vec![station(1, A, 50), station(2, A, 45), station(3, B, 130)]);
        c.stations[0].cycle = Some(CycleSoak { cycle: min(12), soak: min(30) });
        c.stations[1].also = Some(B);
        set(&mut c, A, days, &["04:30", "23:10"]);
        set(&mut c, B, DayMode::Even, &["05:00", "22:00"]);
        c.programs[0].months[6].waterings = Some(1);
        let season = season(70, &[]);
        let replayed = run(&c, &season, &Bound::open(), Kind::ByMonth);
        let runs = by_runs(&c, &season);
        for number in 1..=3 {
            // The first day may still have water of the day before, which no replay knows.
            for (date, mm) in season.dates.iter().zip(applied(&replayed, number)).skip(1) {
                let wanted = runs.get(&(number, *date)).copied().unwrap_or(0.0) / 3600.0 * 12.0;
                // B of the evening before may push A's night start past midnight: water moves, none is lost.
                assert!((mm - wanted).abs() < 1e-6, "{days:?} {number} {date}: {mm} against {wanted}");
            }
        }
    }
}

/// What really ran while a planting grew in, day by day, at starts of its own.
#[test]
fn doses_of_a_planting_that_grows_in_are_those_of_its_runs() {
    let season = season(30, &[]);
    let mut c = controller(vec![station(1, A, 50), station(2, B, 20)]);
    set(&mut c, A, mondays_and_thursdays(), &["23:10"]);
    set(&mut c, B, DayMode::Even, &["05:00"]);
    let [from, to] = ["06:00", "23:45"].map(|t| StartTime::read(t).unwrap());
    for (letter, since, starts) in [(A, 3, 3), (B, 6, 2), (A, 20, 4)] {
        let percent = upland_core::quantity::Percent::new(30).unwrap();
        let [since, until] = [since, since + 8].map(|n| season.dates[0] + TimeDelta::days(n));
        let kind = TemporaryKind::GrowIn { letter, percent, starts, from, to };
        let (reason, by) = ("sown".into(), "Oda".into());
        c.add_temporary(Temporary { id: 0, kind, since, until, reason, by, left_standing: false });
    }
    let plan = Plan::of(&c, None);
    let ground = Ground::of(&c);
    let rules = Bound::open();
    let mut strategy = Scheduled::new(&c, &plan, &ground, PercentBy::Month).on_its_dates();
    let replayed = replay(&ground, &season, &rules, &mut strategy, Keep::Days);
    let runs = by_runs(&c, &season);
    for number in 1..=2 {
        for (date, mm) in season.dates.iter().zip(applied(&replayed, number)).skip(1) {
            let wanted = runs.get(&(number, *date)).copied().unwrap_or(0.0) / 3600.0 * 12.0;
            assert!((mm - wanted).abs() < 1e-6, "{number} {date}: {mm} against {wanted}");
        }
    }
}

/// 30 min at 40 mm/h on level clay: 13.65 mm of 20 run off. In cycles with a soak none does.
#[test]
fn a_run_in_cycles_loses_less_than_one_at_once() {
    let lost = |cycle: Option<CycleSoak>| {
        let mut bank = station(1, A, 30);
        bank.sprinkler.kind = SprinklerType::Spray;
        bank.sprinkler.rate = upland_core::quantity::RateMmPerHour::new(40.0).ok();
        (bank.soil, bank.slope, bank.cycle) = (Soil::Clay, Slope::Level, cycle);
        let mut c = controller(vec![bank]);
        set(&mut c, A, mondays_and_thursdays(), &["00:30"]);
        let replayed = run(&c, &season(2, &[]), &Bound::open(), Kind::ByMonth);
        replayed.station(1).unwrap().totals[0].runoff_mm
    };
    assert!((lost(None) - 13.65).abs() < 1e-9, "{}", lost(None));
    assert_eq!(lost(Some(CycleSoak { cycle: min(8), soak: min(120) })), 0.0);
    let short = lost(Some(CycleSoak { cycle: min(8), soak: min(30) }));
    assert!(short > 0.0 && short < 13.65);
}

/// Water of the driest quarter is the mean times DU_lq.
#[test]
fn the_driest_quarter_gets_its_share() {
    let mut uneven = station(1, A, 60);
    uneven.sprinkler.uniformity = Some(0.6);
    let mut c = controller(vec![uneven]);
    set(&mut c, A, mondays_and_thursdays(), &["04:00"]);
    let replayed = run(&c, &season(28, &[]), &Bound::open(), Kind::ByMonth);
    let [mean, low] = replayed.station(1).unwrap().totals;
    assert!((mean.applied_mm - 8.0 * 12.0).abs() < 1e-9);
    assert!((low.applied_mm - 0.6 * mean.applied_mm).abs() < 1e-9);
    assert!(low.stress_days > mean.stress_days);
}
