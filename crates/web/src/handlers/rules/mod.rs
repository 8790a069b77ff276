pub(crate) mod edit;
pub(crate) mod update;

use upland_core::place::Rules;
use upland_store::{PlaceRecord, StoreError, Versioned};

use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::pages::Choice;
use crate::pages::days_form::day_fields;
use crate::pages::field_form::yes_no;
use crate::pages::rules_form::{
    PartFields, RulesFormTemplate, Together, closed_fields, kinds, month_choices, rules_line, together_field,
};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Places whose rules can be taken over.
const MOST_PLACES: i64 = 200;

/// Other places under the rules that the authority has made for a place.
async fn under_the_same(
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
) -> Result<Vec<Versioned<PlaceRecord>>, StoreError> {
    if place.value.rules.has_authority() {
        user.account.places_under_the_rules_of(place.id).await
    } else {
        Ok(Vec::new())
    }
}

async fn form_page(
    app: &App,
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
    form: Form,
    together: &[Versioned<PlaceRecord>],
) -> Result<RulesFormTemplate, PageError> {
    let path = format!("/places/{}/rules", place.id);
    let others = user.account.places_part("", 0, MOST_PLACES).await?.items;
    let others = others.into_iter().filter(|other| other.id != place.id && other.value.rules != Rules::default());
    // As many rows as the page had that was sent, or two more than there are.
    let together =
        together.iter().map(|o| Together { field: together_field(o.id), name: o.value.place.name.clone() }).collect();
    let there = form.get("closed_rows").parse().unwrap_or(2_usize).saturating_sub(2);
    Ok(RulesFormTemplate {
        closed: closed_fields(there),
        seasons: PartFields::seasons(&form),
        yes_no: yes_no(),
        shell: shell(app, user, View::Places, "form", Words.t("rules-title"), &path),
        form,
        place: place.value.place.name.clone(),
        place_href: format!("/places/{}", place.id),
        house_number: place.value.place.house_number.clone(),
        kinds: kinds(),
        days: day_fields(),
        usual: PartFields::usual(),
        months: month_choices(),
        together,
        here: rules_line(&place.value.rules, &place.value.place.house_number),
        others: others.map(|other| Choice::new(other.id.to_string(), other.value.place.name)).collect(),
        post_to: path,
    })
}
