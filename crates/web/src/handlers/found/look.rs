use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::found::{FoundLiveTemplate, PanelLive, read};
use crate::words::Words;

/// What is wrong with a panel as far as it is written down. Nothing is saved.
pub(crate) async fn look(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let panel = read(&mut form, &desk.controller().capability, app.clock.local(desk.at.zone));
    page(&FoundLiveTemplate { w: Words, live: PanelLive::of(&desk, &panel, &form, user.units) })
}
