//! What the core refuses of a controller, in words.

use upland_core::controller::{
    Controller, ControllerError, Program, ProgramLetter, RootZoneError, RunError, ScheduleError, Station, Temporary,
    TemporaryError,
};
use upland_core::field::{FieldFault, Fields};
use upland_core::found::PanelError;
use upland_core::quantity::limit;
use upland_core::sensor::{Sensor, SensorError};

use super::field_form::label_key;
use crate::show::{month_long, percent};
use crate::words::Words;

/// Why a controller cannot be set so, in a sentence. What a form can say beside a field of its own, it says there.
pub(crate) fn cannot_be_set(error: &ControllerError) -> String {
    Words.t1("cannot", cause(error))
}

/// The end of that sentence.
fn cause(error: &ControllerError) -> String {
    let w = Words;
    match error {
        ControllerError::Field(fault) => of_field::<Controller>(fault),
        ControllerError::Capability(_) => w.t("cannot-capability"),
        ControllerError::NoSuchTerminal { number, stations } => {
            of_station(*number, w.count("cannot-terminal", usize::from(*stations)))
        }
        ControllerError::StationTwice(number) => of_station(*number, w.t("cannot-twice")),
        ControllerError::Station { number, fault } => of_station(*number, of_field::<Station>(fault)),
        ControllerError::Program { letter, fault } => of_program(*letter, of_field::<Program>(fault)),
        ControllerError::ProgramTwice(letter) => of_program(*letter, w.t("cannot-twice")),
        ControllerError::NoSuchProgram { number, letter } => {
            of_station(*number, of_program(*letter, w.t("cannot-unused")))
        }
        ControllerError::CannotDial { letter, month, percent: wanted, step, min, max } => {
            let values = [
                ("percent", percent(wanted.get())),
                ("month", month_long(*month)),
                ("step", step.to_string()),
                ("min", min.to_string()),
                ("max", max.to_string()),
            ];
            of_program(*letter, w.with("cannot-dial", &values.each_ref().map(|(name, value)| (*name, value.as_str()))))
        }
        ControllerError::TooManyWaterings { letter, waterings, allowed } => of_program(
            *letter,
            w.t2("cannot-waterings", ("waterings", waterings.to_string()), ("days", allowed.to_string())),
        ),
        ControllerError::NoSuchLetter { letter, programs } => {
            of_program(*letter, w.count("cannot-letter", usize::from(*programs)))
        }
        ControllerError::Schedule { letter, what } => of_program(*letter, of_schedule(*what)),
        ControllerError::Run { number, what } => of_station(*number, of_run(*what)),
        ControllerError::RootZone { number, what } => of_station(*number, of_root_zone(*what)),
        ControllerError::StationDelay(most) => w.t1("cannot-delay", most.to_string()),
        ControllerError::WaterWindows(most) => w.count("cannot-windows", usize::from(*most)),
        ControllerError::TooManySensors(count) => w.count("cannot-sensors", *count),
        ControllerError::SensorId(id) => of_sensor(*id, w.t("cannot-twice")),
        ControllerError::Sensor { id, error } => of_sensor(*id, not_at_sensor(error)),
        ControllerError::TooManyTemporaries(count) => w.count("cannot-temporaries", *count),
        ControllerError::TemporaryId(id) => of_temporary(*id, w.t("cannot-twice")),
        ControllerError::Temporary { id, what } => of_temporary(*id, of_temporary_error(what)),
    }
}

/// What a sensor names that the controller does not have; of its other errors its own form speaks.
pub(crate) fn not_at_sensor(error: &SensorError) -> String {
    match error {
        SensorError::NoSuchStation(number) => of_station(*number, Words.t("cannot-unused")),
        SensorError::NoSuchProgram(letter) => of_program(*letter, Words.t("cannot-unused")),
        SensorError::Field(fault) => of_field::<Sensor>(fault),
        _ => Words.t("cannot-sensor-settings"),
    }
}

/// Why a panel cannot stand as it was typed, in a sentence.
pub(crate) fn cannot_stand(error: &PanelError) -> String {
    let w = Words;
    let cause = match error {
        PanelError::NoSuchTerminal { number, stations } => {
            of_station(*number, w.count("cannot-terminal", usize::from(*stations)))
        }
        PanelError::TooLong(number) => of_station(*number, w.t("cannot-too-long")),
        PanelError::Cycle(number) => of_station(*number, w.t("cannot-cycle")),
        PanelError::NoSuchProgram(letter) => of_program(*letter, w.t("cannot-fewer-programs")),
        PanelError::TooManyStarts(letter) => of_program(*letter, w.t("cannot-more-starts")),
        PanelError::WaterWindows(most) => w.count("cannot-windows", usize::from(*most)),
        PanelError::Twice(_) => w.t("cannot-entry-twice"),
        PanelError::Note => w.t1("cannot-note", limit::NOTE.to_string()),
        PanelError::Date => w.t("cannot-years"),
    };
    w.t1("cannot", cause)
}

fn of_field<T: Fields>(fault: &FieldFault) -> String {
    let name = T::field(fault.field).map_or_else(|| fault.field.to_owned(), |field| Words.t(&label_key(field)));
    Words.t1("cannot-field", name)
}

fn of_station(number: u8, what: String) -> String {
    Words.t2("cannot-station", ("station", number.to_string()), ("what", what))
}

fn of_program(letter: ProgramLetter, what: String) -> String {
    Words.t2("cannot-program", ("program", letter.get().to_string()), ("what", what))
}

fn of_sensor(id: u16, what: String) -> String {
    Words.t2("cannot-sensor", ("sensor", id.to_string()), ("what", what))
}

fn of_temporary(id: u16, what: String) -> String {
    Words.t2("cannot-temporary", ("temporary", id.to_string()), ("what", what))
}

fn of_schedule(error: ScheduleError) -> String {
    let w = Words;
    match error {
        ScheduleError::TooManyStarts { allowed, .. } => w.count("cannot-starts", usize::from(allowed)),
        ScheduleError::StartStep(minutes) => w.t1("cannot-start-step", minutes.to_string()),
        ScheduleError::ByHand => w.t("cannot-by-hand"),
        ScheduleError::StartTwice => w.t("cannot-start-twice"),
        ScheduleError::DayMode => w.t("cannot-day-mode"),
        ScheduleError::Every(days) => w.t1("cannot-every", days.to_string()),
        ScheduleError::NeverDays => w.t("cannot-never-days"),
        ScheduleError::Date => w.t("cannot-date"),
        ScheduleError::Split(starts) => w.t1("cannot-split", starts.to_string()),
    }
}

fn of_run(error: RunError) -> String {
    let w = Words;
    match error {
        RunError::TooLong(minutes) => w.t1("cannot-run-long", minutes.to_string()),
        RunError::Step(seconds) => w.t1("cannot-run-step", seconds.to_string()),
        RunError::NoCycles => w.t("cannot-no-cycles"),
        RunError::TooManyCycles(most) => w.t1("cannot-many-cycles", most.to_string()),
        RunError::Cycle => w.t("cannot-cycle"),
        RunError::AlsoSame => w.t("cannot-also-same"),
    }
}

/// What does not fit together of a station's root zone.
pub(crate) fn of_root_zone(error: RootZoneError) -> String {
    Words.t(match error {
        RootZoneError::Half => "root-zone-half",
        RootZoneError::Reversed => "root-zone-reversed",
        RootZoneError::Start => "root-zone-start",
    })
}

fn of_temporary_error(error: &TemporaryError) -> String {
    let w = Words;
    match error {
        TemporaryError::Field(fault) => of_field::<Temporary>(fault),
        TemporaryError::End => w.t("cannot-end"),
        TemporaryError::Percent => w.t("cannot-percent"),
        TemporaryError::Weaning => w.t("cannot-weaning"),
        TemporaryError::GrowIn(starts) => w.t1("cannot-grow-in", starts.to_string()),
        TemporaryError::RainDelay(days) => w.t1("cannot-rain-delay", days.to_string()),
        TemporaryError::Sensor => w.t("cannot-no-sensor"),
        TemporaryError::Program => w.t("cannot-no-program"),
    }
}
