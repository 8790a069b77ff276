use actix_web::web;
use uuid::Uuid;

use super::edit_page;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::controller_form::filled;
use crate::state::App;

/// The form of a saved controller.
pub(crate) async fn edit(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let form = filled(context.controller(), context.controller.version);
    page(&edit_page(&app, &user, &context, form).await?)
}
