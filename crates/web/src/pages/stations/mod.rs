//! The worksheet: what is entered on the left, what is worked out on the right.

mod form;
mod names;

use upland_core::budget::{StationBase, YearBudget};
use upland_core::controller::{Controller, ProgramLetter, Station};
use upland_core::landscape::{Plant, Provenance, Slope, Soil, SprinklerType, Sun};
use upland_core::word::{Word, plant_word};

use super::Choice;
use super::provenance::mark;
use super::shell::Shell;
use super::spine::Spine;
use super::working::{Provenances, StationWorking};
use crate::charts::Strip;
use crate::context::Missing;
use crate::form::Form;
use crate::show::{Measure, Units, number};
use crate::words::Words;

pub(crate) use form::{filled, read};
pub(crate) use names::{plant_key, slope_key, soil_key, sprinkler_key, station_name, sun_key};

#[derive(askama::Template)]
#[template(path = "stations.html")]
pub(crate) struct StationsTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) sheet: Sheet,
    pub(crate) post_to: String,
    pub(crate) preview_to: String,
}

/// The live answer to a change that is not saved yet: the pieces that are swapped in.
#[derive(askama::Template)]
#[template(path = "parts/stations_live.html")]
pub(crate) struct StationsLiveTemplate {
    pub(crate) w: Words,
    pub(crate) sheet: Sheet,
}

/// The worksheet.
#[derive(Debug, Clone)]
pub(crate) struct Sheet {
    pub(crate) form: Form,
    pub(crate) rows: Vec<SheetRow>,
    pub(crate) sub: String,
    pub(crate) worked_for: String,
    pub(crate) note: String,
    pub(crate) units: UnitLabels,
    pub(crate) plants: Vec<Choice>,
    pub(crate) sprinklers: Vec<Choice>,
    pub(crate) soils: Vec<Choice>,
    pub(crate) slopes: Vec<Choice>,
    pub(crate) suns: Vec<Choice>,
    pub(crate) programs: Vec<Choice>,
    pub(crate) working: Option<StationWorking>,
}

#[derive(Debug, Clone, Copy)]
pub(crate) struct UnitLabels {
    pub(crate) rate: &'static str,
    pub(crate) area: &'static str,
    pub(crate) depth: &'static str,
}

/// A line of the worksheet; a terminal that is not in use has an empty name.
#[derive(Debug, Clone)]
pub(crate) struct SheetRow {
    pub(crate) number: u8,
    pub(crate) fields: RowFields,
    pub(crate) used: bool,
    pub(crate) is_coefficient: bool,
    pub(crate) errors: Vec<(String, String)>,
    pub(crate) worked: Worked,
}

/// The names of a line's fields in the form.
#[derive(Debug, Clone)]
pub(crate) struct RowFields {
    pub(crate) name: String,
    pub(crate) program: String,
    pub(crate) plant: String,
    pub(crate) coefficient: String,
    pub(crate) sprinkler: String,
    pub(crate) rate: String,
    pub(crate) uniformity: String,
    pub(crate) soil: String,
    pub(crate) slope: String,
    pub(crate) sun: String,
    pub(crate) roof: String,
    pub(crate) area: String,
}

impl RowFields {
    pub(super) fn of(number: u8) -> Self {
        let f = |what: &str| format!("s{number}_{what}");
        Self {
            name: f("name"),
            program: f("program"),
            plant: f("plant"),
            coefficient: f("coefficient"),
            sprinkler: f("sprinkler"),
            rate: f("rate"),
            uniformity: f("uniformity"),
            soil: f("soil"),
            slope: f("slope"),
            sun: f("sun"),
            roof: f("roof"),
            area: f("area"),
        }
    }
}

/// The worked-out cells of a line.
#[derive(Debug, Clone, Default)]
pub(crate) struct Worked {
    pub(crate) kl: String,
    pub(crate) kl_mark: &'static str,
    pub(crate) rate: String,
    pub(crate) rate_mark: &'static str,
    pub(crate) uniformity: String,
    pub(crate) uniformity_mark: &'static str,
    pub(crate) week: String,
    pub(crate) base: String,
    pub(crate) waterings: String,
    pub(crate) interval: String,
    pub(crate) binds: String,
    pub(crate) binds_more: String,
}

/// What a sheet is made from.
#[derive(Debug)]
pub(crate) struct SheetInput<'a> {
    pub(crate) form: Form,
    pub(crate) controller: &'a Controller,
    pub(crate) budget: &'a Result<YearBudget, Missing>,
    pub(crate) provenance: Option<Provenances<'a>>,
    pub(crate) units: Units,
    /// The station whose working is open.
    pub(crate) open: Option<u8>,
}

impl Sheet {
    pub(crate) fn of(input: SheetInput<'_>) -> Self {
        let w = Words;
        let units = input.units;
        let c = input.controller;
        let bases: Vec<&StationBase> = input.budget.iter().flat_map(|b| &b.groups).flat_map(|g| &g.stations).collect();
        let rows: Vec<SheetRow> = (1..=c.capability.stations)
            .map(|number| {
                let station = c.stations.iter().find(|s| s.number == number);
                let base = bases.iter().find(|b| b.number == number).copied();
                row(&input.form, number, station, base, c, units)
            })
            .collect();
        let volume: f64 = c
            .stations
            .iter()
            .filter_map(|s| Some((s.area_m2?, bases.iter().find(|b| b.number == s.number)?)))
            // Gross water: what the minutes lay down, thin cover included.
            .map(|(area, base)| area * base.week_mm() * base.multiplier / 1000.0)
            .sum();
        let used = w.t2("stations-used", c.stations.len().to_string(), c.capability.stations.to_string());
        let sub = if volume > 0.0 { w.t2("stations-sub", used, Measure::Volume.show(volume, units)) } else { used };
        let base_month =
            input.budget.as_ref().ok().and_then(|b| b.groups.first()).map(|g| crate::show::month_long(g.base_month));
        let open = input.open.or_else(|| c.stations.first().map(|s| s.number));
        let working =
            open.and_then(|n| StationWorking::of(n, c, input.budget.as_ref().ok()?, input.provenance?, units));
        Self {
            rows,
            sub,
            worked_for: base_month.map_or_else(String::new, |m| w.t1("stations-worked-for", m)),
            note: missing_note(input.budget),
            units: UnitLabels {
                rate: Measure::Rate.unit(units),
                area: Measure::Area.unit(units),
                depth: Measure::Depth.unit(units),
            },
            plants: plant_choices(),
            sprinklers: SprinklerType::ALL.map(|s| Choice::new(s.word(), w.t(sprinkler_key(s)))).to_vec(),
            soils: Soil::ALL.map(|s| Choice::new(s.word(), w.t(soil_key(s)))).to_vec(),
            slopes: Slope::ALL.map(|s| Choice::new(s.word(), w.t(slope_key(s)))).to_vec(),
            suns: Sun::ALL.map(|s| Choice::new(s.word(), w.t(sun_key(s)))).to_vec(),
            programs: ProgramLetter::ALL
                .into_iter()
                .take(usize::from(c.capability.programs))
                .map(|l| Choice::new(l.get().to_string(), l.get().to_string()))
                .collect(),
            working,
            form: input.form,
        }
    }
}

/// What is missing before figures can be worked out; empty when nothing is.
pub(crate) fn missing_note(budget: &Result<YearBudget, Missing>) -> String {
    use upland_core::budget::BudgetError;
    let w = Words;
    match budget {
        Ok(_) => String::new(),
        Err(Missing::Weather) => w.t("missing-weather"),
        Err(Missing::Budget(BudgetError::NoStations)) => w.t("missing-stations"),
        Err(Missing::Budget(BudgetError::NoDemand(letter))) => w.t1("missing-demand", letter.get().to_string()),
        Err(Missing::Budget(BudgetError::NoDemandInBaseMonth(letter, month))) => {
            w.t2("missing-demand-in-base", letter.get().to_string(), crate::show::month_long(*month))
        }
    }
}

fn row(
    form: &Form,
    number: u8,
    station: Option<&Station>,
    base: Option<&StationBase>,
    c: &Controller,
    units: Units,
) -> SheetRow {
    let w = Words;
    let fields = RowFields::of(number);
    let labels = [
        (&fields.name, "station"),
        (&fields.plant, "plant"),
        (&fields.coefficient, "coefficient"),
        (&fields.sprinkler, "sprinkler"),
        (&fields.rate, "rate"),
        (&fields.uniformity, "uniformity"),
        (&fields.area, "area"),
    ];
    let errors = labels
        .into_iter()
        .filter(|(f, _)| !form.error(f).is_empty())
        .map(|(f, label)| (f.clone(), w.t2("cell-error", w.t(label), form.error(f))))
        .collect();
    SheetRow {
        number,
        used: station.is_some(),
        is_coefficient: form.is(&fields.plant, "coefficient"),
        errors,
        worked: station.map_or_else(Worked::default, |s| worked(s, base, c, units)),
        fields,
    }
}

fn worked(station: &Station, base: Option<&StationBase>, c: &Controller, units: Units) -> Worked {
    let w = Words;
    let (k, k_known) = station.plant.coefficient();
    let (rate, rate_known) = station.sprinkler.rate_mm_per_hour();
    let (du, du_known) = station.sprinkler.uniformity();
    let mut worked = Worked {
        kl: number(k * station.sun.factor(), 2),
        kl_mark: mark(k_known),
        // A rate that was entered stands above already.
        rate: if rate_known == Provenance::Measured { String::new() } else { Measure::Rate.figure(rate, units) },
        rate_mark: mark(rate_known),
        uniformity: if du_known == Provenance::Measured { String::new() } else { number(du, 2) },
        uniformity_mark: mark(du_known),
        ..Worked::default()
    };
    let Some(b) = base else { return worked };
    worked.week = Measure::Depth.figure(b.week_mm(), units);
    worked.base = number(b.run.minutes(), usize::from(!b.run.seconds().is_multiple_of(60)));
    worked.waterings = b.waterings.to_string();
    worked.interval = number(b.interval_days, 0);
    let allowed = c.capability.watering_days;
    let asked = (7.0 / b.interval_days).ceil();
    (worked.binds, worked.binds_more) = if b.held_at_longest(&c.capability) {
        (w.t("binds-longest"), w.t1("binds-longest-more", number(b.exact_minutes, 0)))
    } else if asked > f64::from(allowed) {
        (w.t("binds-days"), w.t2("binds-days-more", number(asked, 0), allowed.to_string()))
    } else if f64::from(b.waterings) > asked {
        (w.t("binds-program"), w.t("binds-program-more"))
    } else {
        (w.t("binds-soil"), w.t1("binds-soil-more", Measure::Depth.show(b.raw_mm, units)))
    };
    worked
}

fn plant_choices() -> Vec<Choice> {
    let w = Words;
    let mut choices = Plant::TYPES.map(|p| Choice::new(plant_word(p), w.t(plant_key(p)))).to_vec();
    choices.push(Choice::new("coefficient", w.t("plant-coefficient")));
    choices
}
