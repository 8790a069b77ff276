use thiserror::Error;

/// What a quantity may be: the one place that checks, messages, forms and tests read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Range {
    /// The quantity's name in this code base (`latitude`, `rate`), also the key of its word.
    pub what: &'static str,
    /// The unit the limits are in; empty where there is none.
    pub unit: &'static str,
    /// The least allowed value, itself allowed.
    pub min: f64,
    /// The greatest allowed value, itself allowed.
    pub max: f64,
}

/// A value outside what its quantity may be.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
#[error("{}: {value} is not allowed; it may be {} to {} {}", range.what, range.min, range.max, range.unit)]
pub struct OutOfRange {
    /// The range that was left.
    pub range: Range,
    /// The value as it was given (NaN included).
    pub value: f64,
}

impl Range {
    /// Gives the value back when it lies in the range.
    ///
    /// # Errors
    /// [`OutOfRange`] for values outside, NaN and the infinities.
    pub fn check(&self, value: f64) -> Result<f64, OutOfRange> {
        if value >= self.min && value <= self.max { Ok(value) } else { Err(OutOfRange { range: *self, value }) }
    }

    /// The value, held at the end that it would leave by.
    #[must_use]
    pub const fn held(&self, value: f64) -> f64 {
        value.clamp(self.min, self.max)
    }

    /// Whether the value lies in the range.
    #[must_use]
    pub fn holds(&self, value: f64) -> bool {
        self.check(value).is_ok()
    }
}

/// The table of ranges, one constant a quantity.
///
/// Limits are those of the Earth's surface records with room to spare for weather, and of
/// equipment sold for landscapes for the rest (common practice).
pub mod range {
    use super::Range;

    const fn r(what: &'static str, unit: &'static str, min: f64, max: f64) -> Range {
        Range { what, unit, min, max }
    }

    /// Number of a month, January first.
    pub const MONTH: Range = r("month", "", 1.0, 12.0);
    /// Geographic latitude, north positive.
    pub const LATITUDE: Range = r("latitude", "°", -90.0, 90.0);
    /// Geographic longitude, east positive.
    pub const LONGITUDE: Range = r("longitude", "°", -180.0, 180.0);
    /// Elevation above mean sea level.
    pub const ELEVATION: Range = r("elevation", "m", -450.0, 6000.0);
    /// Height of the anemometer above ground (FAO-56 eq. 47 has no meaning under 0.1 m).
    pub const WIND_HEIGHT: Range = r("wind-height", "m", 0.5, 200.0);
    /// Air temperature and dew point.
    pub const TEMPERATURE: Range = r("temperature", "°C", -90.0, 60.0);
    /// Relative humidity, with room for a sensor that reads a little over saturation.
    pub const HUMIDITY: Range = r("humidity", "%", 0.0, 105.0);
    /// Mean wind speed of a day.
    pub const WIND: Range = r("wind", "m/s", 0.0, 60.0);
    /// Solar radiation of a day; the extraterrestrial maximum is under 50.
    pub const SOLAR: Range = r("solar", "MJ/m²", 0.0, 50.0);
    /// Solar radiation of an hour; the extraterrestrial maximum is 5.1. Pyranometers read a little below 0 at night.
    pub const SOLAR_HOUR: Range = r("solar", "MJ/m²", -0.1, 6.0);
    /// Rain of an hour; the most ever measured is some 300 mm.
    pub const RAIN_HOUR: Range = r("rain", "mm", 0.0, 400.0);
    /// Rain of a day.
    pub const RAIN: Range = r("rain", "mm", 0.0, 2000.0);
    /// Reference ET of a day, as a typed normal.
    pub const ET0: Range = r("et0", "mm a day", 0.0, 20.0);
    /// Rain of a month, as a typed normal.
    pub const RAIN_MONTH: Range = r("rain-month", "mm", 0.0, 5000.0);
    /// Depth of water in one watering or one month.
    pub const DEPTH: Range = r("depth", "mm", 0.0, 10_000.0);
    /// Application rate of a station.
    pub const RATE: Range = r("rate", "mm/h", 1.0, 150.0);
    /// Flow of a station.
    pub const FLOW: Range = r("flow", "L/min", 0.1, 5000.0);
    /// A reading of a water meter.
    pub const METER: Range = r("meter", "m³", 0.0, 10_000_000.0);
    /// How long a test runs.
    pub const TEST_MINUTES: Range = r("test-minutes", "min", 0.5, 240.0);
    /// Opening of a can, across.
    pub const CAN_OPENING: Range = r("can-opening", "cm", 2.0, 60.0);
    /// What a can caught, as a depth.
    pub const CATCH: Range = r("catch", "mm", 0.0, 500.0);
    /// What a can caught, as a volume.
    pub const CATCH_VOLUME: Range = r("catch-volume", "mL", 0.0, 20_000.0);
    /// Cans beside each other, and rows of them.
    pub const CAN_ROWS: Range = r("can-rows", "", 1.0, 8.0);
    /// Flow of one emitter.
    pub const EMITTER_FLOW: Range = r("emitter-flow", "L/h", 0.1, 200.0);
    /// Distance between emitters, or between their rows.
    pub const SPACING: Range = r("spacing", "m", 0.05, 20.0);
    /// Landscape coefficient.
    pub const COEFFICIENT: Range = r("coefficient", "", 0.05, 1.5);
    /// Microclimate factor of sun, shade and wind (LCM-2000 has 0.5 to 1.4).
    pub const MICROCLIMATE: Range = r("microclimate", "", 0.2, 1.6);
    /// Distribution uniformity of the lowest quarter.
    pub const UNIFORMITY: Range = r("uniformity", "", 0.2, 1.0);
    /// Trim of a station's demand; commonly within -50 to +25 % (common practice), ours is narrower.
    pub const TRIM: Range = r("trim", "%", -30.0, 30.0);
    /// Water content of a soil at field capacity or at wilting point, volume of water in volume of soil.
    pub const WATER_CONTENT: Range = r("water-content", "m³/m³", 0.005, 0.7);
    /// Depth of the roots that are watered.
    pub const ROOT_DEPTH: Range = r("root-depth", "m", 0.03, 3.0);
    /// Share of the available water that may be used, p (FAO-56 holds it in 0.1 to 0.8).
    pub const DEPLETION_SHARE: Range = r("depletion-share", "", 0.05, 0.95);
    /// Water missing to field capacity in the root zone.
    pub const DEPLETION: Range = r("depletion", "mm", 0.0, 2100.0);
    /// Watered area of a station.
    pub const AREA: Range = r("area", "m²", 1.0, 200_000.0);
    /// Water budget percent, any controller's.
    pub const PERCENT: Range = r("percent", "%", 0.0, 400.0);
    /// Step of the water budget percent.
    pub const PERCENT_STEP: Range = r("percent-step", "%", 1.0, 50.0);
    /// Run time, any controller's.
    pub const RUN_MINUTES: Range = r("run-minutes", "min", 0.0, 1440.0);
    /// Run-time step.
    pub const RUN_STEP_SECONDS: Range = r("run-step", "s", 1.0, 600.0);
    /// Longest run a controller can be set to.
    pub const RUN_MAX_MINUTES: Range = r("run-max", "min", 1.0, 1440.0);
    /// Run time of a station in seconds, as files keep it.
    pub const RUN_SECONDS: Range = r("run-seconds", "s", 0.0, 86_400.0);
    /// One cycle of a divided run, in seconds.
    pub const CYCLE_SECONDS: Range = r("cycle-seconds", "s", 1.0, 86_400.0);
    /// Longest run a controller can be set to, in seconds.
    pub const RUN_MAX_SECONDS: Range = r("run-max-seconds", "s", 60.0, 86_400.0);
    /// Terminal number of a station.
    pub const STATION_NUMBER: Range = r("station-number", "", 1.0, 48.0);
    /// Stations of one controller.
    pub const STATIONS: Range = r("stations", "", 1.0, 48.0);
    /// Days a week on which watering may run.
    pub const WATERING_DAYS: Range = r("watering-days", "days a week", 1.0, 7.0);
    /// Programs of one controller.
    pub const PROGRAMS: Range = r("programs", "", 1.0, 4.0);
    /// Start times of one program.
    pub const STARTS: Range = r("starts", "", 1.0, 16.0);
    /// Step of a start time.
    pub const START_STEP: Range = r("start-step", "min", 1.0, 60.0);
    /// Days from one watering to the next; 0 where a controller has no such mode.
    pub const EVERY_DAYS: Range = r("every-days", "days", 0.0, 31.0);
    /// Sensor inputs of one controller.
    pub const SENSOR_INPUTS: Range = r("sensor-inputs", "", 0.0, 16.0);
    /// Number of a sensor input.
    pub const SENSOR_INPUT: Range = r("sensor-input", "", 1.0, 16.0);
    /// Water windows of a panel.
    pub const WATER_WINDOWS: Range = r("water-windows", "", 0.0, 2.0);
    /// Longest rain delay.
    pub const RAIN_DELAY: Range = r("rain-delay", "days", 0.0, 31.0);
    /// Minute of the day, from midnight.
    pub const MINUTE_OF_DAY: Range = r("minute-of-day", "min", 0.0, 1439.0);
    /// Pause between stations.
    pub const STATION_DELAY_SECONDS: Range = r("station-delay", "s", 0.0, 14_400.0);
    /// Threshold of a rain sensor.
    pub const RAIN_THRESHOLD: Range = r("rain-threshold", "mm", 0.5, 100.0);
    /// Threshold of a freeze sensor.
    pub const FREEZE_THRESHOLD: Range = r("freeze-threshold", "°C", -10.0, 15.0);
    /// Water that the disc of a rain sensor holds.
    pub const DISC_CAPACITY: Range = r("disc-capacity", "mm", 5.0, 200.0);
    /// Share of its setting below which a rain sensor lets go.
    pub const DISC_RELEASE: Range = r("disc-release", "", 0.05, 1.0);
    /// Days of delay after rain.
    pub const RAIN_SENSOR_DELAY: Range = r("sensor-delay", "days", 0.0, 14.0);
    /// Reading of a soil-moisture sensor.
    pub const SOIL_READING: Range = r("soil-reading", "%", 0.0, 100.0);
    /// Reference ET at which a climate step of an ET sensor sets 100 %.
    pub const ET_STEP: Range = r("et-step", "mm/day", 0.5, 20.0);
    /// What a step of an ET sensor's offset adds to its percent.
    pub const ET_OFFSET_STEP: Range = r("et-offset-step", "%", 1.0, 50.0);
    /// What the lowest offset of an ET sensor leaves of its percent.
    pub const ET_LOWEST_SHARE: Range = r("et-lowest-share", "%", 5.0, 100.0);
    /// Number that names a sensor of a controller.
    pub const SENSOR_ID: Range = r("sensor-id", "", 1.0, 65_535.0);
    /// Percent that a weaning adds in its first week, or takes away with every week. Ours.
    pub const WEANING: Range = r("weaning", "%", 1.0, 200.0);
    /// Position on a dial, from 1.
    pub const POSITION: Range = r("position", "", 1.0, 25.0);
    /// Years of every date that is kept.
    pub const YEAR: Range = r("year", "", 1900.0, 2200.0);
    /// Distance from the weather station to the place.
    pub const DISTANCE: Range = r("distance", "km", 0.0, 20_040.0);
}

/// The table of limits to what is counted: characters of texts, entries of lists.
pub mod limit {
    /// Characters of a name of anything.
    pub const NAME: usize = 60;
    /// Characters of a program's name, which has to fit a door card.
    pub const PROGRAM_NAME: usize = 20;
    /// Characters of a house number.
    pub const HOUSE_NUMBER: usize = 12;
    /// Characters of the reason of something temporary.
    pub const REASON: usize = 200;
    /// Characters of a note.
    pub const NOTE: usize = 500;
    /// Sensors of one controller.
    pub const SENSORS: usize = 16;
    /// Temporary settings of one controller, over ones included.
    pub const TEMPORARIES: usize = 64;
    /// Settings printed on one sensor.
    pub const SENSOR_SETTINGS: usize = 12;
    /// Characters of a mark beside a position of a sensor's dial.
    pub const DIAL_MARK: usize = 12;
    /// Marks of the offset of an ET sensor.
    pub const ET_OFFSETS: usize = 25;
    /// Readings of one calibration.
    pub const READINGS: usize = 200;
    /// Cycles of one run; a panel that cuts runs by itself makes a dozen at most.
    pub const CYCLES: u32 = 100;
    /// Openings of valves that the starts of one day may come to on one controller. 48 stations in
    /// four starts of twelve cycles are 2,304.
    pub const OPENINGS_A_DAY: usize = 5000;
    /// Spans of hours without watering at one place.
    pub const CLOSED_HOURS: usize = 4;
    /// Most seasons with water rules of their own.
    pub const RULE_SEASONS: usize = 2;
    /// Spans of dates without watering at one place.
    pub const CLOSED_DATES: usize = 24;
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ends_are_allowed_and_nan_is_not() {
        assert!(range::LATITUDE.holds(90.0));
        assert!(range::LATITUDE.holds(-90.0));
        assert!(!range::LATITUDE.holds(95.0));
        assert!(!range::LATITUDE.holds(f64::NAN));
        assert!(!range::RAIN.holds(f64::INFINITY));
    }

    #[test]
    fn the_message_says_what_was_given_and_what_is_allowed() {
        let error = range::LATITUDE.check(95.0).unwrap_err();
        assert_eq!(error.to_string(), "latitude: 95 is not allowed; it may be -90 to 90 °");
    }
}
