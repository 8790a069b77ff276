use actix_web::web;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::places::{PlacesTemplate, place_rows};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// The company's places with their controllers.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn) -> Page {
    let places = user.account.places().await?;
    let controllers = user.account.controllers().await?;
    let series: Vec<_> = user.account.all_series().await?.into_iter().map(|(s, _)| (s.id, s.value)).collect();
    let places = place_rows(&places, &controllers, &series, user.units);
    let shell = shell(&app, &user, View::Places, "places", Words.t("places-title"), "/places");
    page(&PlacesTemplate { shell, places })
}
