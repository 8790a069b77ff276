//! The weather of a place out of several stations: reference ET from one, rain from another, gaps filled from the
//! next, and every figure marked with the station that it is from.

use chrono::NaiveDate;

use super::normals::{MonthNormal, Normals};

/// A day on record as the balance and the sensors need it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WeatherDay {
    /// The local day.
    pub date: NaiveDate,
    /// Reference ET, mm; `None` where it could not be worked out.
    pub et0_mm: Option<f64>,
    /// Rain, mm; `None` where it was not measured.
    pub rain_mm: Option<f64>,
    /// Lowest temperature, °C.
    pub tmin_c: Option<f64>,
    /// Highest temperature, °C.
    pub tmax_c: Option<f64>,
}

/// In which order stations are asked, as places in their list. A station may be in both orders, or in one.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Preference {
    /// For reference ET and temperature, which may come from far.
    pub et0: Vec<usize>,
    /// For rain, which needs to be near.
    pub rain: Vec<usize>,
}

/// A day with the stations that it is from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BlendedDay {
    /// The day.
    pub day: WeatherDay,
    /// The station of its reference ET, as a place in the list; `None` where no station has it.
    pub et0_from: Option<usize>,
    /// The station of its rain.
    pub rain_from: Option<usize>,
}

/// Every day that any of the stations has, by date: each value from the first station of its order that has one.
/// The days of each station are in order, each date once. Both temperatures of a day come from one station.
#[must_use]
pub fn blend(stations: &[&[WeatherDay]], order: &Preference) -> Vec<BlendedDay> {
    let mut next = vec![0; stations.len()];
    let mut out = Vec::with_capacity(stations.iter().map(|days| days.len()).max().unwrap_or(0));
    loop {
        let first = stations.iter().zip(&next).filter_map(|(days, at)| days.get(*at)).map(|d| d.date).min();
        let Some(date) = first else { return out };
        let today: Vec<Option<WeatherDay>> = stations
            .iter()
            .zip(&mut next)
            .map(|(days, at)| {
                let own = days.get(*at).copied().filter(|d| d.date == date);
                *at += usize::from(own.is_some());
                own
            })
            .collect();
        out.push(blended_day(date, &today, order));
    }
}

fn blended_day(date: NaiveDate, today: &[Option<WeatherDay>], order: &Preference) -> BlendedDay {
    let of = |station: usize| today.get(station).copied().flatten();
    let first = |order: &[usize], value: fn(WeatherDay) -> Option<f64>| {
        order.iter().find_map(|s| Some((*s, of(*s).and_then(value)?)))
    };
    let et0 = first(&order.et0, |d| d.et0_mm);
    let rain = first(&order.rain, |d| d.rain_mm);
    let warmth = order.et0.iter().find_map(|s| Some([of(*s)?.tmin_c?, of(*s)?.tmax_c?]));
    BlendedDay {
        day: WeatherDay {
            date,
            et0_mm: et0.map(|(_, mm)| mm),
            rain_mm: rain.map(|(_, mm)| mm),
            tmin_c: warmth.map(|[low, _]| low),
            tmax_c: warmth.map(|[_, high]| high),
        },
        et0_from: et0.map(|(station, _)| station),
        rain_from: rain.map(|(station, _)| station),
    }
}

/// Normals with the rain of the stations in their order: each month from the first of them that has one.
#[must_use]
pub fn with_rain_of(normals: &Normals, rain: &[&Normals]) -> Normals {
    std::array::from_fn(|m| MonthNormal { rain_mm: rain.iter().find_map(|n| n[m].rain_mm), ..normals[m] })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(d: u32, et0: Option<f64>, rain: Option<f64>) -> WeatherDay {
        let date = NaiveDate::from_ymd_opt(2026, 6, d).unwrap();
        WeatherDay { date, et0_mm: et0, rain_mm: rain, tmin_c: et0, tmax_c: et0.map(|c| c + 10.0) }
    }

    /// A garden gauge near by, an airfield that has everything, an old archive.
    #[test]
    fn each_value_comes_from_the_first_station_that_has_it() {
        let airfield = [day(2, Some(5.0), Some(1.0)), day(3, None, Some(2.0)), day(5, Some(6.0), None)];
        let gauge = [day(3, None, Some(7.0)), day(4, None, Some(8.0))];
        let archive = [day(1, Some(3.0), Some(0.5)), day(3, Some(4.0), Some(9.0))];
        let order = Preference { et0: vec![0, 2], rain: vec![1, 0, 2] };
        let found = blend(&[&airfield, &gauge, &archive], &order);
        let line = |b: &BlendedDay| {
            (b.day.date.to_string()[8..].to_owned(), b.day.et0_mm, b.et0_from, b.day.rain_mm, b.rain_from)
        };
        let lines: Vec<_> = found.iter().map(line).collect();
        assert_eq!(
            lines,
            [
                ("01".into(), Some(3.0), Some(2), Some(0.5), Some(2)),
                ("02".into(), Some(5.0), Some(0), Some(1.0), Some(0)),
                ("03".into(), Some(4.0), Some(2), Some(7.0), Some(1)),
                ("04".into(), None, None, Some(8.0), Some(1)),
                ("05".into(), Some(6.0), Some(0), None, None),
            ]
        );
        assert_eq!(found[2].day.tmax_c, Some(14.0), "the low and the high of one station");
    }

    #[test]
    fn one_station_alone_is_as_it_was_and_none_is_nothing() {
        let days = [day(1, Some(4.0), None), day(9, None, Some(3.0))];
        let order = Preference { et0: vec![0], rain: vec![0] };
        assert_eq!(blend(&[&days], &order).iter().map(|b| b.day.rain_mm).collect::<Vec<_>>(), [None, Some(3.0)]);
        assert_eq!(blend(&[], &order), []);
        assert_eq!(blend(&[&[]], &order), []);
    }

    #[test]
    fn rain_of_another_station_comes_first_in_the_months_that_it_has() {
        let month = |rain_mm| MonthNormal { et0_mm_per_day: 3.0, rain_mm };
        let own = [month(Some(50.0)); 12];
        let mut near = [month(None); 12];
        near[5].rain_mm = Some(20.0);
        let found = with_rain_of(&own, &[&near, &own]);
        assert_eq!((found[5].rain_mm, found[6].rain_mm), (Some(20.0), Some(50.0)));
    }
}
