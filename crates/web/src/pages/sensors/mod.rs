//! The sensors of a controller: what they are set to, which stations obey, what they would have done.

mod et_form;
mod form;
mod replay;

use chrono::{NaiveDate, TimeDelta};
use upland_core::controller::{Contact, Controller, TemporaryKind};
use upland_core::sensor::{Disc, Sensor, SensorKind};
use upland_core::word::Word;

use super::Choice;
use super::field_form::{choice_key, options_of};
use super::shell::Shell;
use super::spine::Spine;
use crate::charts::Strip;
use crate::context::ControllerContext;
use crate::form::Form;
use crate::show::{Measure, Units, date_long, date_short, rain_text};
use crate::words::Words;

use et_form::{MarkChoice, StepRow, climate_marks, et_marks, offset_marks};

pub(crate) use form::{READINGS, filled, proposed, read};
pub(crate) use replay::{ReplayInput, ReplayView, held_on};

#[derive(askama::Template)]
#[template(path = "sensors.html")]
pub(crate) struct SensorsTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) href: String,
    pub(crate) version: i32,
    pub(crate) sensors: Vec<SensorLine>,
    pub(crate) matrix: Vec<(String, Vec<bool>)>,
    pub(crate) open: SensorForm,
    pub(crate) replay: ReplayView,
    pub(crate) kinds: Vec<(String, String, bool)>,
}

#[derive(askama::Template)]
#[template(path = "sensors_live.html")]
pub(crate) struct SensorsLiveTemplate {
    pub(crate) w: Words,
    pub(crate) replay: ReplayView,
}

/// A sensor in a line.
#[derive(Debug, Clone)]
pub(crate) struct SensorLine {
    pub(crate) name: String,
    pub(crate) href: String,
    pub(crate) open: bool,
    pub(crate) mark: &'static str,
    pub(crate) set_to: String,
    /// What is wrong or due, or that all is well.
    pub(crate) notes: Vec<String>,
}

/// The form of the open sensor.
#[derive(Debug, Clone)]
pub(crate) struct SensorForm {
    pub(crate) form: Form,
    /// Names it in the form; 0 for a new one.
    pub(crate) id: u16,
    pub(crate) kind: &'static str,
    pub(crate) title: String,
    pub(crate) unit: &'static str,
    pub(crate) settings: Vec<Choice>,
    /// What a disc holds as long as nobody knows better.
    pub(crate) usual_disc: String,
    pub(crate) vents: Vec<Choice>,
    pub(crate) contacts: Vec<Choice>,
    pub(crate) yes_no: Vec<Choice>,
    pub(crate) climates: Vec<MarkChoice>,
    pub(crate) offsets: Vec<MarkChoice>,
    pub(crate) steps: Vec<StepRow>,
    /// Whether something is wrong on the sheet, so that it stands open.
    pub(crate) sheet_open: bool,
    pub(crate) et_unit: &'static str,
    pub(crate) programs: Vec<(String, String)>,
    pub(crate) stations: Vec<(String, String)>,
    pub(crate) readings: Vec<(String, String)>,
    pub(crate) default_contact: String,
    pub(crate) cautions: Vec<String>,
    pub(crate) siting: Vec<(String, String)>,
}

/// The name of a kind.
fn kind_name(kind: &SensorKind) -> String {
    Words.t(&choice_key("kind", kind.word()))
}

/// `Rain sensor, Tool-shed post`.
pub(crate) fn sensor_name(sensor: &Sensor) -> String {
    let kind = kind_name(&sensor.kind);
    if sensor.place.is_empty() { kind } else { format!("{kind}, {}", sensor.place) }
}

/// What a sensor is set to, in a few words.
pub(crate) fn set_to(sensor: &Sensor, units: Units) -> String {
    let w = Words;
    match &sensor.kind {
        SensorKind::Rain { setting, .. } => w.t2(
            "sensor-set-rain",
            (
                "setting",
                format!("{}\u{a0}{}", Measure::Depth.typed(setting.threshold_mm, units), Measure::Depth.unit(units)),
            ),
            ("days", setting.delay_days.to_string()),
        ),
        SensorKind::Freeze { threshold_c, .. } => {
            w.t1("sensor-set-freeze", Measure::Temperature.show(*threshold_c, units))
        }
        SensorKind::SoilMoisture { threshold_pct: Some(t), .. } => {
            w.t1("sensor-set-soil", Measure::Plain.typed(*t, units))
        }
        SensorKind::SoilMoisture { .. } => w.t("sensor-set-soil-none"),
        SensorKind::Et { setting, .. } => {
            let [climate, offset] = et_marks(setting);
            w.t2("sensor-set-et", ("climate", climate), ("offset", offset))
        }
    }
}

/// Days that a battery of a wireless sensor lasts (common practice: changed twice a year).
pub(crate) const BATTERY_DAYS: i64 = 183;
/// Days after which a proof is old (common practice: once a year).
pub(crate) const PROOF_DAYS: i64 = 365;

/// What a note on a sensor is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum About {
    /// It cannot act as it is wired.
    Wiring,
    /// It is bypassed.
    Bypass,
    /// A bypass is over and still open.
    BypassOver,
    /// Something is due: a proof, a battery.
    Upkeep,
}

impl About {
    /// Whether the sensor holds nothing back because of it.
    pub(crate) const fn stops(self) -> bool {
        !matches!(self, Self::Upkeep)
    }
}

/// The key of how a sensor of a kind is tested: water trips a rain sensor, not a thermometer.
const fn how_to_prove(kind: &SensorKind) -> &'static str {
    match kind {
        SensorKind::Rain { .. } => "sensor-unproven-rain",
        SensorKind::Et { .. } => "sensor-unproven-et",
        _ => "sensor-unproven-contact",
    }
}

/// When the proof of a sensor is old; nothing as long as it was never seen to work.
pub(crate) fn proof_due(sensor: &Sensor) -> Option<NaiveDate> {
    sensor.proven.as_ref().map(|proof| proof.on + TimeDelta::days(PROOF_DAYS + 1))
}

/// When the battery of a sensor is due; nothing where it has none, or where nobody knows how old it is.
pub(crate) fn battery_due(sensor: &Sensor) -> Option<NaiveDate> {
    let changed = sensor.battery_on.filter(|_| !sensor.battery.is_empty());
    changed.map(|on| on + TimeDelta::days(BATTERY_DAYS + 1))
}

/// What is wrong with a sensor, or due on a day.
pub(crate) fn notes(c: &Controller, sensor: &Sensor, today: NaiveDate) -> Vec<(String, About)> {
    let w = Words;
    let mut out = Vec::new();
    if sensor.has_contact() && !sensor.jumper_removed {
        out.push((w.t("sensor-jumper-in"), About::Wiring));
    }
    if sensor.has_contact() && !sensor.fits(c) {
        out.push((w.t("sensor-contact-wrong"), About::Wiring));
    }
    for t in &c.temporaries {
        if t.kind == (TemporaryKind::Bypass { sensor: sensor.id }) && t.since <= today {
            let (key, about) = if t.is_over(today) {
                ("sensor-bypass-over", About::BypassOver)
            } else {
                ("sensor-bypassed-until", About::Bypass)
            };
            out.push((
                w.with(
                    key,
                    &[
                        ("since", &date_short(t.since)),
                        ("until", &date_short(t.until)),
                        ("who", &t.by),
                        ("why", &t.reason),
                    ],
                ),
                about,
            ));
        }
    }
    match &sensor.proven {
        None => out.push((w.t(how_to_prove(&sensor.kind)), About::Upkeep)),
        Some(p) if proof_due(sensor).is_some_and(|due| today >= due) => {
            out.push((w.t1("sensor-proof-old", date_long(p.on)), About::Upkeep));
        }
        Some(_) => {}
    }
    if !sensor.battery.is_empty() && battery_due(sensor).is_none_or(|due| today >= due) {
        out.push((w.t1("sensor-battery-due", &sensor.battery), About::Upkeep));
    }
    out
}

pub(crate) fn lines(c: &Controller, open: Option<u16>, href: &str, today: NaiveDate, units: Units) -> Vec<SensorLine> {
    c.sensors
        .iter()
        .map(|sensor| {
            let notes = notes(c, sensor, today);
            let stopped = notes.iter().any(|(_, about)| about.stops());
            SensorLine {
                name: sensor_name(sensor),
                href: format!("{href}?sensor={}", sensor.id),
                open: open == Some(sensor.id),
                mark: if stopped {
                    "fault"
                } else if notes.is_empty() {
                    "done"
                } else {
                    "part"
                },
                set_to: set_to(sensor, units),
                notes: notes.into_iter().map(|(text, _)| text).collect(),
            }
        })
        .collect()
}

/// Stations by sensors: who obeys whom.
pub(crate) fn matrix(c: &Controller) -> Vec<(String, Vec<bool>)> {
    if c.sensors.is_empty() {
        return Vec::new();
    }
    let row = |s: &upland_core::controller::Station| {
        (format!("{} {}", s.number, s.name), c.sensors.iter().map(|x| x.governs(s.number)).collect())
    };
    c.stations.iter().map(row).collect()
}

impl SensorForm {
    pub(crate) fn of(c: &Controller, sensor: &Sensor, form: Form, units: Units) -> Self {
        let w = Words;
        let contact = |c: Contact| w.t(&choice_key("contact", c.word()));
        let kind = sensor.kind.word();
        let measure = if kind == "freeze" { Measure::Temperature } else { Measure::Depth };
        let settings = match &sensor.kind {
            SensorKind::Rain { thresholds_mm: list, .. } => list.iter().map(|v| rain_text(*v, units)).collect(),
            SensorKind::Freeze { thresholds_c: list, .. } => list.iter().map(|v| measure.typed(*v, units)).collect(),
            _ => Vec::new(),
        };
        let sheet = match &sensor.kind {
            SensorKind::Et { setting, .. } => Some(&setting.sheet),
            _ => None,
        };
        let steps = if sheet.is_some() { StepRow::all() } else { Vec::new() };
        let with_unit = |t: &String| Choice::new(t.clone(), format!("{t}\u{a0}{}", measure.unit(units)));
        Self {
            kind,
            title: if sensor.id == 0 { w.t1("sensor-new", kind_name(&sensor.kind)) } else { sensor_name(sensor) },
            unit: measure.unit(units),
            settings: settings.iter().map(with_unit).collect(),
            usual_disc: Measure::Depth.show(Disc::USUAL.capacity_mm, units),
            vents: options_of::<Sensor>("vent"),
            contacts: options_of::<Sensor>("contact"),
            yes_no: vec![Choice::new("no", w.t("sensor-jumper-no")), Choice::new("yes", w.t("sensor-jumper-yes"))],
            climates: sheet.map_or_else(Vec::new, |sheet| climate_marks(sheet, units)),
            offsets: sheet.map_or_else(Vec::new, offset_marks),
            sheet_open: steps.iter().any(|row| row.fields().iter().any(|field| !form.error(field).is_empty()))
                || ["offsets", "neutral", "offset_step"].iter().any(|field| !form.error(field).is_empty()),
            steps,
            et_unit: Measure::DepthADay.unit(units),
            programs: c
                .programs
                .iter()
                .map(|p| (format!("et{}", p.letter.get()), p.letter.get().to_string()))
                .collect(),
            stations: c
                .stations
                .iter()
                .map(|s| {
                    let roof = if s.roofed { format!(" ({})", w.t("card-roofed")) } else { String::new() };
                    (format!("exempt{}", s.number), format!("{} {}{roof}", s.number, s.name))
                })
                .collect(),
            readings: (0..READINGS).map(|i| (format!("r{i}at"), format!("r{i}pct"))).collect(),
            default_contact: contact(c.capability.contact),
            cautions: cautions(kind),
            siting: siting(kind),
            id: sensor.id,
            form,
        }
    }
}

fn cautions(kind: &str) -> Vec<String> {
    let w = Words;
    let mut out = vec![w.t("caution-power")];
    match kind {
        "rain" | "et" => out.push(w.t("caution-ladder")),
        "freeze" => out.extend([w.t("caution-ladder"), w.t("caution-ice")]),
        _ => out.push(w.t("caution-dig")),
    }
    out
}

/// What a good place is, in lines of a word and a fact.
fn siting(kind: &str) -> Vec<(String, String)> {
    let w = Words;
    let keys: &[(&str, &str)] = match kind {
        "soil_moisture" => &[("site-soil", "site-soil-more"), ("site-cable", "site-cable-more")],
        "freeze" => &[("site-shade", "site-shade-more"), ("site-radio", "site-radio-more")],
        _ => &[
            ("site-open", "site-open-more"),
            ("site-throw", "site-throw-more"),
            ("site-sun", "site-sun-more"),
            ("site-radio", "site-radio-more"),
        ],
    };
    keys.iter().map(|(a, b)| (w.t(a), w.t(b))).collect()
}

/// The kinds that a sensor can be added of.
pub(crate) fn kind_links(href: &str, open: Option<&str>) -> Vec<(String, String, bool)> {
    SensorKind::WORDS
        .map(|word| (format!("{href}?kind={word}"), Words.t(&choice_key("kind", word)), open == Some(word)))
        .to_vec()
}

/// The sensor that a form or an address names by its id; else a new one of the kind that is asked for.
pub(crate) fn sensor_of(context: &ControllerContext, query: &Form) -> Sensor {
    let c = context.controller();
    let asked = query.get("sensor").parse().ok().and_then(|id| c.sensor(id));
    let first = c.sensors.first().filter(|_| query.get("kind").is_empty());
    asked.or(first).cloned().unwrap_or_else(|| proposed(query.get("kind"), context))
}
