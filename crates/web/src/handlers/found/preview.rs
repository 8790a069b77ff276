use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::found::{FoundLiveTemplate, PanelLive, read};
use crate::state::App;
use crate::words::Words;

/// What is wrong with a panel as far as it is written down. Nothing is saved.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let panel = read(&mut form, &context.controller().capability, app.clock.local(context.at.zone));
    page(&FoundLiveTemplate { w: Words, live: PanelLive::of(&context, &panel, &form, user.units) })
}
