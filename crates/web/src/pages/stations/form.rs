//! The form of the worksheet: filled in from what is saved, read back cell by cell.

use upland_core::controller::{Controller, RootZoneError, Station};
use upland_core::field::{Field, Fields};
use upland_core::landscape::{Plant, Sprinkler, SprinklerType};
use upland_core::schedule::follow_soil;

use super::COLUMNS;
use crate::form::{Form, new_key};
use crate::pages::controller_error::of_root_zone;
use crate::pages::field_form::{read as read_field, shown};
use crate::show::Units;

/// The name of a station's field in the form.
pub(super) fn field_name(number: u8, field: &str) -> String {
    format!("s{number}_{field}")
}

/// The fields of the worksheet, in the order in which they are read: a plant before its coefficient.
pub(super) fn fields() -> impl Iterator<Item = &'static Field<Station>> {
    Station::FIELDS.iter().filter(|f| COLUMNS.iter().any(|(_, column)| column.contains(&f.name)))
}

/// The form of the stations as they are saved; `usual` is what the company takes a new station for.
pub(crate) fn filled(controller: &Controller, version: i32, usual: Option<&Station>, units: Units) -> Form {
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", version.to_string());
    for number in 1..=controller.capability.stations {
        let fresh = fresh_station(number, controller, usual);
        let station = controller.station(number).unwrap_or(&fresh);
        for field in fields() {
            form.set(&field_name(number, field.name), shown(field, station, units));
        }
    }
    form
}

/// A station of which nobody said anything.
pub(crate) fn plain_station(number: u8) -> Station {
    Station::plain(number, "", Plant::CoolTurf, SprinklerType::Spray)
}

/// A line that is not in use starts from the one above it: neighbours are often alike. The first starts from what is
/// usual at the company.
fn fresh_station(number: u8, controller: &Controller, usual: Option<&Station>) -> Station {
    let above = controller.stations.iter().rfind(|s| s.number < number);
    above.or(usual).map_or_else(
        || plain_station(number),
        |s| Station {
            number,
            name: String::new(),
            area_m2: None,
            minutes: None,
            cycle: None,
            also: None,
            sprinkler: Sprinkler { rate: None, uniformity: None, ..s.sprinkler },
            ..s.clone()
        },
    )
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
    follow_soil(before, &mut controller);
    controller
}

fn read_row(form: &mut Form, number: u8, was: Option<&Station>, units: Units) -> Option<Station> {
    if form.get(&field_name(number, "name")).is_empty() {
        return None;
    }
    // Figures that depend on a cell with an error are worked out from what was saved.
    let mut station = was.cloned().unwrap_or_else(|| Station { number, ..Station::blank() });
    for field in fields() {
        read_field(form, &field_name(number, field.name), field, &mut station, units);
    }
    if let Err(error) = station.check_root_zone() {
        let field = match error {
            RootZoneError::Half | RootZoneError::Reversed => "wilting_point",
            RootZoneError::Start => "depletion_start_mm",
        };
        form.fail(&field_name(number, field), of_root_zone(error));
    }
    station.also = station.also.filter(|also| *also != station.program);
    Some(station)
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::controller::{Preset, ProgramLetter};
    use upland_core::landscape::{Exposure, Soil};
    use upland_core::quantity::{Coefficient, RateMmPerHour};

    fn controller() -> Controller {
        let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
        let station = fresh_station(1, &c, None);
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
                exposure: Exposure::Warm,
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
            let mut form = filled(&controller(), 1, None, units);
            assert_eq!(read(&mut form, &controller(), units), controller());
            assert!(form.is_sound());
        }
    }

    #[test]
    fn a_blank_name_frees_the_terminal_and_its_program() {
        let mut form = filled(&controller(), 1, None, Units::Metric);
        form.set("s4_name", " ");
        let left = read(&mut form, &controller(), Units::Metric);
        assert_eq!(left.stations.len(), 1);
        assert_eq!(left.programs.len(), 1);
    }

    #[test]
    fn a_faulty_cell_keeps_the_figure_that_was_saved() {
        let mut form = filled(&controller(), 1, None, Units::Metric);
        form.set("s4_rate_mm_h", "0.84");
        form.set("s4_coefficient", "9");
        let kept = read(&mut form, &controller(), Units::Metric);
        assert_eq!(kept, controller());
        assert_eq!(form.error_count(), 2);
        assert_eq!(form.get("s4_rate_mm_h"), "0.84");
    }

    #[test]
    fn a_free_terminal_starts_from_its_neighbour() {
        let usual = Station { soil: Soil::Sand, ..Station::plain(1, "usual", Plant::Trees, SprinklerType::Drip) };
        let first = fresh_station(1, &Controller::new("New".into(), Preset::Plain.capability()), Some(&usual));
        assert_eq!((first.name.as_str(), first.soil, first.sprinkler.kind), ("", Soil::Sand, SprinklerType::Drip));
        let fresh = fresh_station(5, &controller(), Some(&usual));
        assert_eq!((fresh.name.as_str(), fresh.soil, fresh.area_m2), ("", Soil::Clay, None));
        assert_eq!(fresh.sprinkler.rate, None, "a measured rate belongs to one station");
    }
}
