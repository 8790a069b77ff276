use upland_core::quantity::Range;
use upland_core::quantity::range::ROOT_DEPTH;
use upland_core::sensor::Vent;

use super::number::number;
use crate::words::Words;

/// The units in which a user reads and types.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(crate) enum Units {
    /// Millimetres, metres, degrees Celsius.
    #[default]
    Metric,
    /// Inches, feet, degrees Fahrenheit.
    Us,
}

impl Units {
    pub(crate) fn of_word(word: &str) -> Self {
        if word == "us" { Self::Us } else { Self::Metric }
    }

    pub(crate) const fn word(self) -> &'static str {
        match self {
            Self::Metric => "metric",
            Self::Us => "us",
        }
    }

    /// The other ones, for the switch.
    pub(crate) const fn other(self) -> Self {
        match self {
            Self::Metric => Self::Us,
            Self::Us => Self::Metric,
        }
    }
}

/// Something measured: its unit in either system, and how exactly it is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Measure {
    /// A number without a unit.
    Plain,
    /// Degrees of latitude and longitude.
    Degrees,
    /// Depth of water.
    Depth,
    /// Depth of water a day.
    DepthADay,
    /// Application rate.
    Rate,
    /// Watered area.
    Area,
    /// Elevation and the height of a mast.
    Height,
    /// Depth of roots.
    RootDepth,
    /// Distance over land.
    Distance,
    /// Volume of water.
    Volume,
    /// Volume of little water, L.
    Litres,
    /// Flow of a station.
    Flow,
    /// Flow of an emitter.
    EmitterFlow,
    /// Opening of a can.
    Opening,
    /// Distance between emitters.
    Spacing,
    /// A reading of a water meter.
    Meter,
    /// Wind speed.
    Wind,
    /// Temperature of the air.
    Temperature,
}

impl Measure {
    /// The measure of a range: by its unit, and a number without one for units that are the same
    /// everywhere.
    pub(crate) fn of_range(range: &Range) -> Self {
        match range.unit {
            "m" if *range == ROOT_DEPTH => Self::RootDepth,
            "mm/h" => Self::Rate,
            "m²" => Self::Area,
            "mm" => Self::Depth,
            "mm a day" => Self::DepthADay,
            "m" => Self::Height,
            "km" => Self::Distance,
            "m/s" => Self::Wind,
            "°C" => Self::Temperature,
            _ => Self::Plain,
        }
    }

    /// Units a unit of SI, unit in metric and US, decimals in metric and US.
    const fn table(self) -> (f64, &'static str, &'static str, usize, usize) {
        match self {
            Self::Plain => (1.0, "", "", 2, 2),
            Self::Degrees => (1.0, "°", "°", 4, 4),
            Self::Depth => (1.0 / 25.4, "mm", "in", 1, 2),
            Self::DepthADay => (1.0 / 25.4, "mm", "in", 2, 3),
            Self::Rate => (1.0 / 25.4, "mm/h", "in/h", 1, 2),
            Self::Area => (10.763_910_416_7, "m²", "ft²", 0, 0),
            Self::Height => (1.0 / 0.3048, "m", "ft", 0, 0),
            Self::RootDepth => (1.0 / 0.0254, "m", "in", 2, 1),
            Self::Distance => (1.0 / 1.609_344, "km", "mi", 0, 0),
            Self::Volume => (264.172_052_4, "m³", "gal", 1, 0),
            Self::Litres => (1.0 / 3.785_411_784, "L", "gal", 0, 0),
            Self::Flow => (1.0 / 3.785_411_784, "L/min", "gpm", 1, 1),
            Self::EmitterFlow => (1.0 / 3.785_411_784, "L/h", "gph", 1, 2),
            Self::Opening => (1.0 / 2.54, "cm", "in", 1, 2),
            Self::Spacing => (1.0 / 0.0254, "m", "in", 2, 1),
            Self::Meter => (264.172_052_4, "m³", "gal", 3, 1),
            Self::Wind => (1.0 / 0.44704, "m/s", "mph", 1, 1),
            Self::Temperature => (1.8, "°C", "°F", 0, 0),
        }
    }

    /// What the US scale shows at nothing.
    const fn zero(self) -> f64 {
        if matches!(self, Self::Temperature) { 32.0 } else { 0.0 }
    }

    pub(crate) fn unit(self, units: Units) -> &'static str {
        let (_, metric, us, ..) = self.table();
        match units {
            Units::Metric => metric,
            Units::Us => us,
        }
    }

    /// A value in SI, in the user's units.
    pub(crate) fn in_units(self, si: f64, units: Units) -> f64 {
        match units {
            Units::Metric => si,
            Units::Us => si * self.table().0 + self.zero(),
        }
    }

    /// A value in the user's units, in SI.
    pub(crate) fn to_si(self, value: f64, units: Units) -> f64 {
        match units {
            Units::Metric => value,
            Units::Us => (value - self.zero()) / self.table().0,
        }
    }

    /// The number alone.
    pub(crate) fn figure(self, si: f64, units: Units) -> String {
        let (.., metric, us) = self.table();
        let decimals = if units == Units::Us { us } else { metric };
        number(self.in_units(si, units), decimals)
    }

    /// The number with its unit, for a whole season: depths to the millimetre, or a tenth of an inch.
    pub(crate) fn season(self, si: f64, units: Units) -> String {
        format!("{}\u{a0}{}", self.season_figure(si, units), self.unit(units))
    }

    /// As [`Measure::season`], the number alone.
    pub(crate) fn season_figure(self, si: f64, units: Units) -> String {
        number(self.in_units(si, units), usize::from(self == Self::Depth && units == Units::Us))
    }

    /// The number with its unit.
    pub(crate) fn show(self, si: f64, units: Units) -> String {
        let unit = self.unit(units);
        let figure = self.figure(si, units);
        if unit.is_empty() || unit == "°" { format!("{figure}{unit}") } else { format!("{figure}\u{a0}{unit}") }
    }

    /// As it is put into a field: no grouping, no needless zeros.
    pub(crate) fn typed(self, si: f64, units: Units) -> String {
        let (.., metric, us) = self.table();
        // One decimal more than is shown, so that what was entered comes back as it was.
        let decimals = if units == Units::Us { us } else { metric } + 1;
        let text = format!("{:.decimals$}", self.in_units(si, units));
        text.trim_end_matches('0').trim_end_matches('.').to_owned()
    }

    /// What is allowed, as an error says it.
    pub(crate) fn allowed(self, range: Range, units: Units) -> String {
        let (.., metric, us) = self.table();
        let decimals = if units == Units::Us { us } else { metric };
        let end = |si: f64| {
            let value = self.in_units(si, units);
            if value.fract() == 0.0 { number(value, 0) } else { number(value, decimals.max(2)) }
        };
        let unit = if self == Self::Plain { range.unit } else { self.unit(units) };
        Words
            .with("field-allowed", &[("from", &end(range.min)), ("to", &end(range.max)), ("unit", unit)])
            .trim_end()
            .to_owned()
    }
}

/// A setting of a rain sensor as it is printed on one: millimetres, or eighths of an inch.
pub(crate) fn rain_setting(threshold_mm: f64, units: Units) -> String {
    format!("{}\u{a0}{}", rain_text(threshold_mm, units), Measure::Depth.unit(units))
}

/// How far a vent ring is open.
pub(crate) fn vent_words(vent: Vent) -> String {
    Words.t(match vent {
        Vent::Open => "vent-open",
        Vent::Half => "vent-half",
        Vent::Closed => "vent-closed",
    })
}

/// As [`rain_setting`], without the unit.
pub(crate) fn rain_text(threshold_mm: f64, units: Units) -> String {
    let eighths = threshold_mm / 25.4 * 8.0;
    // Printed pairs such as 3 mm and 1/8 in differ by up to a third of a millimetre.
    if units == Units::Metric || (eighths - eighths.round()).abs() > 0.15 || eighths < 0.5 {
        return Measure::Depth.typed(threshold_mm, units);
    }
    let (whole, part) = (eighths.round() as u32 / 8, eighths.round() as u32 % 8);
    let fraction = match part {
        0 => String::new(),
        4 => "1/2".into(),
        2 | 6 => format!("{}/4", part / 2),
        n => format!("{n}/8"),
    };
    match (whole, fraction.is_empty()) {
        (0, _) => fraction,
        (whole, true) => whole.to_string(),
        (whole, false) => format!("{whole} {fraction}"),
    }
}

/// A number that may be a fraction, as rain sensors print theirs: `1/4`, `1 1/2`, `0.5`.
pub(crate) fn fraction(text: &str) -> Option<f64> {
    let (whole, part) = match text.trim().rsplit_once(' ') {
        Some((whole, part)) => (crate::form::parse_number(whole)?, part),
        None => (0.0, text.trim()),
    };
    let (top, bottom) = part.split_once('/')?;
    let (top, bottom) = (top.parse::<u16>().ok()?, bottom.parse::<u16>().ok()?);
    (bottom > 0).then(|| whole + f64::from(top) / f64::from(bottom))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn both_systems_show_the_same_water() {
        assert_eq!(Measure::Depth.show(12.7, Units::Metric), "12.7\u{a0}mm");
        assert_eq!(Measure::Depth.show(12.7, Units::Us), "0.50\u{a0}in");
        assert_eq!(Measure::Height.show(410.0, Units::Us), "1345\u{a0}ft");
        assert_eq!(Measure::Volume.show(1.0, Units::Us), "264\u{a0}gal");
    }

    #[test]
    fn a_field_gives_back_what_was_entered() {
        for text in ["1.25", "0.5", "31.8", "14.65"] {
            let si = Measure::Rate.to_si(text.parse().unwrap(), Units::Us);
            assert_eq!(Measure::Rate.typed(si, Units::Us), text);
        }
    }

    #[test]
    fn rain_settings_are_those_printed_on_a_sensor() {
        let us: Vec<String> = [3.0, 6.0, 13.0, 19.0, 25.4, 38.1].map(|mm| rain_setting(mm, Units::Us)).to_vec();
        assert_eq!(us, ["1/8", "1/4", "1/2", "3/4", "1", "1 1/2"].map(|t| format!("{t}\u{a0}in")));
        assert_eq!(rain_setting(8.0, Units::Us), "0.315\u{a0}in");
        assert_eq!(rain_setting(13.0, Units::Metric), "13\u{a0}mm");
        assert_eq!(["1/4", "1 1/2", " 3/8 "].map(fraction), [Some(0.25), Some(1.5), Some(0.375)]);
        assert_eq!(["", "1/0", "a/b", "0.5"].map(fraction), [None; 4]);
    }
}
