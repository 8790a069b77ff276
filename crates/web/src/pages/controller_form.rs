use crate::context::ChangeEntry;
use crate::pages::controller_error::cannot_be_set;
use chrono_tz::Tz;
use upland_core::controller::{
    Capability, CapabilityError, Controller, ControllerError, Preset, RunError, ScheduleError,
};
use upland_core::quantity::{MonthOfYear, RunTime, range};
use upland_core::word::Word;
use uuid::Uuid;

use super::shell::Shell;
use super::spine::Spine;
use super::water_windows::{self, WindowRow};
use super::{Choice, field_form};
use crate::form::{Form, new_key};
use crate::show::{Measure, Units, date_short, month_long, percent};
use crate::words::Words;

/// A new controller, or one that is changed.
#[derive(askama::Template)]
#[template(path = "controller_form.html")]
pub(crate) struct ControllerFormTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) post_to: String,
    pub(crate) is_new: bool,
    pub(crate) place: String,
    pub(crate) place_href: String,
    pub(crate) presets: Vec<PresetLink>,
    pub(crate) base_months: Vec<Choice>,
    pub(crate) windows: Vec<WindowRow>,
    pub(crate) links: Vec<(String, String)>,
    pub(crate) spine: Option<Spine>,
    pub(crate) log: Vec<LogLine>,
}

/// A line of the log of changes.
#[derive(Debug, Clone)]
pub(crate) struct LogLine {
    pub(crate) when: String,
    pub(crate) who: String,
    pub(crate) what: String,
}

/// The log, newest first, in the place's own time.
pub(crate) fn log_lines(log: &[ChangeEntry], zone: Tz) -> Vec<LogLine> {
    log.iter()
        .map(|entry| {
            let at = entry.at.with_timezone(&zone);
            LogLine {
                when: format!("{} {}", date_short(at.date_naive()), at.format("%H:%M")),
                who: entry.user_name.clone(),
                what: Words.t(&entry.why),
            }
        })
        .collect()
}

/// A starting point for a new controller.
#[derive(Debug, Clone)]
pub(crate) struct PresetLink {
    pub(crate) href: String,
    pub(crate) name: String,
    pub(crate) what: String,
    pub(crate) current: bool,
}

pub(crate) fn preset_links(place: Uuid, current: Preset) -> Vec<PresetLink> {
    let w = Words;
    Preset::ALL
        .map(|p| PresetLink {
            href: format!("/places/{place}/controllers/new?preset={}", p.word()),
            name: w.t(match p {
                Preset::Plain => "preset-plain",
                Preset::Monthly => "preset-monthly",
                Preset::Fine => "preset-fine",
                Preset::Dial => "preset-dial",
                Preset::Valve => "preset-valve",
                Preset::TwoWire => "preset-two-wire",
            }),
            what: summary(&p.capability()),
            current: p == current,
        })
        .to_vec()
}

/// `1 min`, `30 s`.
fn step_words(step: RunTime) -> String {
    match step.seconds() {
        seconds if seconds.is_multiple_of(60) => Words.t1("run-step-min", (seconds / 60).to_string()),
        seconds => Words.t1("run-step-s", seconds.to_string()),
    }
}

/// A capability in a line.
pub(crate) fn summary(c: &Capability) -> String {
    Words.with(
        "capability-line",
        &[
            ("stations", &c.stations.to_string()),
            ("min", &c.percent_min.get().to_string()),
            ("max", &percent(c.percent_max.get())),
            ("step", &c.percent_step.get().to_string()),
            ("run", &step_words(c.run_step)),
        ],
    )
}

pub(crate) fn base_months() -> Vec<Choice> {
    let peak = std::iter::once(Choice::new("", Words.t("base-peak")));
    peak.chain(MonthOfYear::ALL.map(|m| Choice::new(m.number().to_string(), month_long(m)))).collect()
}

/// The fields of the form that are the controller's own, and those of its table that they enter.
const OWN: [(&str, &str); 3] = [("name", "name"), ("base_month", "base_month"), ("station_delay", "station_delay_s")];

/// The same of its panel. The longest run is typed in minutes.
const ENTERED: [(&str, &str); 25] = [
    ("stations", "stations"),
    ("percent_min", "percent_min"),
    ("percent_max", "percent_max"),
    ("percent_step", "percent_step"),
    ("storage", "percent_storage"),
    ("scope", "percent_scope"),
    ("run_step", "run_step_s"),
    ("watering_days", "watering_days"),
    ("programs", "programs"),
    ("starts", "starts"),
    ("start_step", "start_step_min"),
    ("odd_even", "odd_even"),
    ("every_max", "every_max"),
    ("never_days", "never_days"),
    ("cycle_soak", "cycle_soak"),
    ("station_delay_max", "station_delay_max_s"),
    ("water_windows", "water_windows"),
    ("sensor_inputs", "sensor_inputs"),
    ("contact", "contact"),
    ("rain_delay_max", "rain_delay_max"),
    ("months_off", "months_off"),
    ("sensor_by_station", "sensor_by_station"),
    ("panel_order", "panel_order"),
    ("start_off", "start_off"),
    ("clock_face", "clock_face"),
];

impl ControllerFormTemplate {
    /// What can be chosen in a field of the table.
    fn options(&self, field: &str) -> Vec<Choice> {
        field_form::options_of::<Capability>(field)
    }
}

/// The form of a saved controller.
pub(crate) fn filled(c: &Controller, version: i32) -> Form {
    let k = &c.capability;
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", version.to_string());
    field_form::fill(&mut form, &OWN, c, Units::Metric);
    field_form::fill(&mut form, &ENTERED, k, Units::Metric);
    form.set("run_max", Measure::Plain.typed(k.run_max.minutes(), Units::Metric));
    water_windows::fill(&mut form, &c.windows, k.clock_face);
    form
}

/// Reads the form into a controller that keeps the programs and stations of the one before.
pub(crate) fn read(form: &mut Form, before: &Controller) -> Option<Controller> {
    let mut changed = before.clone();
    field_form::read_all(form, &OWN, &mut changed, Units::Metric);
    let capability = read_capability(form, before);
    changed.windows = water_windows::read(form);
    changed.capability = capability?;
    if let Err(error) = changed.check() {
        explain(form, &error);
    }
    form.is_sound().then_some(changed)
}

fn read_capability(form: &mut Form, before: &Controller) -> Option<Capability> {
    let mut capability = before.capability;
    field_form::read_all(form, &ENTERED, &mut capability, Units::Metric);
    let run_max = form.needed("run_max", Measure::Plain, range::RUN_MAX_MINUTES, Units::Metric);
    capability.run_max = RunTime::from_minutes(run_max?).ok()?;
    if !form.is_sound() {
        return None;
    }
    match capability.checked() {
        Ok(capability) => Some(capability),
        Err(error) => {
            explain(form, &ControllerError::Capability(error));
            None
        }
    }
}

/// Puts what the core refuses beside the field that it is about.
fn explain(form: &mut Form, error: &ControllerError) {
    let w = Words;
    match error {
        ControllerError::Capability(CapabilityError::PercentRangeEmpty { .. }) => {
            form.fail("percent_max", w.t("capability-range-empty"))
        }
        ControllerError::Capability(CapabilityError::HundredOutside { .. }) => {
            form.fail("percent_max", w.t("capability-hundred"))
        }
        ControllerError::Capability(CapabilityError::RunMaxUnderStep) => {
            form.fail("run_max", w.t("capability-run-max"))
        }
        ControllerError::NoSuchTerminal { number, .. } => {
            form.fail("stations", w.t1("capability-station-in-use", number.to_string()))
        }
        ControllerError::CannotDial { letter, month, percent: p, .. } => form.fail(
            "percent_step",
            w.with(
                "capability-month-in-use",
                &[
                    ("program", &letter.get().to_string()),
                    ("month", &month_long(*month)),
                    ("percent", &percent(p.get())),
                ],
            ),
        ),
        ControllerError::TooManyWaterings { letter, waterings, .. } => {
            form.fail(
                "watering_days",
                w.t2(
                    "capability-days-in-use",
                    ("program", letter.get().to_string()),
                    ("waterings", waterings.to_string()),
                ),
            );
        }
        ControllerError::NoSuchLetter { letter, .. } => {
            form.fail("programs", w.t1("capability-program-in-use", letter.get().to_string()));
        }
        ControllerError::Schedule { letter, what } => {
            let field = match what {
                ScheduleError::TooManyStarts { .. } | ScheduleError::Split(_) | ScheduleError::ByHand => "starts",
                ScheduleError::StartStep(_) | ScheduleError::StartTwice => "start_step",
                ScheduleError::DayMode => "odd_even",
                ScheduleError::Every(_) | ScheduleError::Date => "every_max",
                ScheduleError::NeverDays => "never_days",
            };
            form.fail(field, w.t1("capability-schedule-in-use", letter.get().to_string()));
        }
        ControllerError::Run { number, what } => {
            let field = if *what == RunError::NoCycles { "cycle_soak" } else { "run_step" };
            form.fail(field, w.t1("capability-run-in-use", number.to_string()));
        }
        ControllerError::WaterWindows(most) => {
            let (field, message) = match most {
                0 => ("water_windows", w.t("capability-no-windows")),
                most => ("window0from", w.count("capability-windows", usize::from(*most))),
            };
            form.fail(field, message);
        }
        ControllerError::StationDelay(most) => {
            form.fail("station_delay", w.t1("capability-delay", most.to_string()));
        }
        ControllerError::Sensor { id, .. } => {
            form.fail("sensor_inputs", w.t1("capability-sensor-in-use", id.to_string()));
        }
        ControllerError::Temporary { .. } => form.fail("rain_delay_max", w.t("capability-temporary-in-use")),
        other => form.fail("name", cannot_be_set(other)),
    }
}
