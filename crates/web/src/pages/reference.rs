//! Reference: methods with their sources, and the sheet of parts for builders.

use upland_core::landscape::{Plant, Planting, Soil, SprinklerType};

use super::provenance::mark;
use super::shell::Shell;
use super::stations::{choice_name, plant_name};
use crate::form::Form;
use crate::show::{Measure, Units, number};
use crate::words::Words;

/// A method: what it gives, its formula, its source.
#[derive(Debug, Clone)]
pub(crate) struct MethodRow {
    pub(crate) what: String,
    pub(crate) formula: &'static str,
    pub(crate) source: &'static str,
}

/// A default of a table.
#[derive(Debug, Clone)]
pub(crate) struct DefaultRow {
    pub(crate) what: String,
    pub(crate) value: String,
    pub(crate) mark: &'static str,
    pub(crate) source: String,
}

#[derive(askama::Template)]
#[template(path = "reference.html")]
pub(crate) struct ReferenceTemplate {
    pub(crate) shell: Shell,
    pub(crate) methods: Vec<MethodRow>,
    pub(crate) defaults: Vec<Vec<DefaultRow>>,
}

#[derive(askama::Template)]
#[template(path = "parts_sheet.html")]
pub(crate) struct PartsTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) inks: [(&'static str, &'static str); 8],
}

pub(crate) fn methods() -> Vec<MethodRow> {
    let w = Words;
    [
        (
            "method-row-pm",
            "ET₀ = (0.408 Δ Rn + γ Cn/(T+273) u₂ (es − ea)) ÷ (Δ + γ (1 + Cd u₂))",
            "ASCE-05 eq. 1; FAO-56 eq. 6",
        ),
        ("method-row-hs", "ET₀ = 0.0023 (T + 17.8) √(Tmax − Tmin) 0.408 Ra", "HS-85; FAO-56 eq. 52"),
        ("method-row-humidity", "ea = e°(Tmin)", "FAO-56 eq. 48"),
        ("method-row-sun", "Rs = 0.16 √(Tmax − Tmin) Ra", "FAO-56 eq. 50"),
        ("method-row-kl", "ET_L = ET₀ × K_L", "LCM-2000; FAO-56 table 12"),
        ("method-row-rain", "Pe = SF (0.70917 P^0.82416 − 0.11556) 10^(0.02426 ET)", "TR-21; NEH-623-2 eq. 2-84"),
        ("method-row-raw", "RAW = p × AW × Zr", "FAO-56 eq. 82, 83"),
        ("method-row-minutes", "60 × net ÷ rate ÷ (0.4 + 0.6 DU)", "IA-LIS"),
        ("method-row-percent", "demand(m) ÷ demand(base) × 100", "—"),
    ]
    .map(|(what, formula, source)| MethodRow { what: w.t(what), formula, source })
    .to_vec()
}

/// What stands for what nobody measured: plants, sprinklers, soils.
pub(crate) fn defaults(units: Units) -> Vec<Vec<DefaultRow>> {
    let w = Words;
    let plants = Plant::KINDS.map(|p| {
        let (k, known) = p.coefficient(&Planting::default());
        let source = match p {
            _ if p.usual_need().is_some() => w.t("source-lcm"),
            Plant::Bare => "FAO-56 eq. 72".to_owned(),
            _ => "FAO-56 table 12".to_owned(),
        };
        DefaultRow { what: w.t1("default-kl", plant_name(p)), value: number(k, 2), mark: mark(known), source }
    });
    let rates = SprinklerType::ALL.map(|s| {
        let [low, high] = s.rate_range_mm_per_hour();
        let between = w.t2(
            "source-between",
            ("low", Measure::Rate.figure(low, units)),
            ("high", Measure::Rate.show(high, units)),
        );
        let source = match s.minutes_for_half_inch() {
            Some(minutes) => format!("{}; {between}", w.t1("source-half-inch", number(minutes, 0))),
            None => between,
        };
        DefaultRow {
            what: w.t1("default-rate", choice_name(s)),
            value: Measure::Rate.show(s.rate_mm_per_hour(), units),
            mark: "guessed",
            source,
        }
    });
    let uniformities = SprinklerType::ALL.map(|s| DefaultRow {
        what: w.t1("default-du", choice_name(s)),
        value: number(s.usual_uniformity(), 2),
        mark: "guessed",
        source: w.t("source-memory"),
    });
    let soils = Soil::ALL.map(|s| DefaultRow {
        what: w.t1("default-aw", choice_name(s)),
        value: format!("{}\u{a0}mm/m", number(s.available_water_mm_per_m(), 0)),
        mark: "table",
        source: match s {
            Soil::SandyClayLoam | Soil::ClayLoam | Soil::SandyClay => w.t("source-aquacrop"),
            _ => "FAO-56 table 19".to_owned(),
        },
    });
    vec![plants.to_vec(), rates.into_iter().chain(uniformities).collect(), soils.to_vec()]
}

/// The inks of the sheet of parts, with the class of each.
pub(crate) const INKS: [(&str, &str); 8] = [
    ("ink", "sw-ink"),
    ("ink2", "sw-ink2"),
    ("water", "sw-water"),
    ("demand", "sw-demand"),
    ("rain", "sw-rain"),
    ("heat", "sw-heat"),
    ("frost", "sw-frost"),
    ("fault", "sw-fault"),
];
