pub(crate) mod create;
pub(crate) mod edit;
pub(crate) mod new;
pub(crate) mod update;

use upland_core::controller::Preset;
use upland_store::{PlaceRecord, Versioned};

use crate::context::ControllerContext;
use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::pages::controller_form::{ControllerFormTemplate, base_months, log_lines, preset_links};
use crate::pages::shell::View;
use crate::pages::spine::{Spine, Step};
use crate::state::App;
use crate::words::Words;

/// Lines of the log that the page shows.
const LOG_LINES: i64 = 8;

/// The form's page for a new controller.
async fn new_page(
    app: &App,
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
    preset: Preset,
    form: Form,
) -> Result<ControllerFormTemplate, PageError> {
    let post_to = format!("/places/{}/controllers", place.id);
    let shell = shell(app, user, View::Places, "form", Words.t("controller-new"), &post_to);
    Ok(ControllerFormTemplate {
        shell,
        form,
        is_new: true,
        place: place.value.place.name.clone(),
        place_href: format!("/places/{}", place.id),
        presets: preset_links(place.id, preset),
        base_months: base_months(),
        windows: crate::pages::water_windows::rows(),
        links: Vec::new(),
        spine: None,
        log: Vec::new(),
        post_to,
    })
}

/// The form's page for a known controller.
async fn edit_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    form: Form,
) -> Result<ControllerFormTemplate, PageError> {
    let post_to = format!("/controllers/{}", context.controller.id);
    let shell = shell(app, user, View::Places, "form", Words.t("step-controller"), &post_to);
    Ok(ControllerFormTemplate {
        shell,
        form,
        is_new: false,
        place: context.at.place.value.place.name.clone(),
        place_href: format!("/places/{}", context.at.place.id),
        presets: Vec::new(),
        base_months: base_months(),
        windows: crate::pages::water_windows::rows(),
        links: vec![
            (format!("{post_to}/as-found"), Words.t("found-link")),
            (format!("{post_to}/log"), Words.t("log-link")),
        ],
        spine: Some(Spine::of(context, Step::Controller)),
        log: log_lines(&user.account.log(context.controller.id, LOG_LINES).await?, context.at.zone),
        post_to,
    })
}
