use actix_web::web;

use super::{ADDRESS, company_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{go, invalid};
use crate::pages::company::read_usual;
use crate::state::App;

/// States what a new station is taken for.
pub(crate) async fn set(app: web::Data<App>, user: SignedIn, Posted(mut form): Posted) -> Page {
    let Some(usual) = read_usual(&mut form, user.units) else {
        return invalid(&company_page(&app, &user, form, None).await?);
    };
    user.account.set_usual_station(&usual).await?;
    go(ADDRESS)
}
