use actix_web::web;
use upland_core::controller::ProgramLetter;
use uuid::Uuid;

use super::show::year_page;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::loading;
use crate::pages::controller_error::cannot_be_set;
use crate::state::App;
use crate::words::Words;

/// Saves a program's name, its waterings a week and whether rain is counted.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let mut controller = context.controller().clone();
    let letter = form.get("program").chars().next().and_then(ProgramLetter::new);
    let program = controller.programs.iter_mut().find(|p| Some(p.letter) == letter).ok_or(PageError::NotFound)?;
    let name = form.get("program_name").to_owned();
    if name.chars().count() > 20 || name.chars().any(char::is_control) {
        form.fail("program_name", Words.t("program-name-long"));
    }
    program.name = name;
    program.waterings_per_week = form.get("program_waterings").parse().ok();
    program.count_rain = form.is("count_rain", "yes");
    if let Err(error) = controller.check() {
        form.fail("program_waterings", cannot_be_set(&error));
    }
    if !form.is_sound() {
        let query = form.clone();
        return invalid(&year_page(&app, &user, &context, &query, context.controller(), form).await?);
    }
    let post_to = format!("/controllers/{id}/year/program");
    let back = format!("/controllers/{id}/year?program={}", form.get("program"));
    save_controller(&app, &user, &context, form, controller, "why-program", [&post_to, &back]).await
}
