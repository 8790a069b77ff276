//! A form that comes back as it was shown changes nothing: for any place, controller, sensor and rules, in both
//! systems of units. A foot has no exact metre, and a percent of a fraction no exact fraction: what nobody typed must
//! not drift with every saving.

use proptest::prelude::*;
use upland_core::controller::Temporary;
use upland_core::place::{Place, Position};
use upland_core::sensor::Sensor;
use upland_core::testing::{any_controller, any_rules};

use crate::context::PlaceRecord;
use crate::form::Form;
use crate::pages::{controller_form, field_form, place_form, rules_form, sensors, stations, temporary, week};
use crate::show::Units;

const SYSTEMS: [Units; 2] = [Units::Metric, Units::Us];

/// What a browser sends of a form: its fields, and no error of ours.
fn sent(form: &Form) -> Form {
    Form::from_pairs(form.pairs().map(|(field, value)| (field.clone(), value.clone())))
}

/// The errors of a form, field by field.
fn errors(form: &Form) -> Vec<String> {
    let fields = form.pairs().map(|(field, _)| field);
    fields.filter(|f| !form.error(f).is_empty()).map(|f| format!("{f}: {}", form.error(f))).collect()
}

fn place() -> impl Strategy<Value = PlaceRecord> {
    // Degrees to six decimals, a tenth of a metre: what the form shows of them.
    let degrees = |most: i64| (-most * 1_000_000..=most * 1_000_000).prop_map(|d| d as f64 / 1e6);
    let zones = prop::sample::select(&chrono_tz::TZ_VARIANTS[..]);
    let name = "[A-Za-z][A-Za-z' é-]{0,58}[a-z]";
    (name, "[0-9]{0,3}[a-c]?", degrees(66), degrees(180), -400.0f64..5000.0, zones, any_rules()).prop_map(
        |(name, house_number, latitude, longitude, elevation, zone, rules)| PlaceRecord {
            place: Place {
                name: name.trim().into(),
                house_number,
                position: Position::new(latitude, longitude, elevation).unwrap(),
                zone,
            },
            series_id: None,
            further: Default::default(),
            rules,
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    #[test]
    fn a_place(place in place()) {
        for units in SYSTEMS {
            let mut form = sent(&place_form::filled(&place, 3, units));
            let read = place_form::read(&mut form, units, Some(&place));
            prop_assert_eq!(read.as_ref(), Some(&place), "{:?}", errors(&form));
        }
    }

    #[test]
    fn the_rules_of_a_place(place in place()) {
        prop_assume!(place.rules.check("14").is_ok());
        let mut form = sent(&rules_form::filled(&place, 3));
        let read = rules_form::read(&mut form, "14");
        prop_assert_eq!(read.as_ref(), Some(&place.rules), "{:?}", errors(&form));
    }

    #[test]
    fn a_controller(controller in any_controller("Gate")) {
        let mut form = sent(&controller_form::filled(&controller, 3));
        let read = controller_form::read(&mut form, &controller);
        prop_assert_eq!(read.as_ref(), Some(&controller), "{:?}", errors(&form));
    }

    #[test]
    fn the_worksheet_of_its_stations(controller in any_controller("Gate")) {
        for units in SYSTEMS {
            let mut form = sent(&stations::filled(&controller, 3, None, units));
            let read = stations::read(&mut form, &controller, units);
            prop_assert_eq!(&read, &controller, "{:?}", errors(&form));
        }
    }

    #[test]
    fn each_of_its_sensors(controller in any_controller("Gate")) {
        for (sensor, units) in controller.sensors.iter().flat_map(|s| SYSTEMS.map(|units| (s, units))) {
            // A station that is not there is not shown, so it cannot come back.
            let exempt = sensor.exempt.iter().copied().filter(|n| controller.station(*n).is_some()).collect();
            let sensor = Sensor { exempt, ..sensor.clone() };
            let mut form = sent(&sensors::filled(&sensor, units));
            let read = sensors::read(&mut form, &controller, &sensor, units);
            prop_assert_eq!(read.as_ref(), Some(&sensor), "{:?}", errors(&form));
        }
    }

    #[test]
    fn the_days_starts_and_minutes_of_its_programs(controller in any_controller("Gate")) {
        for program in &controller.programs {
            let mut form = sent(&week::filled(&controller, program.letter));
            let schedule = week::read_program(&mut form, &controller.capability);
            prop_assert_eq!(schedule.as_ref(), Some(&program.schedule), "{:?}", errors(&form));
            let mut read = controller.clone();
            week::read_stations(&mut form, &mut read, program.letter);
            prop_assert_eq!(&read, &controller, "{:?}", errors(&form));
        }
    }

    #[test]
    fn what_is_set_for_a_while(controller in any_controller("Gate")) {
        for set in &controller.temporaries {
            let mut form = temporary::empty(set.since);
            form.set("kind", set.kind.word());
            field_form::fill(&mut form, &temporary::ENTERED, set, Units::Metric);
            let ended_by_itself = set.kind.weeks_of_weaning().is_some();
            let read = temporary::read(&mut sent(&form), &controller, &set.by);
            let until = if ended_by_itself { read.as_ref().unwrap().until } else { set.until };
            prop_assert_eq!(read, Some(Temporary { id: 0, until, ..set.clone() }));
        }
    }
}
