use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::dial::{DialPage, DialTemplate};
use crate::pages::field::FieldState;
use crate::pages::spine::Step;

/// Dial in: the address carries what was done so far.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    page(&dial_page(&app, &user, &desk, Form::from_pairs(query.into_inner())).await?)
}

pub(super) async fn dial_page(app: &App, user: &SignedIn, desk: &Desk, query: Form) -> Result<DialTemplate, PageError> {
    let path = format!("/controllers/{}/dial-in", desk.controller.id);
    let frame = frame(app, user, desk, Step::DoorCard, ["dial", "dial-title"], &path).await?;
    let records = user.account.newest_records(Some(desk.controller.id)).await?;
    let state = FieldState::of(&records);
    let now = app.clock.local(desk.at.zone);
    let at = app.clock.moment(desk.at.zone);
    Ok(DialPage { frame, desk, state: &state, query, now, at, user: &user.user.name }.template())
}
