use actix_web::web;
use upland_store::StoreError;
use uuid::Uuid;

use super::changed;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::state::App;

/// A person leaves the company; who left already stays so.
pub(crate) async fn leave(app: web::Data<App>, user: SignedIn, person: web::Path<Uuid>, _form: Posted) -> Page {
    let result = match user.account.part_with(*person, app.clock.now()).await {
        Err(StoreError::NotFound) => Ok(()),
        other => other,
    };
    changed(&app, &user, *person, result).await
}
