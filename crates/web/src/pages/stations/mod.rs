//! The worksheet: what is entered on the left, what is worked out on the right.

mod form;
mod names;

use std::rc::Rc;

use upland_core::budget::{StationBase, YearBudget};
use upland_core::controller::{Controller, Station};
use upland_core::field::{Field, Fields, Kind};
use upland_core::landscape::Provenance;
use upland_core::quantity::MonthOfYear;

use super::Choice;
use super::field_form::{label_key, measure, options};
use super::provenance::mark;
use super::shell::Shell;
use super::spine::Spine;
use super::working::{Provenances, StationWorking};
use crate::charts::Strip;
use crate::context::Missing;
use crate::form::Form;
use crate::show::{Measure, Units, number, times};
use crate::words::Words;

use form::field_name;
pub(crate) use form::{filled, plain_station, read};
pub(crate) use names::{choice_name, missing_note, plant_name, station_name};

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

/// Which part of the worksheet a column is shown in: there are more than one page is wide.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Part {
    /// In all of them.
    All,
    /// With the plants and what surrounds them.
    Plants,
    /// With the sprinklers and the site.
    Site,
    /// With the root zone.
    Roots,
}

impl Part {
    pub(crate) const fn class(self) -> &'static str {
        match self {
            Self::All => "",
            Self::Site => "part-site",
            Self::Plants => "part-plants",
            Self::Roots => "part-roots",
        }
    }
}

/// A part of the worksheet as its switch offers it.
#[derive(Debug, Clone)]
pub(crate) struct PartSwitch {
    pub(crate) part: Part,
    pub(crate) id: &'static str,
    pub(crate) label: String,
    /// How many columns to type in it shows.
    pub(crate) columns: usize,
}

/// The parts, the first of them shown at first.
fn parts() -> Vec<PartSwitch> {
    let w = Words;
    let of = |part, id, label| PartSwitch {
        part,
        id,
        label: w.t(label),
        columns: COLUMNS.iter().filter(|(own, _)| [part, Part::All].contains(own)).count(),
    };
    vec![
        of(Part::Site, "show-site", "stations-site"),
        of(Part::Plants, "show-plants", "stations-plants"),
        of(Part::Roots, "show-roots", "stations-roots"),
    ]
}

/// The columns of the worksheet: the fields of each, one under the other.
const COLUMNS: [(Part, &[&str]); 19] = [
    (Part::All, &["name"]),
    (Part::All, &["program"]),
    (Part::All, &["plant", "coefficient"]),
    (Part::Site, &["sprinkler"]),
    (Part::Site, &["rate_mm_h"]),
    (Part::Site, &["uniformity"]),
    (Part::Site, &["soil", "slope"]),
    (Part::Site, &["exposure", "trim_pct"]),
    (Part::Site, &["roofed"]),
    (Part::Site, &["area_m2"]),
    (Part::Plants, &["need"]),
    (Part::Plants, &["density", "maturity"]),
    (Part::Plants, &["beside"]),
    (Part::Plants, &["microclimate"]),
    (Part::Plants, &["k_by_month"]),
    (Part::Roots, &["root_depth_m"]),
    (Part::Roots, &["p"]),
    (Part::Roots, &["field_capacity", "wilting_point"]),
    (Part::Roots, &["depletion_start_mm"]),
];

/// The worksheet.
#[derive(Debug, Clone)]
pub(crate) struct Sheet {
    pub(crate) form: Form,
    pub(crate) parts: Vec<PartSwitch>,
    pub(crate) heads: Vec<SheetHead>,
    pub(crate) rows: Vec<SheetRow>,
    pub(crate) sub: String,
    pub(crate) worked_for: String,
    pub(crate) note: String,
    pub(crate) depth_unit: &'static str,
    pub(crate) working: Option<StationWorking>,
    /// The line that is open at first.
    pub(crate) first: u8,
}

/// The head of a column: its name, and its unit or what stands under it.
#[derive(Debug, Clone)]
pub(crate) struct SheetHead {
    pub(crate) class: &'static str,
    pub(crate) part: Part,
    pub(crate) label: String,
    pub(crate) under: String,
}

/// A line of the worksheet; a terminal that is not in use has an empty name.
#[derive(Debug, Clone)]
pub(crate) struct SheetRow {
    pub(crate) number: u8,
    pub(crate) used: bool,
    pub(crate) columns: Vec<Vec<Cell>>,
    pub(crate) errors: Vec<(String, String)>,
    pub(crate) worked: Worked,
}

/// A cell to type or choose in.
#[derive(Debug, Clone)]
pub(crate) struct Cell {
    /// Its name in the form.
    pub(crate) name: String,
    pub(crate) label: String,
    pub(crate) value: String,
    /// What can be chosen; empty where a value is typed.
    pub(crate) options: Rc<[Choice]>,
    pub(crate) mode: &'static str,
    pub(crate) bad: bool,
    pub(crate) hidden: bool,
    /// The field on which it hangs whether this one is asked for.
    pub(crate) depends_on: String,
    /// The figure that is used where nothing is typed, with its mark: id, value, mark.
    pub(crate) used: Option<(String, String, &'static str)>,
}

/// The worked-out cells of a line.
#[derive(Debug, Clone, Default)]
pub(crate) struct Worked {
    /// Figures used where nothing is typed: field, value, mark.
    pub(crate) used: Vec<(&'static str, String, &'static str)>,
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
        let offered = Offered::to(c);
        let rows: Vec<SheetRow> = (1..=c.capability.stations)
            .map(|number| {
                let base = bases.iter().find(|b| b.number == number).copied();
                row(&input.form, number, base, c, &offered, units)
            })
            .collect();
        let volume: f64 = c
            .stations
            .iter()
            .filter_map(|s| Some((s.area_m2?, bases.iter().find(|b| b.number == s.number)?)))
            // Gross water: what the minutes lay down, thin cover included.
            .map(|(area, base)| area * base.week_mm() * base.multiplier / 1000.0)
            .sum();
        let used =
            w.t2("stations-used", ("used", c.stations.len().to_string()), ("all", c.capability.stations.to_string()));
        let sub = if volume > 0.0 {
            w.t2("stations-sub", ("used", used), ("volume", Measure::Volume.show(volume, units)))
        } else {
            used
        };
        let base_month =
            input.budget.as_ref().ok().and_then(|b| b.groups.first()).map(|g| crate::show::month_long(g.base_month));
        // A station with an error is shown before others: on a phone there is one at a time.
        let faulty = rows.iter().find(|row| !row.errors.is_empty()).map(|row| row.number);
        let open = input.open.or(faulty).or_else(|| c.stations.first().map(|s| s.number));
        let working =
            open.and_then(|n| StationWorking::of(n, c, input.budget.as_ref().ok()?, input.provenance?, units));
        Self {
            rows,
            sub,
            worked_for: base_month.map_or_else(String::new, |m| w.t1("stations-worked-for", m)),
            note: missing_note(input.budget.as_ref().err().copied()),
            parts: parts(),
            heads: COLUMNS.iter().map(|(part, names)| SheetHead { part: *part, ..head(names, units) }).collect(),
            depth_unit: Measure::Depth.unit(units),
            working,
            first: open.filter(|n| (1..=c.capability.stations).contains(n)).unwrap_or(1),
            form: input.form,
        }
    }
}

/// What can be chosen in each field, made once for all rows.
struct Offered(Vec<(&'static str, Rc<[Choice]>)>);

impl Offered {
    fn to(controller: &Controller) -> Self {
        let programs = usize::from(controller.capability.programs);
        let of = |field: &Field<Station>| {
            let mut choices = options(field);
            if field.name == "program" {
                choices.truncate(programs);
            }
            (field.name, choices.into())
        };
        Self(form::fields().map(of).collect())
    }

    fn of(&self, field: &str) -> Rc<[Choice]> {
        self.0.iter().find(|(name, _)| *name == field).map_or_else(|| Rc::from([]), |(_, choices)| Rc::clone(choices))
    }
}

fn head(names: &[&str], units: Units) -> SheetHead {
    let w = Words;
    let label = |name: &str| Station::field(name).map_or_else(String::new, |f| w.t(&label_key(f)));
    let unit = |name: &str| Station::field(name).map_or("", |f| measure(&f.kind).unit(units)).to_owned();
    let (class, under) = match names {
        ["plant", ..] => ("k2", "K_L".to_owned()),
        ["uniformity"] => ("k-u", w.t("lowest-quarter")),
        ["k_by_month"] => ("k-m", w.t("january-first")),
        ["soil", second] => ("k-s", label(second)),
        ["density", second] => ("k-n", label(second)),
        [_, second, ..] => ("k6", label(second)),
        [only] => (column_class(only), unit(only)),
        [] => ("", String::new()),
    };
    SheetHead { class, part: Part::All, label: names.first().map_or_else(String::new, |name| label(name)), under }
}

fn column_class(field: &str) -> &'static str {
    match field {
        "name" => "k1",
        "program" => "k-p",
        "sprinkler" => "k3",
        "rate_mm_h" => "k-r",
        "roofed" => "k7",
        "area_m2" => "k8",
        "need" => "k-n",
        "beside" | "microclimate" => "k-b",
        _ => "k6",
    }
}

fn row(
    form: &Form,
    number: u8,
    base: Option<&StationBase>,
    c: &Controller,
    offered: &Offered,
    units: Units,
) -> SheetRow {
    let w = Words;
    let station = c.station(number);
    let worked = station.map_or_else(Worked::default, |s| worked(s, base, c, units));
    let mut errors = Vec::new();
    let mut cell = |name: &&'static str| {
        let field = Station::field(name)?;
        let id = field_name(number, name);
        let label = w.t(&label_key(field));
        let error = form.error(&id).to_owned();
        if !error.is_empty() {
            errors.push((id.clone(), w.t2("cell-error", ("label", &label), ("error", &error))));
        }
        let plant = field_name(number, "plant");
        let hangs = *name == "coefficient";
        let used = worked.used.iter().find(|(field, ..)| field == name);
        Some(Cell {
            label: w.t2("cell", ("label", &label), ("station", number.to_string())),
            value: form.get(&id).to_owned(),
            options: offered.of(name),
            mode: if matches!(field.kind, Kind::Number { .. }) { "decimal" } else { "text" },
            bad: !error.is_empty(),
            hidden: hangs && !form.is(&plant, "coefficient"),
            depends_on: if hangs { plant } else { String::new() },
            used: used.map(|(field, value, mark)| (format!("live-{number}-{field}"), value.clone(), *mark)),
            name: id,
        })
    };
    let columns = COLUMNS.iter().map(|(_, names)| names.iter().filter_map(&mut cell).collect()).collect();
    SheetRow { number, used: station.is_some(), columns, errors, worked }
}

fn worked(station: &Station, base: Option<&StationBase>, c: &Controller, units: Units) -> Worked {
    let w = Words;
    let k_known = station.plant_coefficient(MonthOfYear::ALL[6]).1;
    let (micro, micro_known) = station.microclimate_factor();
    let (rate, rate_known) = station.sprinkler.rate_mm_per_hour();
    let (du, du_known) = station.sprinkler.uniformity();
    let ((roots, roots_known), (p, p_known)) = (station.root_depth_m(), station.depletion_share());
    let (taw, (_, water_known)) = (station.zone().taw_mm, station.available_water_mm_per_m());
    let start_known = station.root_zone.depletion_start_mm.map_or(Provenance::Guessed, |_| Provenance::Measured);
    let mut worked = Worked {
        used: vec![
            ("plant", coefficient_words(station), mark(k_known)),
            ("microclimate", typed_or(micro_known, || number(micro, 2)), mark(micro_known)),
            // A rate or a uniformity that was typed is in its cell already.
            ("rate_mm_h", typed_or(rate_known, || Measure::Rate.figure(rate, units)), mark(rate_known)),
            ("uniformity", typed_or(du_known, || number(du, 2)), mark(du_known)),
            ("root_depth_m", typed_or(roots_known, || Measure::RootDepth.figure(roots, units)), mark(roots_known)),
            ("p", typed_or(p_known, || number(p, 2)), mark(p_known)),
            ("field_capacity", w.t1("available-water", Measure::Depth.season(taw, units)), mark(water_known)),
            ("depletion_start_mm", typed_or(start_known, || "0".into()), mark(start_known)),
        ],
        ..Worked::default()
    };
    let Some(b) = base else { return worked };
    worked.week = Measure::Depth.figure(b.week_mm(), units);
    worked.base = number(b.run.minutes(), usize::from(!b.run.seconds().is_multiple_of(60)));
    worked.waterings = times(b.waterings);
    worked.interval = number(b.interval_days, 0);
    let allowed = c.capability.watering_days;
    let asked = (7.0 / b.interval_days).ceil();
    (worked.binds, worked.binds_more) = if b.held_at_longest(&c.capability) {
        (w.t("binds-longest"), w.t1("binds-longest-more", number(b.exact_minutes, 0)))
    } else if asked > f64::from(allowed) {
        (w.t("binds-days"), w.t2("binds-days-more", ("asked", number(asked, 0)), ("allowed", allowed.to_string())))
    } else if b.waterings > asked {
        (w.t("binds-program"), w.t("binds-program-more"))
    } else {
        (w.t("binds-soil"), w.t1("binds-soil-more", Measure::Depth.show(b.raw_mm, units)))
    };
    worked
}

/// K_L of a station: one figure, or the lowest and the highest of its months.
fn coefficient_words(station: &Station) -> String {
    let months = station.landscape_coefficients();
    let (low, high) = months.iter().fold((f64::INFINITY, 0.0_f64), |(low, high), k| (low.min(*k), high.max(*k)));
    if high - low < 0.005 { number(high, 2) } else { format!("{}–{}", number(low, 2), number(high, 2)) }
}

/// The figure that is used, where it was not typed.
fn typed_or(known: Provenance, figure: impl FnOnce() -> String) -> String {
    if known == Provenance::Measured { String::new() } else { figure() }
}
