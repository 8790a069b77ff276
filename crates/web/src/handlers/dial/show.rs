use actix_web::web;
use uuid::Uuid;

use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::dial::{DialPage, DialTemplate};
use crate::pages::field::FieldState;
use crate::pages::spine::Step;
use crate::state::App;

/// Dial in: the address carries what was done so far.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    page(&dial_page(&app, &user, &context, query).await?)
}

pub(super) async fn dial_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    query: Form,
) -> Result<DialTemplate, PageError> {
    let path = format!("/controllers/{}/dial-in", context.controller.id);
    let frame = frame(app, user, context, Step::DoorCard, ["dial", "dial-title"], &path).await?;
    let records = user.account.newest_records(&[context.controller.id]).await?;
    let state = FieldState::of(&records);
    let now = app.clock.local(context.at.zone);
    let at = app.clock.moment(context.at.zone);
    Ok(DialPage { frame, context, state: &state, query, now, at, user: &user.user.name, units: user.units }.template())
}
