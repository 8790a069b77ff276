//! A controller's year, worked by hand and as a whole.

use upland_core::budget::{BudgetError, Dial, StationGuess, base_minutes_if, effective_rain, uncertainty, year_budget};
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::*;
use upland_core::landscape::{Exposure, Plant, Planting, Soil, Sprinkler, SprinklerType, WaterNeed};
use upland_core::quantity::{MonthOfYear, Percent, RateMmPerHour};

/// A year of our own: 1 mm a day in January up to 5 in July, and back.
pub(crate) fn normals(rain: Option<f64>) -> Normals {
    [1.0, 1.2, 1.8, 2.6, 3.6, 4.5, 5.0, 4.4, 3.1, 1.9, 1.1, 0.9]
        .map(|et0_mm_per_day| MonthNormal { et0_mm_per_day, rain_mm: rain })
}

pub(crate) fn lawn(number: u8) -> Station {
    Station {
        number,
        name: format!("Lawn {number}"),
        program: ProgramLetter::A,
        plant: Plant::CoolTurf,
        sprinkler: Sprinkler {
            kind: SprinklerType::Spray,
            rate: Some(RateMmPerHour::new(30.0).unwrap()),
            uniformity: Some(0.62),
        },
        soil: Soil::Loam,
        exposure: Exposure::Open,
        roofed: false,
        area_m2: Some(95.0),
        ..Station::plain(number, "Lawn", Plant::CoolTurf, SprinklerType::Spray)
    }
}

pub(crate) fn controller(preset: Preset, stations: Vec<Station>) -> Controller {
    let mut controller = Controller { stations, ..Controller::new("Cabinet".into(), preset.capability()) };
    controller.normalise_programs();
    controller.check().unwrap();
    controller
}

/// By hand: ET_L 5 x 0.95 = 4.75 mm a day in July, no rain. RAW = 0.40 x 155 x 0.30 = 18.6 mm,
/// interval floor(18.6 / 4.75) = 3 days, so ceil(7 / 3) = 3 waterings. Net 4.75 x 7 / 3 = 11.083 mm;
/// multiplier 1 / (0.4 + 0.6 x 0.62) = 1.2953; minutes 60 x 11.083 / 30 x 1.2953 = 28.71, dialled 29.
#[test]
fn a_lawn_by_hand() {
    let budget = year_budget(&controller(Preset::Plain, vec![lawn(1)]), &normals(None)).unwrap();
    let group = &budget.groups[0];
    let base = group.stations[0];
    assert_eq!(group.peak_month.number(), 7);
    assert!((base.raw_mm - 18.6).abs() < 1e-9);
    assert_eq!((base.interval_days, base.waterings), (3.0, 3.0));
    assert!((base.net_depth_mm - 11.0833).abs() < 1e-4);
    assert!((base.exact_minutes - 28.71).abs() < 0.01);
    assert_eq!(base.run.minutes(), 29.0);
    // May: 3.6 / 5.0 = 72 %, dialled 70; 29 min x 70 % = 20.3, run as 20.
    let may = group.month(MonthOfYear::new(5).unwrap());
    assert!((may.percent_exact - 72.0).abs() < 1e-9);
    assert_eq!(may.dial, Dial::Percent(Percent::new(70).unwrap()));
    assert_eq!(may.stations[0].run.minutes(), 20.0);
    // Delivered 20 / 60 x 30 / 1.2953 x 3 x 31 / 7 = 102.6 mm, of 3.6 x 0.95 x 31 = 106.0 asked.
    assert!((may.delivered_mm - 102.56).abs() < 0.02);
    assert!((may.demand_mm - 106.02).abs() < 1e-9);
}

#[test]
fn the_south_has_its_peak_in_january() {
    let mut south = normals(None);
    south.rotate_left(6);
    let budget = year_budget(&controller(Preset::Plain, vec![lawn(1)]), &south).unwrap();
    assert_eq!(budget.groups[0].peak_month.number(), 1);
    assert_eq!(budget.groups[0].month(MonthOfYear::ALL[0]).dial.percent(), 100);
}

/// A base set in May stands at 100 in May and above it in July.
#[test]
fn a_base_set_in_spring() {
    let mut c = controller(Preset::Plain, vec![lawn(1)]);
    c.base_month = BaseMonth::Month(MonthOfYear::new(5).unwrap());
    let budget = year_budget(&c, &normals(None)).unwrap();
    let percents: Vec<u16> = budget.groups[0].months.iter().map(|m| m.dial.percent()).collect();
    assert_eq!((percents[4], percents[6]), (100, 140));
}

#[test]
fn rain_counts_in_the_open_and_never_under_a_roof() {
    let roofed = Station { roofed: true, ..lawn(2) };
    let budget = year_budget(&controller(Preset::Plain, vec![lawn(1), roofed]), &normals(Some(60.0))).unwrap();
    let july = budget.groups[0].month(MonthOfYear::new(7).unwrap());
    let etl = 5.0 * 0.95 * 31.0;
    let [open, roofed] = [july.stations[0].demand, july.stations[1].demand];
    assert!((open.demand_mm - (etl - effective_rain(60.0, etl, 18.6))).abs() < 1e-9);
    assert!((roofed.demand_mm - etl).abs() < 1e-9);
}

/// Where a month has fewer waterings, its percent carries the difference.
#[test]
fn fewer_waterings_carry_the_difference() {
    let mut c = controller(Preset::Plain, vec![lawn(1)]);
    c.programs[0].months[3].waterings = Some(1);
    let budget = year_budget(&c, &normals(None)).unwrap();
    let april = &budget.groups[0].months[3];
    assert!((april.percent_exact - 2.6 / 5.0 * 300.0).abs() < 1e-9);
    assert_eq!(april.stations[0].waterings, 1.0);
}

/// Runs too short to reach the roots ask for fewer days.
#[test]
fn short_runs_ask_for_fewer_days() {
    let quick = Station {
        sprinkler: Sprinkler {
            kind: SprinklerType::Spray,
            rate: Some(RateMmPerHour::new(120.0).unwrap()),
            uniformity: Some(1.0),
        },
        ..lawn(1)
    };
    let budget = year_budget(&controller(Preset::Plain, vec![quick]), &normals(None)).unwrap();
    // Base 5.54, dialled 6 min; December 18 % is dialled 20: 1.2 min, run as 1, under 2.
    let december = &budget.groups[0].months[11];
    assert!(december.has_short_run());
    let repair = december.fewer_days.unwrap();
    // Two a week: 27 %, dialled 30, 1.8 min, run as 2.
    assert_eq!((repair.waterings, repair.percent.get()), (2, 30));
}

#[test]
fn a_month_is_off_when_off_is_nearer_than_the_lowest_percent() {
    let mut dry = normals(None);
    dry[0].et0_mm_per_day = 0.2;
    let budget = year_budget(&controller(Preset::Plain, vec![lawn(1)]), &dry).unwrap();
    assert_eq!(budget.groups[0].months[0].dial, Dial::Off);
    assert_eq!(budget.groups[0].months[0].delivered_mm, 0.0);
}

#[test]
fn programs_have_their_own_percent_only_where_the_controller_has_it() {
    let beds = Station { program: ProgramLetter::new('b').unwrap(), plant: Plant::Shrubs, roofed: true, ..lawn(2) };
    let one = year_budget(&controller(Preset::Plain, vec![lawn(1), beds.clone()]), &normals(Some(40.0))).unwrap();
    assert_eq!(one.groups.len(), 1);
    let each = year_budget(&controller(Preset::Monthly, vec![lawn(1), beds]), &normals(Some(40.0))).unwrap();
    assert_eq!(each.groups.len(), 2);
    assert_eq!(each.group(ProgramLetter::new('B').unwrap()).unwrap().stations[0].number, 2);
}

#[test]
fn nothing_to_share_is_said() {
    assert_eq!(year_budget(&controller(Preset::Plain, vec![]), &normals(None)), Err(BudgetError::NoStations));
    let frozen = normals(None).map(|n| MonthNormal { et0_mm_per_day: 0.0, ..n });
    let budget = year_budget(&controller(Preset::Plain, vec![lawn(1)]), &frozen).unwrap();
    assert!(budget.groups[0].months.iter().all(|m| m.dial == Dial::Off && m.demand_mm == 0.0));
}

/// Rain of every month covers the shrubs and not the lawn: the lawn keeps its minutes.
#[test]
fn a_program_without_demand_takes_nothing_from_the_others() {
    let b = ProgramLetter::ALL[1];
    let planting = Planting { need: Some(WaterNeed::Low), ..Planting::default() };
    let thrifty = Station { program: b, plant: Plant::Shrubs, planting, ..lawn(2) };
    let c = controller(Preset::Monthly, vec![lawn(1), thrifty]);
    let budget = year_budget(&c, &normals(Some(200.0))).unwrap();
    let thrifty = budget.group(b).unwrap();
    assert!(thrifty.months.iter().all(|m| m.dial == Dial::Off));
    assert!(thrifty.stations[0].run.minutes() > 0.0, "a real base time also serves manual runs");
    assert_eq!(budget.group(ProgramLetter::A).unwrap().stations[0].run.minutes(), 29.0);
}

/// Base minutes carry a dry peak week, whatever the mean rain; the percent has it taken off once.
#[test]
fn base_minutes_never_have_rain_taken_off() {
    let base = |rain, count_rain| {
        let mut c = controller(Preset::Monthly, vec![lawn(1)]);
        c.programs[0].count_rain = count_rain;
        let budget = year_budget(&c, &normals(rain)).unwrap();
        (budget.groups[0].stations[0].run.minutes(), budget.groups[0].months[6].dial.percent())
    };
    assert_eq!(base(None, true), (29.0, 100));
    // 60 mm of rain: 147.25 less 35.1 mm effective are 76 %.
    assert_eq!(base(Some(60.0), true), (29.0, 75));
    assert_eq!(base(Some(60.0), false), (29.0, 100));
}

/// Trees on loam: RAW 0.50 x 155 x 0.60 = 46.5 mm at 2.5 mm a day last 18 days. A panel that counts
/// them waters every 18th day, 7 / 18 a week; one that goes by weekdays alone once a week.
#[test]
fn roots_that_reach_deep_wait_longer_than_a_week() {
    let tree = Station { plant: Plant::Trees, ..lawn(1) };
    let base = |preset| {
        let budget = year_budget(&controller(preset, vec![tree.clone()]), &normals(None)).unwrap();
        (budget.groups[0].stations[0].interval_days, budget.groups[0].stations[0].waterings)
    };
    assert_eq!(base(Preset::Fine), (18.0, 7.0 / 18.0));
    assert_eq!(base(Preset::Plain), (18.0, 1.0));
}

/// Minutes follow the days that go by the date: every five days gives neither more nor less.
#[test]
fn days_by_the_date_are_waterings_a_week_too() {
    let week_mm = |days| {
        let mut c = controller(Preset::Fine, vec![lawn(1)]);
        c.programs[0].schedule = Schedule { days, starts: vec![StartTime::new(270).unwrap()], ..Schedule::default() };
        year_budget(&c, &normals(None)).unwrap().groups[0].stations[0].week_mm()
    };
    let next = chrono::NaiveDate::from_ymd_opt(2026, 6, 1).unwrap();
    for days in [DayMode::Odd, DayMode::Even, DayMode::Every { days: 5, next }, DayMode::Every { days: 14, next }] {
        assert!((week_mm(days) - 4.75 * 7.0).abs() < 0.4, "{days:?}: {}", week_mm(days));
    }
}

/// Either side of the middle between two climate steps the same week is watered: base minutes belong to the
/// reference of the step.
#[test]
fn another_climate_step_for_another_climate_is_no_jump() {
    use upland_core::sensor::{EtSetting, EtSheet, Sensor, SensorKind};
    let week_mm = |et0: f64| {
        let mut c = controller(Preset::Monthly, vec![lawn(1)]);
        let setting = EtSetting::for_peak(EtSheet::example(), et0);
        let kind = SensorKind::Et { setting: setting.clone(), programs: vec![ProgramLetter::A] };
        c.add_sensor(Sensor::proposed(kind, "Roof ridge", &c));
        let normals = normals(None).map(|n| MonthNormal { et0_mm_per_day: n.et0_mm_per_day / 5.0 * et0, ..n });
        let base = year_budget(&c, &normals).unwrap().groups[0].stations[0];
        base.net_depth_mm * base.waterings * setting.percent(et0) / 100.0
    };
    assert!((week_mm(5.49) - 5.49 * 0.95 * 7.0).abs() < 1e-9);
    assert!((week_mm(5.51) - 5.51 * 0.95 * 7.0).abs() < 1e-9);
}

#[test]
fn a_guessed_rate_says_what_it_would_change() {
    let guessed =
        Station { sprinkler: Sprinkler { kind: SprinklerType::Spray, rate: None, uniformity: None }, ..lawn(1) };
    let what_ifs = base_minutes_if(&controller(Preset::Plain, vec![guessed]), &normals(None), 1);
    let rate = what_ifs.iter().find(|w| matches!(w.guess, StationGuess::Rate(_))).unwrap();
    assert!(rate.run[0] > rate.run[1], "a slower head runs longer");
    // The rate of a type is less certain than the rest: measuring it narrows the minutes most.
    let exact = year_budget(&controller(Preset::Plain, vec![lawn(1)]), &normals(None)).unwrap();
    let base = &exact.groups[0].stations[0];
    let joined = uncertainty(base.exact_minutes * base.waterings, &what_ifs).unwrap();
    assert!(matches!(joined.widest, StationGuess::Rate(_)), "{joined:?}");
    // A measured station has only its soil and its roots left to doubt.
    assert_eq!(base_minutes_if(&controller(Preset::Plain, vec![lawn(1)]), &normals(None), 1).len(), 2);
}

#[test]
fn what_a_controller_cannot_do_is_refused_at_its_place() {
    let ok = controller(Preset::Plain, vec![lawn(1)]);
    let with = |change: &dyn Fn(&mut Controller)| {
        let mut c = ok.clone();
        change(&mut c);
        c.check().unwrap_err()
    };
    assert!(matches!(with(&|c| c.stations.push(lawn(9))), ControllerError::NoSuchTerminal { number: 9, stations: 8 }));
    assert!(matches!(with(&|c| c.stations.push(lawn(1))), ControllerError::StationTwice(1)));
    assert!(matches!(
        with(&|c| c.programs[0].months[0].dial = MonthDial::Set(Percent::new(300).unwrap())),
        ControllerError::CannotDial { max: 200, .. }
    ));
    assert!(matches!(
        with(&|c| {
            c.capability.watering_days = 3;
            c.programs[0].waterings_per_week = Some(5);
        }),
        ControllerError::TooManyWaterings { allowed: 3, .. }
    ));
    assert!(matches!(with(&|c| c.stations[0].name = "  ".into()), ControllerError::Station { number: 1, .. }));
    assert!(matches!(with(&|c| c.stations[0].area_m2 = Some(0.0)), ControllerError::Station { number: 1, .. }));
}
