use actix_web::web;
use upland_formats::weather::MAX_BYTES;
use upland_store::HeadFilter;
use uuid::Uuid;

use crate::error::{Page, PageError};
use crate::form::new_key;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::{invalid, page};
use crate::loading;
use crate::pages::places::ControllerLink;
use crate::pages::shell::View;
use crate::pages::spine::{Spine, Step};
use crate::pages::waiting::waiting_files;
use crate::pages::weather::{PlaceWeatherTemplate, series_rows, share_lines};
use crate::state::App;
use crate::words::Words;

/// The weather that a place looks at, and the two ways to get one.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>) -> Page {
    page(&place_weather(&app, &user, *place, String::new()).await?)
}

/// The same page with an error beside the file.
pub(super) async fn show_with_error(app: &App, user: &SignedIn, place: Uuid, error: String) -> Page {
    invalid(&place_weather(app, user, place, error).await?)
}

async fn place_weather(
    app: &App,
    user: &SignedIn,
    id: Uuid,
    file_error: String,
) -> Result<PlaceWeatherTemplate, PageError> {
    let w = Words;
    let place = user.account.place(id).await?;
    let series = user.account.all_series().await?;
    let controllers = user.account.heads(&HeadFilter::of_place(id)).await?.items;
    let (at, spine) = match controllers.first() {
        Some(first) => {
            let context = loading::controller(&user.account, app.clock, first.id).await?;
            let spine = Spine::of(&context, Step::Weather);
            (context.at, Some(spine))
        }
        None => (loading::with_weather(&user.account, place.clone()).await?, None),
    };
    let shares = match &at.weather {
        Some(weather) if !weather.beside.is_empty() => {
            share_lines(weather, &loading::days(&user.account, weather).await?)
        }
        _ => Vec::new(),
    };
    let post_to = format!("/places/{id}/weather");
    let waiting = user.account.waiting_uploads(Some(id)).await?;
    let today = app.clock.today(at.zone);
    let shell = shell(app, user, View::Places, "weather", w.t("step-weather"), &post_to);
    Ok(PlaceWeatherTemplate {
        shell,
        rows: series_rows(&series, Some((&place.value, today)), |_| Vec::new(), user.units),
        shares,
        place: place.value.place.name.clone(),
        place_id: id.to_string(),
        version: place.version,
        action: new_key(),
        waiting: waiting_files(&waiting, &format!("{post_to}/files"), app.clock.now()),
        normals_href: format!("{post_to}/normals"),
        post_to,
        file_error,
        controllers: controllers.iter().map(ControllerLink::of).collect(),
        spine,
        most_bytes: MAX_BYTES,
    })
}
