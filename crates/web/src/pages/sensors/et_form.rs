//! An ET sensor as a form: its own sheet, and the marks that its dials stand at.

use upland_core::controller::{Controller, ProgramLetter};
use upland_core::quantity::{limit, range};
use upland_core::sensor::{ClimateStep, EtSetting, EtSheet, Mark, SheetError, mark};

use crate::form::Form;
use crate::show::{Measure, Units};
use crate::words::Words;

/// A row of the sheet's climate steps, by its fields.
#[derive(Debug, Clone)]
pub(crate) struct StepRow {
    pub(crate) mark: String,
    pub(crate) from: String,
    pub(crate) to: String,
}

impl StepRow {
    fn of(n: usize) -> Self {
        Self { mark: format!("step{n}"), from: format!("step{n}from"), to: format!("step{n}to") }
    }

    /// Its fields.
    pub(crate) fn fields(&self) -> [&str; 3] {
        [&self.mark, &self.from, &self.to]
    }

    /// As many rows as a sheet may have.
    pub(crate) fn all() -> Vec<Self> {
        (0..limit::SENSOR_SETTINGS).map(Self::of).collect()
    }
}

/// A mark that a dial has, and what it means.
#[derive(Debug, Clone)]
pub(crate) struct MarkChoice {
    pub(crate) mark: String,
    pub(crate) means: String,
}

/// The marks of the climate step, with the reference ET of each.
pub(crate) fn climate_marks(sheet: &EtSheet, units: Units) -> Vec<MarkChoice> {
    let means =
        |s: &ClimateStep| Words.t1("sensor-climate-at", Measure::DepthADay.show(s.reference_mm_per_day(), units));
    sheet.climates.iter().map(|s| MarkChoice { mark: s.mark.to_string(), means: means(s) }).collect()
}

/// The marks of the offset, with what each does to the percent.
pub(crate) fn offset_marks(sheet: &EtSheet) -> Vec<MarkChoice> {
    let means = |position: u8| {
        let pct = 100.0 * (sheet.share(position) - 1.0);
        let by = crate::show::number(pct.abs(), 0);
        if position == sheet.neutral {
            Words.t("sensor-offset-neutral")
        } else {
            Words.t1(if pct < 0.0 { "sensor-offset-less" } else { "sensor-offset-more" }, by)
        }
    };
    let choice = |position| Some(MarkChoice { mark: sheet.offset(position)?.to_string(), means: means(position) });
    sheet.offset_positions().filter_map(choice).collect()
}

/// The marks of a setting: its climate step and its offset.
pub(crate) fn et_marks(setting: &EtSetting) -> [String; 2] {
    setting.marks().map(|m| m.map_or_else(String::new, |m| m.to_string()))
}

/// Fills the form of a saved sensor.
pub(super) fn fill(form: &mut Form, setting: &EtSetting, programs: &[ProgramLetter], units: Units) {
    let [climate, offset] = et_marks(setting);
    form.set("climate", climate);
    form.set("offset", offset);
    let minutes_for = setting.minutes_for.and_then(|p| setting.sheet.climate(p));
    form.set("minutes_for", minutes_for.map_or_else(String::new, |step| step.mark.to_string()));
    for letter in programs {
        form.set(&format!("et{}", letter.get()), "1");
    }
    for (row, step) in StepRow::all().iter().zip(&setting.sheet.climates) {
        form.set(&row.mark, step.mark.as_str());
        let [from, to] = step.peak_mm_per_day.map(|mm| Measure::DepthADay.typed(mm, units));
        form.set(&row.to, if from == to { String::new() } else { to });
        form.set(&row.from, from);
    }
    form.set("offsets", setting.sheet.offsets.iter().map(Mark::as_str).collect::<Vec<_>>().join("; "));
    form.set("neutral", setting.sheet.offset(setting.sheet.neutral).map_or("", Mark::as_str));
    form.set("offset_step", Measure::Plain.typed(setting.sheet.offset_step_pct, units));
}

/// Reads an ET sensor; errors stand beside their fields.
pub(super) fn read(
    form: &mut Form,
    c: &Controller,
    stored: &EtSheet,
    units: Units,
) -> Option<(EtSetting, Vec<ProgramLetter>)> {
    let sheet = read_sheet(form, stored, units)?;
    let programs = c.programs.iter().map(|p| p.letter).filter(|l| form.is_ticked("et", l.get())).collect();
    let climates: Vec<Mark> = sheet.climates.iter().map(|s| s.mark).collect();
    let climate = position(form, "climate", &climates);
    let minutes_for = if form.get("minutes_for").is_empty() { None } else { position(form, "minutes_for", &climates) };
    let offset = position(form, "offset", &sheet.offsets);
    let setting = EtSetting { climate: climate?, offset: offset?, minutes_for, sheet };
    Some((setting, programs))
}

/// The position of the mark that was typed.
fn position(form: &mut Form, field: &str, marks: &[Mark]) -> Option<u8> {
    let typed = form.get(field);
    let there = marks.iter().position(|m| m.as_str().eq_ignore_ascii_case(typed));
    if there.is_none() {
        let known = marks.iter().map(Mark::as_str).collect::<Vec<_>>().join(", ");
        form.fail(field, Words.t1("sensor-no-mark", known));
    }
    u8::try_from(there? + 1).ok()
}

/// Reads the sheet; a figure that comes back as it was shown stays as it was.
fn read_sheet(form: &mut Form, stored: &EtSheet, units: Units) -> Option<EtSheet> {
    let w = Words;
    let mut climates = Vec::new();
    for (n, row) in StepRow::all().iter().enumerate() {
        if row.fields().iter().all(|field| form.get(field).is_empty()) {
            continue;
        }
        let name = mark(form.get(&row.mark));
        if name.is_none() {
            form.fail(&row.mark, w.t1("sensor-mark-bad", limit::DIAL_MARK.to_string()));
        }
        let known = stored.climates.get(n).map(|step| step.peak_mm_per_day);
        let figure = |form: &mut Form, field: &str, side: usize| {
            form.kept(field, Measure::DepthADay, range::ET_STEP, units, known.map(|k| k[side]))
        };
        let from = figure(form, &row.from, 0);
        let to = if form.get(&row.to).is_empty() { from } else { figure(form, &row.to, 1) };
        if let (Some(mark), Some(from), Some(to)) = (name, from, to) {
            climates.push(ClimateStep { mark, peak_mm_per_day: [from, to] });
        }
    }
    let offsets: Option<Vec<Mark>> =
        form.get("offsets").split(';').filter(|t| !t.trim().is_empty()).map(mark).collect();
    if offsets.is_none() {
        form.fail("offsets", w.t1("sensor-mark-bad", limit::DIAL_MARK.to_string()));
    }
    let neutral = offsets.as_ref().and_then(|marks| position(form, "neutral", marks));
    let step = Some(stored.offset_step_pct);
    let offset_step_pct = form.kept("offset_step", Measure::Plain, range::ET_OFFSET_STEP, units, step);
    let sheet = EtSheet { climates, offsets: offsets?, neutral: neutral?, offset_step_pct: offset_step_pct? };
    if !form.is_sound() {
        return None;
    }
    if let Err(error) = sheet.check() {
        let (field, message) = sheet_error(&error, units);
        form.fail(field, message);
        return None;
    }
    Some(sheet)
}

/// Where an error of a sheet stands, and what it says.
pub(super) fn sheet_error(error: &SheetError, units: Units) -> (&'static str, String) {
    let w = Words;
    match error {
        SheetError::Climates => ("step0", w.t1("sensor-steps-bad", limit::SENSOR_SETTINGS.to_string())),
        SheetError::Offsets => ("offsets", w.t1("sensor-offsets-bad", limit::ET_OFFSETS.to_string())),
        SheetError::Mark => ("offsets", w.t1("sensor-mark-bad", limit::DIAL_MARK.to_string())),
        SheetError::NoSuchPosition => ("neutral", w.t("field-choice")),
        SheetError::OutOfRange(out) if out.range == range::ET_LOWEST_SHARE => {
            ("offset_step", w.t1("sensor-lowest-bad", crate::show::number(range::ET_LOWEST_SHARE.min, 0)))
        }
        SheetError::OutOfRange(out) if out.range == range::ET_STEP => {
            ("step0from", Measure::DepthADay.allowed(range::ET_STEP, units))
        }
        SheetError::OutOfRange(_) => ("offset_step", Measure::Plain.allowed(range::ET_OFFSET_STEP, units)),
    }
}
