use actix_web::web;
use uuid::Uuid;

use super::sheet;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::stations::{StationsLiveTemplate, read};
use crate::state::App;
use crate::words::Words;

/// What a change that is not saved would give: the worked-out cells, errors and the open working.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let open = form.get("open").parse().ok();
    let controller = read(&mut form, context.controller(), user.units);
    page(&StationsLiveTemplate { w: Words, sheet: sheet(&context, &user, form, &controller, open) })
}
