use actix_web::web;
use uuid::Uuid;

use super::stations_page;
use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::stations::filled;
use crate::state::App;

/// The worksheet as it is saved; `?station=3` opens that station's working.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let open = Form::from_pairs(query.into_inner()).get("station").parse().ok();
    let form = filled(context.controller(), context.controller.version, user.units);
    page(&stations_page(&app, &user, &context, form, context.controller(), open).await?)
}
