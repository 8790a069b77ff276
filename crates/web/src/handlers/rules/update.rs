use actix_web::web;
use upland_core::place::Rules;
use upland_store::{PlaceRecord, Record, StoreError, Versioned, Write};
use uuid::Uuid;

use super::{form_page, under_the_same};
use crate::error::Page;
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::{action, apply_over, place_write};
use crate::handlers::{go, invalid};
use crate::pages::rules_form::{error_words, read, together_field};
use crate::state::App;
use crate::words::Words;

/// How often the places that are taken along are looked at again, when somebody changes one of them meanwhile.
const TRIES: usize = 3;

/// Changes the water rules of a place, and with it those of the places under the same rules whose boxes are ticked.
/// Days and dates that such a place closes itself stay its own.
pub(crate) async fn update(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let place = user.account.place(*id).await?;
    let Some(rules) = read(&mut form, &place.value.place.house_number) else {
        let others = under_the_same(&user, &place).await?;
        return invalid(&form_page(&app, &user, &place, form, &others).await?);
    };
    let address = format!("/places/{id}/rules");
    let mut tries = 0;
    loop {
        tries += 1;
        let others = under_the_same(&user, &place).await?;
        let Some(along) = take_along(&mut form, &rules, &others) else {
            return invalid(&form_page(&app, &user, &place, form, &others).await?);
        };
        let mine = PlaceRecord { rules: rules.clone(), ..place.value.clone() };
        let mut writes = vec![place_write(&place, &form, mine)];
        writes.extend(along);
        let action = action(&app, &user, &form, ["why-rules", &address], writes);
        match user.account.apply(&action).await {
            // What is changed of the others does not go by what they held: they are looked at again.
            Err(StoreError::Conflict { id, .. }) if id != place.id && tries < TRIES => {}
            // Told again, with its page.
            Err(_) => return apply_over(&app, &user, form, &action, [&address, &address]).await,
            Ok(to) => return go(&to),
        }
    }
}

/// The changes of the places whose boxes are ticked; nothing where one of them cannot have the rules, which is said
/// beside the field.
fn take_along(form: &mut Form, rules: &Rules, others: &[Versioned<PlaceRecord>]) -> Option<Vec<Write>> {
    let mut writes = Vec::new();
    for other in others {
        if !form.is(&together_field(other.id), "yes") {
            continue;
        }
        let rules = other.value.rules.under(rules);
        if let Err(error) = rules.check(&other.value.place.house_number) {
            let said = Words.t2(
                "rules-with-cannot",
                ("place", &other.value.place.name),
                ("error", Words.t(error_words(error).1)),
            );
            form.fail(&together_field(other.id), said);
            continue;
        }
        writes.push(Write {
            id: other.id,
            made_on: other.version,
            record: Record::Place(Some(PlaceRecord { rules, ..other.value.clone() })),
        });
    }
    form.is_sound().then_some(writes)
}
