use actix_web::web;
use askama::Template;
use uuid::Uuid;

use super::Loaded;
use crate::error::{Page, PageError};
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::attachment;
use crate::pages::replay::SeasonSvg;
use crate::state::App;

/// The season of a station as it is drawn on the page, as SVG.
pub(crate) async fn export(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let (_, view) = loaded.view_apart(query, user.units).await?;
    let view = view.ok_or(PageError::NotFound)?;
    let drawing = SeasonSvg::of(&view).ok_or(PageError::NotFound)?;
    let text = drawing.render().map_err(|e| PageError::Ours(Box::new(e)))?;
    attachment("image/svg+xml", "replay-season.svg", text)
}
