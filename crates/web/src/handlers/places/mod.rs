pub(crate) mod create;
pub(crate) mod edit;
pub(crate) mod list;
pub(crate) mod new;
pub(crate) mod update;

use upland_store::{HeadFilter, PlaceRecord, Versioned};

use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::pages::place_form::{PlaceFormTemplate, unit_choices, zones};
use crate::pages::places::ControllerLink;
use crate::pages::shell::View;
use crate::show::Measure;
use crate::state::App;
use crate::words::Words;

/// The form's page, for a new place or a known one.
async fn form_page(
    app: &App,
    user: &SignedIn,
    form: Form,
    place: Option<&Versioned<PlaceRecord>>,
) -> Result<PlaceFormTemplate, PageError> {
    let w = Words;
    let (title, path) = match place {
        Some(p) => (p.value.place.name.clone(), format!("/places/{}", p.id)),
        None => (w.t("place-new"), "/places".to_owned()),
    };
    let shell = shell(app, user, View::Places, "form", title, &path);
    let controllers = match place {
        Some(place) => user.account.heads(&HeadFilter::of_place(place.id)).await?.items,
        None => Vec::new(),
    };
    Ok(PlaceFormTemplate {
        shell,
        form,
        is_new: place.is_none(),
        height_unit: Measure::Height.unit(user.units),
        zones: zones(),
        units: unit_choices(),
        controllers: controllers.iter().map(ControllerLink::of).collect(),
        weather_href: format!("{path}/weather"),
        new_controller: format!("{path}/controllers/new"),
        post_to: path,
        spine: None,
    })
}
