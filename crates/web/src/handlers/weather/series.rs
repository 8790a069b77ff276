use actix_web::web;
use uuid::Uuid;

use super::record::series_page;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::state::App;

/// A series: its days in the period that the address asks for, its normals, and what is doubtful in it.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let record = loading::record(&user.account, *id).await?;
    page(&series_page(&app, &user, record, query).await?)
}
