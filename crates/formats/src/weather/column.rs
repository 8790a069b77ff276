use chrono::NaiveDate;
use upland_core::climate::element::Element;

/// A column of daily weather.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Column {
    /// The day.
    Date,
    /// Highest temperature.
    TMax,
    /// Lowest temperature.
    TMin,
    /// Highest relative humidity.
    RhMax,
    /// Lowest relative humidity.
    RhMin,
    /// Mean relative humidity.
    RhMean,
    /// Mean dew point.
    DewPoint,
    /// Mean wind.
    Wind,
    /// Solar radiation.
    Solar,
    /// Rain.
    Rain,
}

impl Column {
    /// All columns, in the order in which files are written.
    pub const ALL: [Self; 10] = [
        Self::Date,
        Self::TMax,
        Self::TMin,
        Self::RhMax,
        Self::RhMin,
        Self::RhMean,
        Self::DewPoint,
        Self::Wind,
        Self::Solar,
        Self::Rain,
    ];

    /// The weather element in the column; none in that of dates.
    #[must_use]
    pub const fn element(self) -> Option<Element> {
        match self {
            Self::Date => None,
            Self::TMax => Some(Element::TMax),
            Self::TMin => Some(Element::TMin),
            Self::RhMax => Some(Element::RhMax),
            Self::RhMin => Some(Element::RhMin),
            Self::RhMean => Some(Element::RhMean),
            Self::DewPoint => Some(Element::DewPoint),
            Self::Wind => Some(Element::Wind),
            Self::Solar => Some(Element::Solar),
            Self::Rain => Some(Element::Rain),
        }
    }

    /// The column's name in our files, with its unit.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self.element() {
            Some(element) => element.word(),
            None => "date",
        }
    }

    /// The column with this name.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|c| c.name() == name)
    }

    /// The units in which the column may come, our own first.
    #[must_use]
    pub const fn units(self) -> &'static [Unit] {
        match self {
            Self::Date => &[Unit::YearMonthDay, Unit::DayMonthYear, Unit::MonthDayYear],
            Self::TMax | Self::TMin | Self::DewPoint => &[Unit::Celsius, Unit::Fahrenheit],
            Self::RhMax | Self::RhMin | Self::RhMean => &[Unit::Percent],
            Self::Wind => &[Unit::MetresPerSecond, Unit::KilometresPerHour, Unit::MilesPerHour, Unit::Knots],
            Self::Solar => &[Unit::Megajoules, Unit::Watts, Unit::Langleys],
            Self::Rain => &[Unit::Millimetres, Unit::Inches],
        }
    }
}

/// The unit of a column in a file; for dates, the order of year, month and day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Unit {
    /// 2015-07-31 or 2015/07/31.
    YearMonthDay,
    /// 31.7.2015 or 31/7/2015.
    DayMonthYear,
    /// 7/31/2015.
    MonthDayYear,
    /// °C.
    Celsius,
    /// °F.
    Fahrenheit,
    /// %.
    Percent,
    /// m/s.
    MetresPerSecond,
    /// km/h.
    KilometresPerHour,
    /// mph.
    MilesPerHour,
    /// Knots.
    Knots,
    /// MJ/m² a day.
    Megajoules,
    /// W/m², mean of the day.
    Watts,
    /// Langleys a day.
    Langleys,
    /// mm.
    Millimetres,
    /// in.
    Inches,
}

impl Unit {
    /// All units.
    pub const ALL: [Self; 15] = [
        Self::YearMonthDay,
        Self::DayMonthYear,
        Self::MonthDayYear,
        Self::Celsius,
        Self::Fahrenheit,
        Self::Percent,
        Self::MetresPerSecond,
        Self::KilometresPerHour,
        Self::MilesPerHour,
        Self::Knots,
        Self::Megajoules,
        Self::Watts,
        Self::Langleys,
        Self::Millimetres,
        Self::Inches,
    ];

    /// A short name for forms.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::YearMonthDay => "ymd",
            Self::DayMonthYear => "dmy",
            Self::MonthDayYear => "mdy",
            Self::Celsius => "c",
            Self::Fahrenheit => "f",
            Self::Percent => "pct",
            Self::MetresPerSecond => "ms",
            Self::KilometresPerHour => "kmh",
            Self::MilesPerHour => "mph",
            Self::Knots => "kn",
            Self::Megajoules => "mj",
            Self::Watts => "w",
            Self::Langleys => "ly",
            Self::Millimetres => "mm",
            Self::Inches => "in",
        }
    }

    /// The unit with this name.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|u| u.name() == name)
    }

    /// A number in this unit, in the core's (°C, %, m/s, MJ/m² a day, mm). Dates have none and
    /// come back as they are.
    #[must_use]
    pub fn to_si(self, value: f64) -> f64 {
        match self {
            Self::Fahrenheit => (value - 32.0) / 1.8,
            Self::KilometresPerHour => value / 3.6,
            Self::MilesPerHour => value * 0.44704,
            Self::Knots => value * 1852.0 / 3600.0,
            // A mean of 1 W/m² over a day of 86 400 s.
            Self::Watts => value * 0.0864,
            // 1 langley is 1 thermochemical calorie a square centimetre: 41 840 J/m².
            Self::Langleys => value * 0.041_84,
            Self::Inches => value * 25.4,
            _ => value,
        }
    }

    /// A date in this order, or `None`. Years have four digits; separators are `-`, `/` and `.`,
    /// and a time of day after a blank or a `T` is left out.
    #[must_use]
    pub fn date(self, text: &str) -> Option<NaiveDate> {
        let day_part = text.split(['T', ' ']).next()?;
        let mut parts = day_part.split(['-', '/', '.']);
        let (a, b, c) = (parts.next()?, parts.next()?, parts.next()?);
        if parts.next().is_some() {
            return None;
        }
        let (y, m, d) = match self {
            Self::DayMonthYear => (c, b, a),
            Self::MonthDayYear => (c, a, b),
            _ => (a, b, c),
        };
        let digits = |text: &str, least: usize, most: usize| {
            (least..=most).contains(&text.len()) && text.bytes().all(|b| b.is_ascii_digit())
        };
        if !(digits(y, 4, 4) && digits(m, 1, 2) && digits(d, 1, 2)) {
            return None;
        }
        NaiveDate::from_ymd_opt(y.parse().ok()?, m.parse().ok()?, d.parse().ok()?)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn units_become_si() {
        assert!((Unit::Fahrenheit.to_si(50.0) - 10.0).abs() < 1e-12);
        assert!((Unit::MilesPerHour.to_si(4.80) - 2.145_792).abs() < 1e-9);
        assert!((Unit::Watts.to_si(100.0) - 8.64).abs() < 1e-12);
        assert!((Unit::Inches.to_si(0.5) - 12.7).abs() < 1e-12);
    }

    #[test]
    fn dates_by_their_order() {
        let july = NaiveDate::from_ymd_opt(2015, 7, 31).unwrap();
        assert_eq!(Unit::YearMonthDay.date("2015-07-31"), Some(july));
        assert_eq!(Unit::YearMonthDay.date("2015/7/31 00:00"), Some(july));
        assert_eq!(Unit::DayMonthYear.date("31.7.2015"), Some(july));
        assert_eq!(Unit::MonthDayYear.date("7/31/2015"), Some(july));
        for wrong in ["", "2015-02-29", "15-07-31", "2015-07", "2015-07-31-1", "yesterday", "2015-+7-31"] {
            assert_eq!(Unit::YearMonthDay.date(wrong), None, "{wrong}");
        }
    }
}
