pub(crate) mod preview;
pub(crate) mod save;
pub(crate) mod show;

use crate::app::App;
use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::strips::strips;
use crate::pages::desk::Desk;
use crate::pages::shell::{Shell, View};
use crate::pages::spine::{Spine, Step};
use crate::pages::stations::{Sheet, SheetInput, StationsTemplate};
use crate::pages::working::Provenances;
use crate::words::Words;
use upland_core::controller::Controller;

/// The worksheet of a controller as a form stands.
fn sheet(desk: &Desk, user: &SignedIn, form: Form, controller: &Controller, open: Option<u8>) -> Sheet {
    let budget = crate::pages::desk::budget_of(controller, desk.normals(), &desk.at.rules);
    Sheet::of(SheetInput {
        form,
        controller,
        budget: &budget,
        provenance: Provenances::of(&desk.at),
        units: user.units,
        open,
    })
}

async fn stations_page(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    form: Form,
    controller: &Controller,
    open: Option<u8>,
) -> Result<StationsTemplate, PageError> {
    let post_to = format!("/controllers/{}/stations", desk.controller.id);
    let mut shell = Shell::of(app, user, View::Places, "stations", Words.t("step-stations"), &post_to).await?;
    let (strip, ephemeris) = strips(app, user, desk, None).await?;
    shell.ephemeris = Some(ephemeris);
    Ok(StationsTemplate {
        shell,
        spine: Spine::of(desk, Step::Stations),
        strip,
        sheet: sheet(desk, user, form, controller, open),
        preview_to: format!("{post_to}/preview"),
        post_to,
    })
}
