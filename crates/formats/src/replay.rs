//! A replay as JSON, by columns: every number reads back the same.

use chrono::NaiveDate;
use schemars::{JsonSchema, Schema, SchemaGenerator};
use serde::Serialize;
use upland_core::replay::{Daily, Ground, Kind, Part, PartTotals, Replayed, Season};

/// Version of the replay document.
pub const REPLAY_VERSION: u32 = 1;

/// A replay of a site.
#[derive(Debug, Clone, PartialEq, Serialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ReplayDoc {
    /// Always `upland-replay`.
    pub format: &'static str,
    /// Version of the document.
    pub version: u32,
    /// The local days, one after another. Every daily array has one figure for each.
    pub dates: Vec<NaiveDate>,
    /// Reference ET of each day, mm.
    pub et0_mm: Vec<f64>,
    /// Days whose reference ET is the mean of their month, because the weather has none.
    pub et0_filled: Vec<NaiveDate>,
    /// Days without a measurement of rain; they count as dry.
    pub rain_missing: Vec<NaiveDate>,
    /// The strategies.
    pub strategies: Vec<StrategyDoc>,
}

/// A site under one strategy.
#[derive(Debug, Clone, PartialEq, Serialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct StrategyDoc {
    /// Which one.
    #[schemars(schema_with = "strategy_words")]
    pub id: &'static str,
    /// Whether it keeps to the watering days of the place.
    pub obeys_rules: bool,
    /// Days with water on a date that the rules close, summed over the controllers.
    pub rule_breaks: u32,
    /// A balance for each part of each station.
    pub stations: Vec<BalanceDoc>,
}

fn strategy_words(_: &mut SchemaGenerator) -> Schema {
    schemars::json_schema!({ "type": "string", "enum": Kind::ALL.map(Kind::word) })
}

/// Which part of a station.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartDoc {
    /// The station as a whole.
    Average,
    /// The quarter that gets least water.
    DriestQuarter,
}

/// The balance of one part of a station.
#[derive(Debug, Clone, PartialEq, Serialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct BalanceDoc {
    /// Name of the controller.
    pub controller: String,
    /// Terminal number of the station.
    pub station: u8,
    /// Which part of it.
    pub part: PartDoc,
    /// Total available water of the root zone, mm.
    pub taw_mm: f64,
    /// Share of it that plants use before they feel it.
    pub p: f64,
    /// Depletion before the first day, mm.
    pub depletion_start_mm: f64,
    /// Under a roof, where no rain falls.
    pub covered: bool,
    /// Distribution uniformity of the lowest quarter; the driest quarter gets this share of the mean.
    pub du_lq: f64,
    /// Day by day.
    pub daily: DailyDoc,
    /// Sums over the days.
    pub totals: TotalsDoc,
}

/// A balance day by day.
#[derive(Debug, Clone, PartialEq, Serialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct DailyDoc {
    /// What the plants would use with enough water, mm.
    pub et_l_mm: Vec<f64>,
    /// What they use, mm.
    pub et_actual_mm: Vec<f64>,
    /// Rain that reaches the surface, mm.
    pub rain_mm: Vec<f64>,
    /// Water that reaches the surface on this local date, before runoff, mm.
    pub applied_mm: Vec<f64>,
    /// What of rain and water together runs off, mm.
    pub runoff_mm: Vec<f64>,
    /// What sinks below the roots, mm.
    pub percolation_mm: Vec<f64>,
    /// Water missing to field capacity at the end of the day, mm.
    pub depletion_mm: Vec<f64>,
    /// Stress coefficient, 0 to 1.
    pub ks: Vec<f64>,
}

/// Sums of a balance, mm.
#[derive(Debug, Clone, PartialEq, Serialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TotalsDoc {
    /// What the plants would have used with enough water.
    pub et_l_mm: f64,
    /// What they used.
    pub et_actual_mm: f64,
    /// Rain that reached the surface.
    pub rain_mm: f64,
    /// Water put on the surface.
    pub applied_mm: f64,
    /// What of the two ran off.
    pub runoff_mm: f64,
    /// What sank below the roots.
    pub percolation_mm: f64,
}

impl ReplayDoc {
    /// A replay of a season that no strategy has been added to.
    #[must_use]
    pub fn of(season: &Season) -> Self {
        Self {
            format: "upland-replay",
            version: REPLAY_VERSION,
            dates: season.dates.clone(),
            et0_mm: season.et0_mm.clone(),
            et0_filled: season.et0_filled.clone(),
            rain_missing: season.rain_missing.clone(),
            strategies: Vec::new(),
        }
    }

    /// Adds what a controller did under a strategy.
    pub fn add(&mut self, kind: Kind, controller: &str, ground: &Ground, replayed: Replayed) {
        let id = kind.word();
        let at = self.strategies.iter().position(|s| s.id == id).unwrap_or_else(|| {
            let obeys_rules = kind.obeys_rules();
            self.strategies.push(StrategyDoc { id, obeys_rules, rule_breaks: 0, stations: Vec::new() });
            self.strategies.len() - 1
        });
        let strategy = &mut self.strategies[at];
        strategy.rule_breaks += replayed.rule_breaks;
        for (station, season) in ground.stations.iter().zip(replayed.stations) {
            let Some(days) = season.daily else { continue };
            for ((part, totals), daily) in Part::ALL.into_iter().zip(&season.totals).zip(days) {
                strategy.stations.push(BalanceDoc {
                    controller: controller.to_owned(),
                    station: station.number,
                    part: match part {
                        Part::Average => PartDoc::Average,
                        Part::DriestQuarter => PartDoc::DriestQuarter,
                    },
                    taw_mm: station.zone.taw_mm,
                    p: station.zone.p,
                    depletion_start_mm: station.depletion_start_mm,
                    covered: station.covered,
                    du_lq: station.uniformity,
                    daily: daily.into(),
                    totals: totals.into(),
                });
            }
        }
    }
}

impl From<Daily> for DailyDoc {
    fn from(d: Daily) -> Self {
        Self {
            et_l_mm: d.et_l_mm,
            et_actual_mm: d.et_actual_mm,
            rain_mm: d.rain_mm,
            applied_mm: d.applied_mm,
            runoff_mm: d.runoff_mm,
            percolation_mm: d.percolation_mm,
            depletion_mm: d.depletion_mm,
            ks: d.ks,
        }
    }
}

impl From<&PartTotals> for TotalsDoc {
    fn from(t: &PartTotals) -> Self {
        Self {
            et_l_mm: t.et_l_mm,
            et_actual_mm: t.et_actual_mm,
            rain_mm: t.rain_mm,
            applied_mm: t.applied_mm,
            runoff_mm: t.runoff_mm,
            percolation_mm: t.percolation_mm,
        }
    }
}

/// The JSON Schema of the replay document.
#[must_use]
pub fn replay_schema() -> serde_json::Value {
    schemars::schema_for!(ReplayDoc).to_value()
}
