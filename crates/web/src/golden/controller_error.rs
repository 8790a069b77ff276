//! What the core refuses of a controller, in words.

use upland_core::controller::{
    CapabilityError, ControllerError, ProgramLetter, RootZoneError, RunError, ScheduleError, TemporaryError,
};
use upland_core::field::{FieldError, FieldFault};
use upland_core::found::PanelError;
use upland_core::quantity::{MonthOfYear, Percent};
use upland_core::sensor::SensorError;

use crate::pages::controller_error::{cannot_be_set, cannot_stand};

const A: ProgramLetter = ProgramLetter::ALL[0];

fn fault(field: &'static str) -> FieldFault {
    FieldFault { field, error: FieldError::Missing }
}

fn every_error() -> Vec<ControllerError> {
    let mut all = vec![
        ControllerError::Field(fault("name")),
        ControllerError::Capability(CapabilityError::RunMaxUnderStep),
        ControllerError::NoSuchTerminal { number: 13, stations: 12 },
        ControllerError::NoSuchTerminal { number: 2, stations: 1 },
        ControllerError::StationTwice(3),
        ControllerError::Station { number: 2, fault: fault("trim_pct") },
        ControllerError::Program { letter: A, fault: fault("name") },
        ControllerError::ProgramTwice(A),
        ControllerError::NoSuchProgram { number: 4, letter: A },
        ControllerError::CannotDial {
            letter: A,
            month: MonthOfYear::new(7).unwrap(),
            percent: Percent::new(113).unwrap(),
            step: 10,
            min: 10,
            max: 200,
        },
        ControllerError::TooManyWaterings { letter: A, waterings: 5, allowed: 3 },
        ControllerError::NoSuchLetter { letter: A, programs: 3 },
        ControllerError::StationDelay(60),
        ControllerError::WaterWindows(0),
        ControllerError::WaterWindows(2),
        ControllerError::TooManySensors(33),
        ControllerError::SensorId(4),
        ControllerError::TooManyTemporaries(257),
        ControllerError::TemporaryId(5),
    ];
    let schedule = [
        ScheduleError::TooManyStarts { starts: 5, allowed: 4 },
        ScheduleError::TooManyStarts { starts: 2, allowed: 1 },
        ScheduleError::StartStep(15),
        ScheduleError::ByHand,
        ScheduleError::StartTwice,
        ScheduleError::DayMode,
        ScheduleError::Every(14),
        ScheduleError::NeverDays,
        ScheduleError::Date,
        ScheduleError::Split(4),
    ];
    all.extend(schedule.map(|what| ControllerError::Schedule { letter: A, what }));
    let runs = [
        RunError::TooLong(120),
        RunError::Step(60),
        RunError::NoCycles,
        RunError::TooManyCycles(60),
        RunError::Cycle,
        RunError::AlsoSame,
    ];
    all.extend(runs.map(|what| ControllerError::Run { number: 2, what }));
    let zones = [RootZoneError::Half, RootZoneError::Reversed, RootZoneError::Start];
    all.extend(zones.map(|what| ControllerError::RootZone { number: 2, what }));
    let sensors = [
        SensorError::NoSuchStation(9),
        SensorError::NoSuchProgram(A),
        SensorError::Field(fault("place")),
        SensorError::NoSuchSetting,
    ];
    all.extend(sensors.map(|error| ControllerError::Sensor { id: 4, error }));
    let temporaries = [
        TemporaryError::Field(fault("reason")),
        TemporaryError::End,
        TemporaryError::Percent,
        TemporaryError::Weaning,
        TemporaryError::GrowIn(4),
        TemporaryError::RainDelay(7),
        TemporaryError::Sensor,
        TemporaryError::Program,
    ];
    all.extend(temporaries.map(|what| ControllerError::Temporary { id: 5, what }));
    all
}

#[test]
fn what_a_controller_cannot_be_set_to() {
    let words: Vec<String> = every_error().iter().map(cannot_be_set).collect();
    words.iter().for_each(|words| is_a_sentence(words));
    insta::assert_snapshot!("controller_error", words.join("\n"));
}

#[test]
fn how_a_panel_cannot_stand() {
    let errors = [
        PanelError::NoSuchTerminal { number: 13, stations: 12 },
        PanelError::TooLong(2),
        PanelError::Cycle(2),
        PanelError::NoSuchProgram(A),
        PanelError::TooManyStarts(A),
        PanelError::WaterWindows(1),
        PanelError::Twice("station"),
        PanelError::Note,
        PanelError::Date,
    ];
    let words = errors.map(|error| {
        let words = cannot_stand(&error);
        is_a_sentence(&words);
        words
    });
    insta::assert_snapshot!("panel_error", words.join("\n"));
}

fn is_a_sentence(words: &str) {
    assert!(words.ends_with('.') && !words.contains("..") && !words.contains('{'), "{words}");
}
