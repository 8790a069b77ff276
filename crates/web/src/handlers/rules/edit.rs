use actix_web::web;
use upland_store::PlaceRecord;
use uuid::Uuid;

use super::{form_page, under_the_same};
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::rules_form::{filled, together_field};
use crate::state::App;

/// The water rules of a place; with `like` its form holds those of another place, to be looked through and saved.
pub(crate) async fn edit(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let place = user.account.place(*id).await?;
    let like = Uuid::parse_str(query.get("like")).ok();
    let mut form = match like {
        Some(other) => {
            let rules = user.account.place(other).await?.value.rules;
            filled(&PlaceRecord { rules, ..place.value.clone() }, place.version)
        }
        None => filled(&place.value, place.version),
    };
    if let Some(other) = like {
        form.set("like", other.to_string());
    }
    // What is shared stays shared unless somebody says otherwise.
    let together = under_the_same(&user, &place).await?;
    for other in &together {
        form.set(&together_field(other.id), "yes");
    }
    page(&form_page(&app, &user, &place, form, &together).await?)
}
