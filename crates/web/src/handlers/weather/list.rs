use actix_web::web;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::shell::View;
use crate::pages::weather::{WeatherTemplate, series_rows};
use crate::state::App;
use crate::words::Words;

/// The company's series of weather.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn) -> Page {
    let series = user.account.all_series().await?;
    let places = user.account.places_by_series().await?;
    let used_by = |id| places.iter().filter(|(series, ..)| *series == id).map(|(.., name)| name.clone()).collect();
    let rows = series_rows(&series, None, used_by, user.units);
    let shell = shell(&app, &user, View::Weather, "weather", Words.t("weather-title"), "/weather");
    page(&WeatherTemplate { shell, rows })
}
