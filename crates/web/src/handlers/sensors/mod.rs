pub(crate) mod look;
pub(crate) mod remove;
pub(crate) mod save;
pub(crate) mod show;

use upland_store::WeatherDay;

use crate::error::PageError;
use crate::guard::signed_in::SignedIn;
use crate::pages::desk::Desk;

/// Every day on record of the weather that a place looks at; none for typed normals.
pub(super) async fn days_on_record(user: &SignedIn, desk: &Desk) -> Result<Vec<WeatherDay>, PageError> {
    match &desk.at.weather {
        Some(weather) if !weather.is_typed() => Ok(user.account.weather_days(weather.series.id).await?),
        _ => Ok(Vec::new()),
    }
}
