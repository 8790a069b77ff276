use actix_web::web;
use uuid::Uuid;

use crate::apart::apart;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::proposals::{ProposalsTemplate, ProposalsView, wish_of};
use crate::pages::spine::Step;
use crate::state::App;

/// Several schedules side by side. Nothing is saved.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let asked = wish_of(&query);
    let days = days_on_record(&user, &context).await?;
    let path = format!("/controllers/{id}/week/proposals");
    let frame = frame(&app, &user, &context, Step::Week, ["proposals", "proposals-head"], &path).await?;
    let (today, units) = (app.clock.today(context.at.zone), user.units);
    let view = apart(move || ProposalsView::of(&context, &days, asked, today, units)).await?;
    page(&ProposalsTemplate { shell: frame.shell, spine: frame.spine, strip: frame.strip, view })
}
