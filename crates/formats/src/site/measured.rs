//! A station's application rate as it was measured.

use chrono::NaiveDate;
use serde::{Deserialize, Serialize};
use upland_core::landscape::{CanTest, Measurement};

/// A measurement on record.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MeasuredDoc {
    /// The day, by the calendar of the place.
    pub on: NaiveDate,
    /// Number of the station.
    pub station: u8,
    /// What was measured.
    pub by: MeasurementDoc,
    /// The rate that followed, mm/h.
    pub rate_mm_h: f64,
    /// The uniformity that followed, where cans were set out.
    pub uniformity: Option<f64>,
    /// What else was seen.
    pub note: String,
}

/// A way of measuring with its readings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum MeasurementDoc {
    /// Cans on the ground.
    Cans {
        /// Cans beside each other.
        columns: usize,
        /// Catches row by row, mm; null where no can stood.
        catches_mm: Vec<Option<f64>>,
        /// How long it ran, min.
        minutes: f64,
    },
    /// The water meter.
    Meter {
        /// Water that ran, L.
        litres: f64,
        /// How long, min.
        minutes: f64,
        /// Watered area, m².
        area_m2: f64,
    },
    /// Flow and area.
    Flow {
        /// Flow, L/min.
        litres_per_minute: f64,
        /// Watered area, m².
        area_m2: f64,
    },
    /// Emitters in rows.
    Emitters {
        /// Flow of one, L/h.
        litres_per_hour: f64,
        /// Along the row, m.
        spacing_m: f64,
        /// Between rows, m.
        rows_m: f64,
    },
}

impl From<&Measurement> for MeasurementDoc {
    fn from(measurement: &Measurement) -> Self {
        match measurement {
            Measurement::Cans(test) => {
                Self::Cans { columns: test.columns(), catches_mm: test.catches().to_vec(), minutes: test.minutes() }
            }
            Measurement::Meter { litres, minutes, area_m2 } => {
                Self::Meter { litres: *litres, minutes: *minutes, area_m2: *area_m2 }
            }
            Measurement::Flow { litres_per_minute, area_m2 } => {
                Self::Flow { litres_per_minute: *litres_per_minute, area_m2: *area_m2 }
            }
            Measurement::Emitters { litres_per_hour, spacing_m, rows_m } => {
                Self::Emitters { litres_per_hour: *litres_per_hour, spacing_m: *spacing_m, rows_m: *rows_m }
            }
        }
    }
}

impl MeasurementDoc {
    /// The measurement; none where cans on record give no figure any more.
    #[must_use]
    pub fn measurement(&self) -> Option<Measurement> {
        Some(match self.clone() {
            Self::Cans { columns, catches_mm, minutes } => {
                Measurement::Cans(CanTest::new(catches_mm, columns, minutes).ok()?)
            }
            Self::Meter { litres, minutes, area_m2 } => Measurement::Meter { litres, minutes, area_m2 },
            Self::Flow { litres_per_minute, area_m2 } => Measurement::Flow { litres_per_minute, area_m2 },
            Self::Emitters { litres_per_hour, spacing_m, rows_m } => {
                Measurement::Emitters { litres_per_hour, spacing_m, rows_m }
            }
        })
    }
}

#[cfg(test)]
mod tests {
    use super::super::FieldDoc;
    use super::*;

    #[test]
    fn every_way_of_measuring_comes_back_from_its_record() {
        let cans = CanTest::new(vec![Some(4.0), None, Some(6.0), Some(5.5), Some(3.0)], 3, 10.0).unwrap();
        for measurement in [
            Measurement::Cans(cans),
            Measurement::Meter { litres: 600.0, minutes: 20.0, area_m2: 90.0 },
            Measurement::Flow { litres_per_minute: 30.0, area_m2: 90.0 },
            Measurement::Emitters { litres_per_hour: 2.3, spacing_m: 0.3, rows_m: 0.5 },
        ] {
            let document = FieldDoc::Measured(MeasuredDoc {
                on: NaiveDate::from_ymd_opt(2026, 6, 11).unwrap(),
                station: 3,
                by: (&measurement).into(),
                rate_mm_h: measurement.rate().unwrap().get(),
                uniformity: measurement.uniformity(),
                note: String::new(),
            });
            let FieldDoc::Measured(back) = FieldDoc::from_json(document.to_json()).unwrap() else { panic!() };
            assert_eq!(back.by.measurement(), Some(measurement));
        }
    }
}
