//! The form of the worksheet: filled in from what is saved, read back cell by cell.

use upland_core::controller::{Controller, ProgramLetter, Station, name_is_valid};
use upland_core::landscape::{Plant, Slope, Soil, Sprinkler, SprinklerType, Sun};
use upland_core::quantity::{RateMmPerHour, range};
use upland_core::word::{Word, plant_of, plant_word};

use super::RowFields;
use crate::form::Form;
use crate::show::{Measure, Units};
use crate::words::Words;

/// The form of the stations as they stand.
pub(crate) fn filled(controller: &Controller, version: i32, units: Units) -> Form {
    let mut form = Form::default();
    form.set("action", uuid::Uuid::new_v4().to_string());
    form.set("version", version.to_string());
    for number in 1..=controller.capability.stations {
        let f = RowFields::of(number);
        let station = controller.stations.iter().find(|s| s.number == number);
        let fresh = fresh_station(number, controller);
        let s = station.unwrap_or(&fresh);
        form.set(&f.name, &s.name);
        form.set(&f.program, s.program.get().to_string());
        form.set(&f.plant, plant_word(s.plant));
        if let Plant::Coefficient(k) = s.plant {
            form.set(&f.coefficient, Measure::Plain.typed(k.get(), Units::Metric));
        }
        form.set(&f.sprinkler, s.sprinkler.kind.word());
        form.set(&f.rate, s.sprinkler.rate.map_or_else(String::new, |r| Measure::Rate.typed(r.get(), units)));
        form.set(
            &f.uniformity,
            s.sprinkler.uniformity.map_or_else(String::new, |u| Measure::Plain.typed(u, Units::Metric)),
        );
        form.set(&f.soil, s.soil.word());
        form.set(&f.slope, s.slope.word());
        form.set(&f.sun, s.sun.word());
        form.set(&f.roof, if s.roofed { "yes" } else { "no" });
        form.set(&f.area, s.area_m2.map_or_else(String::new, |a| Measure::Area.typed(a, units)));
    }
    form
}

/// A line that is not in use starts from the one above it: neighbours are often alike.
fn fresh_station(number: u8, controller: &Controller) -> Station {
    let above = controller.stations.iter().rfind(|s| s.number < number);
    let usual = Station { name: String::new(), ..Station::plain(number, "", Plant::CoolTurf, SprinklerType::Spray) };
    above.map_or(usual, |s| Station {
        number,
        name: String::new(),
        area_m2: None,
        minutes: None,
        cycle: None,
        also: None,
        sprinkler: Sprinkler { rate: None, uniformity: None, ..s.sprinkler },
        ..s.clone()
    })
}

/// Reads the worksheet into a controller; faulty cells keep what was saved and get their error.
pub(crate) fn read(form: &mut Form, before: &Controller, units: Units) -> Controller {
    let mut controller = before.clone();
    controller.stations = (1..=before.capability.stations)
        .filter_map(|number| {
            let was = before.stations.iter().find(|s| s.number == number);
            read_row(form, number, was, units)
        })
        .collect();
    controller.normalise_programs();
    controller
}

fn read_row(form: &mut Form, number: u8, was: Option<&Station>, units: Units) -> Option<Station> {
    let f = RowFields::of(number);
    let name = form.get(&f.name).to_owned();
    if name.is_empty() {
        return None;
    }
    if !name_is_valid(&name) {
        form.fail(&f.name, Words.t("field-name"));
    }
    let choice = |form: &mut Form, field: &str| {
        form.fail(field, Words.t("field-choice"));
    };
    let program = form.get(&f.program).chars().next().and_then(ProgramLetter::new);
    let kind = SprinklerType::of_word(form.get(&f.sprinkler)).ok();
    let soil = Soil::of_word(form.get(&f.soil)).ok();
    let slope = Slope::of_word(form.get(&f.slope)).ok();
    let sun = Sun::of_word(form.get(&f.sun)).ok();
    for (field, missing) in [
        (&f.program, program.is_none()),
        (&f.sprinkler, kind.is_none()),
        (&f.soil, soil.is_none()),
        (&f.slope, slope.is_none()),
        (&f.sun, sun.is_none()),
    ] {
        if missing {
            choice(form, field);
        }
    }
    let word = form.get(&f.plant).to_owned();
    let plant = if word == "coefficient" {
        let k = form.needed(&f.coefficient, Measure::Plain, range::COEFFICIENT, Units::Metric);
        k.and_then(|k| plant_of(&word, Some(k)).ok()).or(was.map(|s| s.plant))
    } else {
        let plant = plant_of(&word, None).ok();
        if plant.is_none() {
            choice(form, &f.plant);
        }
        plant
    };
    let same = |field: &str, shown: Option<String>| shown.as_deref() == Some(form.get(field));
    let (rate_was, area_was) = (was.and_then(|s| s.sprinkler.rate), was.and_then(|s| s.area_m2));
    let rate_same = same(&f.rate, rate_was.map(|r| Measure::Rate.typed(r.get(), units)));
    let area_same = same(&f.area, area_was.map(|a| Measure::Area.typed(a, units)));
    let rate = if rate_same {
        rate_was
    } else {
        form.measure(&f.rate, Measure::Rate, range::RATE, units).and_then(|r| RateMmPerHour::new(r).ok())
    };
    let area_m2 = if area_same { area_was } else { form.measure(&f.area, Measure::Area, range::AREA, units) };
    let uniformity = form.measure(&f.uniformity, Measure::Plain, range::UNIFORMITY, Units::Metric);
    // Figures that hang on a faulty cell are kept from what was saved until it is right.
    let kept = |field: &str, now: Option<f64>, was: Option<f64>| if form.error(field).is_empty() { now } else { was };
    let uniformity = kept(&f.uniformity, uniformity, was.and_then(|s| s.sprinkler.uniformity));
    let rate = if form.error(&f.rate).is_empty() { rate } else { rate_was };
    Some(Station {
        number,
        name,
        program: program.unwrap_or(ProgramLetter::A),
        plant: plant.unwrap_or(Plant::CoolTurf),
        sprinkler: Sprinkler { kind: kind.unwrap_or(SprinklerType::Spray), rate, uniformity },
        soil: soil.unwrap_or_default(),
        sun: sun.unwrap_or_default(),
        roofed: form.is(&f.roof, "yes"),
        area_m2: kept(&f.area, area_m2, area_was),
        slope: slope.unwrap_or_default(),
        minutes: was.and_then(|s| s.minutes),
        cycle: was.and_then(|s| s.cycle),
        also: was.and_then(|s| s.also).filter(|also| Some(*also) != program),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::controller::Preset;
    use upland_core::quantity::Coefficient;

    fn controller() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
        let station = fresh_station(1, &c);
        c.stations = vec![
            Station { name: "Lawn".into(), area_m2: Some(95.5), ..station.clone() },
            Station {
                number: 4,
                name: "Court".into(),
                program: ProgramLetter::ALL[2],
                plant: Plant::Coefficient(Coefficient::new(0.3).unwrap()),
                sprinkler: Sprinkler {
                    kind: SprinklerType::Drip,
                    rate: RateMmPerHour::new(12.65).ok(),
                    uniformity: Some(0.62),
                },
                soil: Soil::Clay,
                sun: Sun::ReflectedHeat,
                roofed: true,
                ..station
            },
        ];
        c.normalise_programs();
        c
    }

    #[test]
    fn an_untouched_form_changes_nothing_in_either_system() {
        for units in [Units::Metric, Units::Us] {
            let mut form = filled(&controller(), 1, units);
            assert_eq!(read(&mut form, &controller(), units), controller());
            assert!(form.is_sound());
        }
    }

    #[test]
    fn a_blank_name_frees_the_terminal_and_its_program() {
        let mut form = filled(&controller(), 1, Units::Metric);
        form.set("s4_name", " ");
        let left = read(&mut form, &controller(), Units::Metric);
        assert_eq!(left.stations.len(), 1);
        assert_eq!(left.programs.len(), 1);
    }

    #[test]
    fn a_faulty_cell_keeps_the_figure_that_was_saved() {
        let mut form = filled(&controller(), 1, Units::Metric);
        form.set("s4_rate", "0.84");
        form.set("s4_coefficient", "9");
        let kept = read(&mut form, &controller(), Units::Metric);
        assert_eq!(kept, controller());
        assert_eq!(form.error_count(), 2);
        assert_eq!(form.get("s4_rate"), "0.84");
    }

    #[test]
    fn a_free_terminal_starts_from_its_neighbour() {
        let fresh = fresh_station(5, &controller());
        assert_eq!((fresh.name.as_str(), fresh.soil, fresh.area_m2), ("", Soil::Clay, None));
        assert_eq!(fresh.sprinkler.rate, None, "a measured rate belongs to one station");
    }
}
