use actix_web::web;
use uuid::Uuid;

use super::edit_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_form::read;
use crate::state::App;

/// Changes what a controller can be set to.
pub(crate) async fn update(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let Some(changed) = read(&mut form, context.controller()) else {
        return invalid(&edit_page(&app, &user, &context, form).await?);
    };
    let address = format!("/controllers/{id}");
    save_controller(&app, &user, &context, form, changed, "why-controller", [&address, &address]).await
}
