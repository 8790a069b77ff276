use actix_web::web;
use upland_core::controller::{Controller, Preset};
use upland_core::word::Word;
use uuid::Uuid;

use super::new_page;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::controller_form::filled;
use crate::state::App;

/// A form filled in from a preset.
pub(crate) async fn new(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>, Query(query): Query) -> Page {
    let place = user.account.place(*place).await?;
    let preset = Preset::of_word(query.get("preset")).unwrap_or(Preset::Monthly);
    let form = filled(&Controller::new(String::new(), preset.capability()), 0);
    page(&new_page(&app, &user, &place, preset, form).await?)
}
