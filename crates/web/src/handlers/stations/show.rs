use actix_web::web;
use uuid::Uuid;

use super::stations_page;
use crate::app::App;
use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::stations::filled;

/// The worksheet as it is saved; `?station=3` opens that station's working.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let open = Form::from_pairs(query.into_inner()).get("station").parse().ok();
    let form = filled(desk.controller(), desk.controller.version, user.units);
    page(&stations_page(&app, &user, &desk, form, desk.controller(), open).await?)
}
