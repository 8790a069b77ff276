use actix_web::web;
use uuid::Uuid;

use super::edit_page;
use crate::app::App;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::controller_form::filled;
use crate::pages::desk::Desk;

/// The form of a controller as it stands.
pub(crate) async fn edit(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let form = filled(desk.controller(), desk.controller.version);
    page(&edit_page(&app, &user, &desk, form).await?)
}
