use actix_web::web;

use crate::error::Page;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::reference::{INKS, PartsTemplate, ReferenceTemplate, defaults, methods};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Methods and defaults with their sources.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn) -> Page {
    let shell = shell(&app, &user, View::Reference, "reference", Words.t("nav-reference"), "/reference");
    page(&ReferenceTemplate { shell, methods: methods(), defaults: defaults(user.units) })
}

/// A sheet for builders: the same marks, everywhere.
pub(crate) async fn parts(app: web::Data<App>, user: SignedIn) -> Page {
    let shell = shell(&app, &user, View::Reference, "parts", Words.t("parts-title"), "/reference/parts");
    let mut form = Form::default();
    form.set("rate", "152");
    form.fail("rate", Words.t("parts-error"));
    page(&PartsTemplate { shell, form, inks: INKS })
}
