pub(crate) mod preview;
pub(crate) mod remove;
pub(crate) mod save;
pub(crate) mod show;

use upland_store::WeatherDay;

use crate::context::ControllerContext;
use crate::error::PageError;
use crate::guard::signed_in::SignedIn;

/// Every day on record of the weather that a place looks at; none for typed normals.
pub(super) async fn days_on_record(user: &SignedIn, context: &ControllerContext) -> Result<Vec<WeatherDay>, PageError> {
    match &context.at.weather {
        Some(weather) if !weather.is_typed() => Ok(user.account.weather_days(weather.series.id).await?),
        _ => Ok(Vec::new()),
    }
}
