//! A controller's year, worked by hand and as a whole.

use upland_core::budget::{BudgetError, Dial, base_minutes_if, effective_rain, year_budget};
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::*;
use upland_core::landscape::{Plant, Soil, Sprinkler, SprinklerType, Sun};
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
        sun: Sun::Open,
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
    assert_eq!((base.interval_days, base.waterings), (3.0, 3));
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
    assert_eq!(april.stations[0].waterings, 1);
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
    assert_eq!(
        year_budget(&controller(Preset::Plain, vec![lawn(1)]), &frozen),
        Err(BudgetError::NoDemand(ProgramLetter::A))
    );
}

#[test]
fn a_guessed_rate_says_what_it_would_change() {
    let guessed =
        Station { sprinkler: Sprinkler { kind: SprinklerType::Spray, rate: None, uniformity: None }, ..lawn(1) };
    let what_ifs = base_minutes_if(&controller(Preset::Plain, vec![guessed]), &normals(None), 1);
    let rate = what_ifs.iter().find(|w| w.guess.what == upland_core::budget::StationGuess::Rate).unwrap();
    assert!(rate.run[0] > rate.run[1], "a slower head runs longer");
    // A measured station has only its soil left to doubt.
    assert_eq!(base_minutes_if(&controller(Preset::Plain, vec![lawn(1)]), &normals(None), 1).len(), 1);
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
        with(&|c| c.programs[0].waterings_per_week = Some(5)),
        ControllerError::TooManyWaterings { allowed: 3, .. }
    ));
    assert!(matches!(with(&|c| c.stations[0].name = "  ".into()), ControllerError::Station { number: 1, .. }));
    assert!(matches!(with(&|c| c.stations[0].area_m2 = Some(0.0)), ControllerError::Station { number: 1, .. }));
}
