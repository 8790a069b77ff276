use actix_web::web;
use uuid::Uuid;

use super::stations_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::pages::stations::read;
use crate::state::App;

/// Saves the worksheet: all of it, or nothing while a cell has an error.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let controller = read(&mut form, context.controller(), user.units);
    if form.is_sound()
        && let Err(error) = controller.check()
    {
        // Cells were checked one by one; what is left hangs between them.
        form.fail("sheet", cannot_be_set(&error));
    }
    if !form.is_sound() {
        return invalid(&stations_page(&app, &user, &context, form, &controller, None).await?);
    }
    let address = format!("/controllers/{id}/stations");
    save_controller(&app, &user, &context, form, controller, "why-stations", [&address, &address]).await
}
