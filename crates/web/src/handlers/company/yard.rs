use actix_web::web;
use upland_core::place::Position;

use super::{ADDRESS, company_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{go, invalid};
use crate::state::App;
use crate::typed_position::both;
use crate::words::Words;

/// States where rounds begin and end.
pub(crate) async fn set(app: web::Data<App>, user: SignedIn, Posted(mut form): Posted) -> Page {
    let typed = form.get("yard").trim().to_owned();
    let position = both(&typed).filter(|(latitude, longitude)| Position::new(*latitude, *longitude, 0.0).is_ok());
    if position.is_none() && !typed.is_empty() {
        form.fail("yard", Words.t("company-yard-error"));
        return invalid(&company_page(&app, &user, form, None).await?);
    }
    user.account.set_yard(position.map(|(latitude, longitude)| [latitude, longitude])).await?;
    go(ADDRESS)
}
