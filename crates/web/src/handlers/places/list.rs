use actix_web::web;
use upland_store::HeadFilter;

use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::finder::{Finder, Search};
use crate::pages::places::{PlacesTemplate, place_rows};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Places on a page.
const SIZE: usize = 50;

/// The company's places with their controllers.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn, Query(query): Query) -> Page {
    let asked = Search::of(&query, "page");
    let part = user.account.places_part(&asked.text, asked.skip(SIZE), SIZE as i64).await?;
    let places = Some(part.items.iter().map(|p| p.id).collect());
    let controllers = user.account.heads(&HeadFilter { places, ..HeadFilter::default() }).await?.items;
    let series: Vec<_> = user.account.all_series().await?.into_iter().map(|(s, _)| (s.id, s.value)).collect();
    page(&PlacesTemplate {
        shell: shell(&app, &user, View::Places, "places", Words.t("places-title"), "/places"),
        places: place_rows(&part.items, &controllers, &series, user.units),
        total: part.total,
        finder: Finder::of("/places", &asked, [part.total, SIZE], "page", &[]),
    })
}
