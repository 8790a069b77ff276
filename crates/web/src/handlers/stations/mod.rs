pub(crate) mod compare;
pub(crate) mod preview;
pub(crate) mod save;
pub(crate) mod show;

use std::borrow::Cow;

use crate::context::ControllerContext;
use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::pages::spine::Step;
use crate::pages::stations::{Sheet, SheetInput, StationsTemplate};
use crate::pages::working::Provenances;
use crate::state::App;
use upland_core::controller::Controller;

/// The worksheet of a controller as a form stands.
fn sheet(context: &ControllerContext, user: &SignedIn, form: Form, controller: &Controller, open: Option<u8>) -> Sheet {
    let budget = context.budget_of(controller).map(Cow::into_owned);
    Sheet::of(SheetInput {
        form,
        controller,
        budget: &budget,
        provenance: Provenances::of(&context.at),
        units: user.units,
        open,
    })
}

async fn stations_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    form: Form,
    controller: &Controller,
    open: Option<u8>,
) -> Result<StationsTemplate, PageError> {
    let post_to = format!("/controllers/{}/stations", context.controller.id);
    let frame = frame(app, user, context, Step::Stations, ["stations", "step-stations"], &post_to).await?;
    Ok(StationsTemplate {
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        sheet: sheet(context, user, form, controller, open),
        preview_to: format!("{post_to}/preview"),
        post_to,
    })
}
