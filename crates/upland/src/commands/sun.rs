use std::io::{Write, stdout};

use chrono::{DateTime, NaiveTime, Offset, SecondsFormat, TimeDelta, TimeZone, Utc};
use upland_core::climate::sun::{sun_day, sun_position};
use upland_core::quantity::range;

use super::{Outcome, complain};
use crate::args::Sun;

/// `event,time,elevation_deg,azimuth_deg`: sunrise, noon and sunset, those that there are.
pub(super) fn run(args: &Sun) -> anyhow::Result<Outcome> {
    for checked in [range::LATITUDE.check(args.latitude), range::LONGITUDE.check(args.longitude)] {
        if let Err(error) = checked {
            complain(format_args!("{error}"));
            return Ok(Outcome::Usage);
        }
    }
    // The zone's offset at the day's noon tells which turn of the sun is meant.
    let noon = args.date.and_time(NaiveTime::MIN) + TimeDelta::hours(12);
    let offset = args.timezone.offset_from_utc_datetime(&noon).fix().local_minus_utc();
    let day = sun_day(args.latitude, args.longitude, args.date, offset);
    let mut out = stdout().lock();
    writeln!(out, "event,time,elevation_deg,azimuth_deg")?;
    for (event, at) in [("sunrise", day.sunrise), ("noon", Some(day.noon)), ("sunset", day.sunset)] {
        let Some(at) = at else { continue };
        let position = sun_position(args.latitude, args.longitude, at);
        let local = rounded(at).with_timezone(&args.timezone).to_rfc3339_opts(SecondsFormat::Secs, false);
        writeln!(out, "{event},{local},{},{}", position.elevation_deg, position.azimuth_deg)?;
    }
    Ok(Outcome::Done)
}

/// To the nearest second, as it is printed.
fn rounded(at: DateTime<Utc>) -> DateTime<Utc> {
    at + TimeDelta::milliseconds(500)
}
