pub(crate) mod preview;
pub(crate) mod remove;
pub(crate) mod save;
pub(crate) mod show;

use upland_store::WeatherDay;

use crate::context::ControllerContext;
use crate::error::PageError;
use crate::guard::signed_in::SignedIn;
use crate::loading;

/// Every day on record of the weather that a place looks at, gaps filled; none for typed normals alone.
pub(super) async fn days_on_record(user: &SignedIn, context: &ControllerContext) -> Result<Vec<WeatherDay>, PageError> {
    match &context.at.weather {
        Some(weather) if weather.has_days() => {
            let days = loading::days(&user.account, weather).await?;
            Ok(days.into_iter().map(|blended| blended.day).collect())
        }
        _ => Ok(Vec::new()),
    }
}
