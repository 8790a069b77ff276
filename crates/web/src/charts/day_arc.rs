//! The sun's height through a day.

use chrono::{DateTime, NaiveDate, NaiveDateTime, NaiveTime, Offset, TimeDelta, TimeZone, Utc};
use chrono_tz::Tz;
use upland_core::climate::sun::{SunDay, sun_day, sun_position};
use upland_core::place::Bound;

use super::path::PathData;
use crate::show::{Fixed, clock, clock_time, nearest_minute, number};
use crate::words::Words;

#[derive(Debug, Clone)]
pub(crate) struct HourMark {
    pub(crate) x: Fixed,
    pub(crate) label: String,
    pub(crate) anchor: &'static str,
}

/// A moment of the day with its words.
#[derive(Debug, Clone)]
pub(crate) struct Moment {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) text: String,
    pub(crate) text_x: Fixed,
    pub(crate) anchor: &'static str,
}

#[derive(Debug, Clone)]
pub(crate) struct DayArc {
    pub(crate) path: String,
    pub(crate) hours: Vec<HourMark>,
    pub(crate) sunrise: Option<Moment>,
    pub(crate) noon: Moment,
    pub(crate) sunset: Option<Moment>,
    pub(crate) now: Option<Moment>,
    pub(crate) now_flag: String,
    /// Stretches in which the rules close the watering: place and width.
    pub(crate) closed: Vec<(Fixed, Fixed)>,
    /// What stands over the widest of them, and where.
    pub(crate) closed_words: Option<(Fixed, String)>,
    pub(crate) describe: String,
    pub(crate) length: String,
}

/// A stretch under this width has no words.
const WORDS_WIDTH: f64 = 170.0;

const WIDTH: f64 = 560.0;
const BASE: f64 = 104.0;
const TOP: f64 = 28.0;

impl DayArc {
    /// The day at a position under the water rules of its place.
    pub(crate) fn draw([latitude, longitude]: [f64; 2], zone: Tz, rules: &Bound, now: NaiveDateTime) -> Self {
        let w = Words;
        let date = now.date();
        let sun = sun_of(latitude, longitude, zone, date);
        let local = |at: DateTime<Utc>| nearest_minute(at, zone);
        let told = |at: Option<DateTime<Utc>>| at.map_or_else(|| w.t("sun-none"), |t| clock(local(t)));
        let hour = |at: NaiveDateTime| (at - date.and_time(NaiveTime::MIN)).num_seconds() as f64 / 3600.0;
        // Two hours on either side of the sun's day, on even hours.
        let first = sun.sunrise.map_or(0.0, |t| ((hour(local(t)) - 0.8) / 2.0).floor() * 2.0).clamp(0.0, 24.0);
        let last = sun.sunset.map_or(24.0, |t| ((hour(local(t)) + 0.8) / 2.0).ceil() * 2.0).clamp(0.0, 24.0);
        let (first, last) = if last > first { (first, last) } else { (0.0, 24.0) };
        let x = |h: f64| (h - first) / (last - first) * WIDTH;
        let noon_height = sun_position(latitude, longitude, sun.noon).elevation_deg;
        let y = |degrees: f64| BASE - (degrees / noon_height.max(1.0)).clamp(0.0, 1.0) * (BASE - TOP);
        let at_hour = |h: f64| {
            let naive = date.and_time(NaiveTime::MIN) + TimeDelta::seconds((h * 3600.0) as i64);
            zone.from_local_datetime(&naive).earliest().map(|t| t.with_timezone(&Utc))
        };
        let samples = (0..=96).map(|i| first + (last - first) * f64::from(i) / 96.0);
        let arc = samples
            .filter_map(|h| at_hour(h).map(|t| (x(h), sun_position(latitude, longitude, t).elevation_deg)))
            .filter(|(_, degrees)| *degrees > -0.9)
            .map(|(px, degrees)| (px, y(degrees)));
        let hours = (0..).map(|i| first + f64::from(i) * 2.0).take_while(|h| *h <= last + 0.01);
        let now_x = x(hour(now));
        let moment = |at: DateTime<Utc>, key: &str| {
            let px = x(hour(local(at)));
            // Words stay inside the plate and off the line of now.
            let near_now = (px - now_x).abs() < 60.0;
            let (anchor, text_x) = match px {
                _ if near_now && px >= now_x => ("start", px + 5.0),
                _ if near_now => ("end", px - 5.0),
                _ if px < 60.0 => ("start", 0.0),
                _ if px > WIDTH - 60.0 => ("end", WIDTH),
                _ => ("middle", px),
            };
            Moment { x: Fixed(px), y: Fixed(BASE), text: w.t1(key, clock(local(at))), text_x: Fixed(text_x), anchor }
        };
        let noon_x = x(hour(local(sun.noon)));
        let whole = (!rules.allows_day(date)).then_some((0, 1440));
        let mut closed: Vec<(u16, u16)> = match whole {
            Some(whole) => vec![whole],
            None => rules.closed_minutes(date).collect(),
        };
        closed.sort_by_key(|(from, to)| std::cmp::Reverse(to.saturating_sub(*from)));
        let inside = |minute: u16| x(f64::from(minute) / 60.0).clamp(0.0, WIDTH);
        let closed_words = closed.first().and_then(|(from, to)| {
            let (left, right) = (inside(*from), inside(*to));
            let words = match whole {
                Some(_) => w.t("sun-closed-day"),
                None => w.t2("sun-closed", ("from", clock_time((*from).into())), ("to", clock_time((*to).into()))),
            };
            (right - left >= WORDS_WIDTH).then(|| (Fixed((left + right) / 2.0), words))
        });
        // The flag turns away from the words of noon, and from the edge.
        let right = now_x < 90.0 || (now_x + 86.0 < WIDTH && (now_x > noon_x || noon_x - now_x > 180.0));
        Self {
            path: PathData::line(arc).into_string(),
            hours: hours
                .map(|h| HourMark {
                    x: Fixed(x(h)),
                    label: format!("{:02}:00", h as u32),
                    anchor: if h <= first {
                        "start"
                    } else if h >= last {
                        "end"
                    } else {
                        "middle"
                    },
                })
                .collect(),
            sunrise: sun.sunrise.map(|t| moment(t, "sun-rise-at")),
            noon: Moment {
                x: Fixed(noon_x),
                y: Fixed(y(noon_height)),
                text: w.t2("sun-noon-at", ("time", clock(local(sun.noon))), ("height", number(noon_height, 0))),
                text_x: Fixed(noon_x),
                anchor: "middle",
            },
            sunset: sun.sunset.map(|t| moment(t, "sun-set-at")),
            now: (0.0..=WIDTH).contains(&now_x).then(|| Moment {
                x: Fixed(now_x),
                y: Fixed(BASE),
                text: w.t1("sun-now", clock(now)),
                text_x: Fixed(if right { now_x + 7.0 } else { now_x - 73.0 }),
                anchor: "start",
            }),
            now_flag: if right {
                format!("M{} 2h80l-5 8 5 8h-80z", Fixed(now_x))
            } else {
                format!("M{} 2h-80l5 8-5 8h80z", Fixed(now_x))
            },
            closed: closed
                .iter()
                .map(|(from, to)| (inside(*from), inside(*to)))
                .filter(|(left, right)| right > left)
                .map(|(left, right)| (Fixed(left), Fixed(right - left)))
                .collect(),
            closed_words,
            describe: w.t2("sun-describe", ("sunrise", told(sun.sunrise)), ("sunset", told(sun.sunset))),
            length: length(&sun, noon_height),
        }
    }
}

/// The sun's day at a place in a time zone.
pub(crate) fn sun_of(latitude: f64, longitude: f64, zone: Tz, date: NaiveDate) -> SunDay {
    let noon = date.and_time(NaiveTime::MIN) + TimeDelta::hours(12);
    let offset = zone.offset_from_utc_datetime(&noon).fix().local_minus_utc();
    sun_day(latitude, longitude, date, offset)
}

fn length(sun: &SunDay, noon_height: f64) -> String {
    let w = Words;
    match (sun.sunrise, sun.sunset) {
        (Some(rise), Some(set)) => {
            let minutes = (set - rise).num_minutes();
            w.t2("sun-length", ("hours", (minutes / 60).to_string()), ("minutes", (minutes % 60).to_string()))
        }
        _ if noon_height > 0.0 => w.t("sun-never-sets"),
        _ => w.t("sun-never-rises"),
    }
}
