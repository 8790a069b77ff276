//! The year strip and the almanac line of a controller's pages.

use chrono::{Datelike, NaiveDate};
use upland_core::controller::ProgramLetter;

use crate::charts::{Strip, StripInput, sun_of};
use crate::context::{ControllerContext, PlaceContext, WeatherDay};
use crate::error::PageError;
use crate::guard::signed_in::SignedIn;
use crate::loading;
use crate::pages::shell::Ephemeris;
use crate::show::{Measure, Units, clock, month_long, month_of, nearest_minute};
use crate::state::App;
use crate::words::Words;

/// The days of this year, or of the last whole year on record when this one is not measured.
pub(crate) async fn strip_days(
    user: &SignedIn,
    at: &PlaceContext,
    today: NaiveDate,
) -> Result<Vec<WeatherDay>, PageError> {
    let Some(weather) = at.weather.as_ref() else { return Ok(Vec::new()) };
    let Some(last) = weather.last_day() else { return Ok(Vec::new()) };
    let year = if last.year() >= today.year() {
        today.year()
    } else if last.ordinal() >= 365 {
        last.year()
    } else {
        last.year() - 1
    };
    let day = |m, d| NaiveDate::from_ymd_opt(year, m, d).unwrap_or(last);
    let to = if year == today.year() { today } else { day(12, 31) };
    Ok(loading::days_between(&user.account, weather, [day(1, 1), to]).await?)
}

/// The strips of a desk and of a phone, and the almanac line.
pub(crate) async fn strips(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    letter: Option<ProgramLetter>,
) -> Result<(Option<[Strip; 2]>, Ephemeris), PageError> {
    let today = app.clock.today(context.at.zone);
    let ephemeris = ephemeris(&context.at, today, user.units);
    let Ok(normals) = context.normals() else { return Ok((None, ephemeris)) };
    let days = strip_days(user, &context.at, today).await?;
    let budget = context.budget().ok();
    let group = budget.and_then(|b| letter.map_or(b.groups.first(), |l| b.group(l)));
    let input = StripInput { normals, group, days: &days, today, units: user.units };
    Ok((Some([Strip::wide(&input), Strip::phone(&input)]), ephemeris))
}

/// Sunrise, sunset and the month's normals at a place.
pub(crate) fn ephemeris(at: &PlaceContext, today: NaiveDate, units: Units) -> Ephemeris {
    let w = Words;
    let position = &at.place.value.place.position;
    let sun = sun_of(position.latitude_deg(), position.longitude_deg(), at.zone, today);
    let time = |t: Option<chrono::DateTime<chrono::Utc>>| {
        t.map_or_else(|| w.t("sun-none"), |t| clock(nearest_minute(t, at.zone)))
    };
    let month = month_of(today);
    let normal = at.weather.as_ref().and_then(|w| w.normals()).map(|n| n[month.index()]);
    Ephemeris {
        sunrise: time(sun.sunrise),
        sunset: time(sun.sunset),
        period: w.t1("ephem-normal", month_long(month)),
        et0: normal.map_or_else(String::new, |n| w.t1("a-day", Measure::DepthADay.show(n.et0_mm_per_day, units))),
    }
}
