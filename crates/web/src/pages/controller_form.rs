use crate::context::ChangeEntry;
use chrono_tz::Tz;
use upland_core::controller::{
    BaseMonth, Capability, CapabilityError, ClockFace, Contact, Controller, ControllerError, DayModes, PanelOrder,
    Preset, RunError, ScheduleError, StartOff,
};
use upland_core::quantity::{MonthOfYear, Percent, RunTime, range};
use upland_core::word::Word;
use uuid::Uuid;

use super::Choice;
use super::shell::Shell;
use super::spine::Spine;
use super::water_windows::{self, WindowRow};
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
    pub(crate) storages: Vec<Choice>,
    pub(crate) scopes: Vec<Choice>,
    pub(crate) base_months: Vec<Choice>,
    pub(crate) yes_no: Vec<Choice>,
    pub(crate) contacts: Vec<Choice>,
    pub(crate) panel_orders: Vec<Choice>,
    pub(crate) start_offs: Vec<Choice>,
    pub(crate) clock_faces: Vec<Choice>,
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

pub(crate) fn storages() -> Vec<Choice> {
    vec![Choice::new("by_month", Words.t("storage-by-month")), Choice::new("single", Words.t("storage-single"))]
}

pub(crate) fn scopes() -> Vec<Choice> {
    vec![Choice::new("all_programs", Words.t("scope-all")), Choice::new("each_program", Words.t("scope-each"))]
}

pub(crate) fn base_months() -> Vec<Choice> {
    let peak = std::iter::once(Choice::new("peak", Words.t("base-peak")));
    peak.chain(MonthOfYear::ALL.map(|m| Choice::new(m.number().to_string(), month_long(m)))).collect()
}

/// The form of a saved controller.
pub(crate) fn filled(c: &Controller, version: i32) -> Form {
    let k = &c.capability;
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", version.to_string());
    form.set("name", &c.name);
    form.set("stations", k.stations.to_string());
    form.set("percent_min", k.percent_min.get().to_string());
    form.set("percent_max", k.percent_max.get().to_string());
    form.set("percent_step", k.percent_step.get().to_string());
    form.set("storage", k.percent_storage.word());
    form.set("scope", k.percent_scope.word());
    form.set("run_step", k.run_step.seconds().to_string());
    form.set("run_max", Measure::Plain.typed(k.run_max.minutes(), Units::Metric));
    form.set("watering_days", k.watering_days.to_string());
    form.set("programs", k.programs.to_string());
    form.set("starts", k.starts.to_string());
    form.set("start_step", k.start_step.to_string());
    form.set("odd_even", yes_no(k.day_modes.odd_even));
    form.set("every_max", k.day_modes.every_max.to_string());
    form.set("never_days", yes_no(k.never_days));
    form.set("cycle_soak", yes_no(k.cycle_soak));
    form.set("station_delay_max", k.station_delay_max.seconds().to_string());
    form.set("station_delay", c.station_delay.seconds().to_string());
    form.set("water_windows", k.water_windows.to_string());
    water_windows::fill(&mut form, &c.windows, k.clock_face);
    form.set("sensor_inputs", k.sensor_inputs.to_string());
    form.set("contact", k.contact.word());
    form.set("rain_delay_max", k.rain_delay_max.to_string());
    form.set("months_off", yes_no(k.months_off));
    form.set("sensor_by_station", yes_no(k.sensor_by_station));
    form.set("panel_order", k.panel_order.word());
    form.set("start_off", k.start_off.word());
    form.set("clock_face", k.clock_face.word());
    form.set(
        "base_month",
        match c.base_month {
            BaseMonth::Peak => "peak".to_owned(),
            BaseMonth::Month(m) => m.number().to_string(),
        },
    );
    form
}

const fn yes_no(yes: bool) -> &'static str {
    if yes { "yes" } else { "no" }
}

/// Yes or no, for a choice.
pub(crate) fn yes_no_choices() -> Vec<Choice> {
    vec![Choice::new("yes", Words.t("yes")), Choice::new("no", Words.t("no"))]
}

pub(crate) fn contacts() -> Vec<Choice> {
    vec![
        Choice::new(Contact::NormallyClosed.word(), Words.t("contact-closed")),
        Choice::new(Contact::NormallyOpen.word(), Words.t("contact-open")),
    ]
}

/// In what order the panel asks for its values.
pub(crate) fn panel_orders() -> Vec<Choice> {
    vec![
        Choice::new(PanelOrder::MinutesFirst.word(), Words.t("panel-order-minutes")),
        Choice::new(PanelOrder::ProgramsFirst.word(), Words.t("panel-order-programs")),
    ]
}

/// How a start that is not used is turned off.
pub(crate) fn start_offs() -> Vec<Choice> {
    vec![
        Choice::new(StartOff::PastMidnight.word(), Words.t("start-off-past")),
        Choice::new(StartOff::Key.word(), Words.t("start-off-key")),
        Choice::new(StartOff::Cleared.word(), Words.t("start-off-cleared")),
    ]
}

/// How the panel shows the time.
pub(crate) fn clock_faces() -> Vec<Choice> {
    vec![
        Choice::new(ClockFace::Hours24.word(), Words.t("clock-face-24")),
        Choice::new(ClockFace::Hours12.word(), Words.t("clock-face-12")),
    ]
}

/// Reads the form into a controller that keeps the programs and stations of the one before.
pub(crate) fn read(form: &mut Form, before: &Controller) -> Option<Controller> {
    let name = form.name("name");
    let capability = read_capability(form);
    let base_month = match form.get("base_month") {
        "" | "peak" => Some(BaseMonth::Peak),
        number => number.parse().ok().and_then(MonthOfYear::new).map(BaseMonth::Month),
    };
    if base_month.is_none() {
        form.fail("base_month", Words.t("field-choice"));
    }
    let station_delay = form.whole::<u32>("station_delay", range::STATION_DELAY_SECONDS);
    let windows = water_windows::read(form);
    let changed = Controller {
        name: name?,
        windows,
        capability: capability?,
        base_month: base_month?,
        station_delay: RunTime::from_seconds(station_delay?),
        ..before.clone()
    };
    if let Err(error) = changed.check() {
        explain(form, &error);
    }
    form.is_sound().then_some(changed)
}

fn read_capability(form: &mut Form) -> Option<Capability> {
    let stations = form.whole("stations", range::STATIONS);
    let [min, max] = ["percent_min", "percent_max"].map(|f| form.whole::<u16>(f, range::PERCENT));
    let step = form.whole::<u16>("percent_step", range::PERCENT_STEP);
    let run_step = form.whole::<u32>("run_step", range::RUN_STEP_SECONDS);
    let run_max = form.needed("run_max", Measure::Plain, range::RUN_MAX_MINUTES, Units::Metric);
    let watering_days = form.whole("watering_days", range::WATERING_DAYS);
    let programs = form.whole("programs", range::PROGRAMS);
    let starts = form.whole("starts", range::STARTS);
    let start_step = form.whole("start_step", range::START_STEP);
    let every_max = form.whole("every_max", range::EVERY_DAYS);
    let station_delay_max = form.whole::<u32>("station_delay_max", range::STATION_DELAY_SECONDS);
    let water_windows = form.whole("water_windows", range::WATER_WINDOWS);
    let sensor_inputs = form.whole("sensor_inputs", range::SENSOR_INPUTS);
    let rain_delay_max = form.whole("rain_delay_max", range::RAIN_DELAY);
    let contact = form.chosen("contact");
    let storage = form.chosen("storage");
    let scope = form.chosen("scope");
    let panel_order = form.chosen("panel_order");
    let start_off = form.chosen("start_off");
    let clock_face = form.chosen("clock_face");
    let capability = Capability {
        stations: stations?,
        percent_min: Percent::new(min?).ok()?,
        percent_max: Percent::new(max?).ok()?,
        percent_step: Percent::new(step?).ok()?,
        percent_storage: storage?,
        percent_scope: scope?,
        run_step: RunTime::from_seconds(run_step?),
        run_max: RunTime::from_minutes(run_max?).ok()?,
        watering_days: watering_days?,
        programs: programs?,
        starts: starts?,
        start_step: start_step?,
        day_modes: DayModes { odd_even: form.is("odd_even", "yes"), every_max: every_max? },
        never_days: form.is("never_days", "yes"),
        cycle_soak: form.is("cycle_soak", "yes"),
        station_delay_max: RunTime::from_seconds(station_delay_max?),
        water_windows: water_windows?,
        sensor_inputs: sensor_inputs?,
        contact: contact?,
        rain_delay_max: rain_delay_max?,
        months_off: form.is("months_off", "yes"),
        sensor_by_station: form.is("sensor_by_station", "yes"),
        panel_order: panel_order?,
        start_off: start_off?,
        clock_face: clock_face?,
    };
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
            form.fail("watering_days", w.t2("capability-days-in-use", letter.get().to_string(), waterings.to_string()));
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
        other => form.fail("name", other.to_string()),
    }
}
