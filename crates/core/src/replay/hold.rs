use super::season::Season;
use super::state::State;
use crate::controller::{Controller, StartTime};
use crate::sensor::{RainSetting, RainStore, Sensor, SensorKind, temperature_at};

/// Something that keeps programs from watering.
#[derive(Debug, Clone, PartialEq)]
pub enum Hold {
    /// A rain shut-off.
    Rain {
        /// Its setting.
        setting: RainSetting,
        /// How it stands.
        store: RainStore,
        /// Stations that do not obey it.
        exempt: Vec<u8>,
    },
    /// A freeze sensor: holds while the air is colder than its setting.
    Freeze {
        /// Its setting, °C.
        threshold_c: f64,
        /// Hour of sunrise by month, January first, by the clock of the place.
        sunrise_hours: [f64; 12],
        /// Stations that do not obey it.
        exempt: Vec<u8>,
    },
    /// A soil-moisture sensor: lets water once so much is missing in the station it stands in.
    Soil {
        /// Depletion from which it lets water, share of the available water.
        depletion_share: f64,
        /// The station that it stands in.
        station: u8,
        /// Stations that do not obey it.
        exempt: Vec<u8>,
    },
}

impl Hold {
    /// A rain shut-off that nothing has filled yet.
    #[must_use]
    pub fn rain(setting: RainSetting, exempt: Vec<u8>) -> Self {
        Self::Rain { setting, store: RainStore::default(), exempt }
    }

    /// What a sensor of a controller does; nothing for one that sets percents, or that cannot act as it
    /// is wired.
    #[must_use]
    pub fn of(sensor: &Sensor, controller: &Controller, sunrise_hours: [f64; 12]) -> Option<Self> {
        if !sensor.jumper_removed || !sensor.fits(controller) {
            return None;
        }
        let exempt = sensor.exempt.clone();
        match &sensor.kind {
            SensorKind::Rain { setting, .. } => Some(Self::rain(*setting, exempt)),
            SensorKind::Freeze { threshold_c, .. } => {
                Some(Self::Freeze { threshold_c: *threshold_c, sunrise_hours, exempt })
            }
            SensorKind::SoilMoisture { threshold_pct, readings } => {
                let station = controller.stations.iter().find(|s| sensor.governs(s.number))?;
                // The reading 24 hours after soaking stands for field capacity, and 0 for an oven-dry
                // soil: the threshold's distance from it is a share of what is held there.
                let full = readings.last()?.percent;
                let depletion_share = (1.0 - (*threshold_pct)? / full).clamp(0.0, 1.0);
                Some(Self::Soil { depletion_share, station: station.number, exempt })
            }
            SensorKind::Et { .. } => None,
        }
    }

    /// Whether a station obeys it.
    #[must_use]
    pub fn governs(&self, station: u8) -> bool {
        let (Self::Rain { exempt, .. } | Self::Freeze { exempt, .. } | Self::Soil { exempt, .. }) = self;
        !exempt.contains(&station)
    }

    /// Whether it holds a program that starts at a time of a day.
    #[must_use]
    pub fn holds(&self, season: &Season, index: usize, start: StartTime, state: &State<'_>) -> bool {
        use chrono::Datelike;
        match self {
            Self::Rain { store, .. } if start.minute_of_day() < 720 => store.holds(),
            // After noon the day's rain has fallen.
            Self::Rain { setting, store, .. } => {
                store.after_rain(setting, season.rain_mm[index], season.et0_mm[index]).holds()
            }
            Self::Freeze { threshold_c, sunrise_hours, .. } => season.air_c[index].is_some_and(|(low, high)| {
                let sunrise = sunrise_hours[season.dates[index].month0() as usize];
                temperature_at(f64::from(start.minute_of_day()) / 60.0, sunrise, low, high) < *threshold_c
            }),
            Self::Soil { depletion_share, station, .. } => {
                state.of(*station).is_some_and(|s| s.depletion_mm < depletion_share * s.zone.taw_mm)
            }
        }
    }

    /// Goes on to the next day.
    pub fn end_day(&mut self, season: &Season, index: usize) {
        if let Self::Rain { setting, store, .. } = self {
            *store = store.after_day(setting, season.rain_mm[index], season.et0_mm[index]);
        }
    }
}
