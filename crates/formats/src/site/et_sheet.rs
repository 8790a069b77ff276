//! What the sheet of an ET sensor says about its dials.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use upland_core::quantity::{limit, range};
use upland_core::sensor::{ClimateStep, EtSheet, Mark, SheetError, mark};

use super::DocError;

/// A position of the climate dial of an ET sensor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ClimateStepDoc {
    /// What stands beside it.
    #[schemars(length(min = 1, max = limit::DIAL_MARK))]
    pub mark: String,
    /// The lowest mean reference ET of a peak month that it is for, mm a day.
    #[schemars(range(min = range::ET_STEP.min, max = range::ET_STEP.max))]
    pub from_mm_per_day: f64,
    /// The highest; the same where the sheet has one figure.
    #[schemars(range(min = range::ET_STEP.min, max = range::ET_STEP.max))]
    pub to_mm_per_day: f64,
}

/// The sheet of an ET sensor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct EtSheetDoc {
    /// The climate steps, coolest first.
    #[schemars(length(min = 1, max = limit::SENSOR_SETTINGS))]
    pub climates: Vec<ClimateStepDoc>,
    /// The marks of the offset, from the one that waters least.
    #[schemars(length(min = 1, max = limit::ET_OFFSETS))]
    pub offsets: Vec<String>,
    /// Position of the offset that changes nothing, from 1.
    #[schemars(range(min = 1, max = limit::ET_OFFSETS))]
    pub neutral: u8,
    /// What a step of the offset adds, percent of what the sensor sets.
    #[schemars(range(min = range::ET_OFFSET_STEP.min, max = range::ET_OFFSET_STEP.max))]
    pub offset_step_pct: f64,
}

impl Default for EtSheetDoc {
    fn default() -> Self {
        (&EtSheet::example()).into()
    }
}

impl From<&EtSheet> for EtSheetDoc {
    fn from(sheet: &EtSheet) -> Self {
        let step = |s: &ClimateStep| ClimateStepDoc {
            mark: s.mark.to_string(),
            from_mm_per_day: s.peak_mm_per_day[0],
            to_mm_per_day: s.peak_mm_per_day[1],
        };
        Self {
            climates: sheet.climates.iter().map(step).collect(),
            offsets: sheet.offsets.iter().map(Mark::to_string).collect(),
            neutral: sheet.neutral,
            offset_step_pct: sheet.offset_step_pct,
        }
    }
}

impl TryFrom<&EtSheetDoc> for EtSheet {
    type Error = DocError;

    fn try_from(doc: &EtSheetDoc) -> Result<Self, DocError> {
        let read = |text: &String| mark(text).ok_or(SheetError::Mark);
        let step = |s: &ClimateStepDoc| {
            let peak_mm_per_day = [s.from_mm_per_day, s.to_mm_per_day];
            Ok(ClimateStep { mark: read(&s.mark)?, peak_mm_per_day })
        };
        Ok(Self {
            climates: doc.climates.iter().map(step).collect::<Result<_, SheetError>>()?,
            offsets: doc.offsets.iter().map(read).collect::<Result<_, SheetError>>()?,
            neutral: doc.neutral,
            offset_step_pct: doc.offset_step_pct,
        })
    }
}
