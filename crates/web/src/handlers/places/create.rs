use actix_web::web;
use upland_store::{Record, Write};
use uuid::Uuid;

use super::form_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::action;
use crate::handlers::{go, invalid};
use crate::pages::place_form::read;
use crate::show::Units;
use crate::state::App;

/// Makes a place; the next step is its controller.
pub(crate) async fn create(app: web::Data<App>, user: SignedIn, Posted(mut form): Posted) -> Page {
    // The height was typed under the label of the page, whatever units are chosen on it.
    let Some(place) = read(&mut form, user.units, None) else {
        return invalid(&form_page(&app, &user, form, None).await?);
    };
    let id = Uuid::new_v4();
    let writes = vec![Write::new(id, Record::Place(Some(place)))];
    let to = format!("/places/{id}/controllers/new");
    let to = user.account.apply(&action(&app, &user, &form, ["why-place-new", &to], writes)).await?;
    user.account.set_units(user.user.id, Units::of_word(form.get("units")).word()).await?;
    go(&to)
}
