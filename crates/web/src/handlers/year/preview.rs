use actix_web::web;
use uuid::Uuid;

use super::{asked, decide};
use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::year::{YearInput, YearLiveTemplate, YearView};
use crate::words::Words;

/// What a month in hand would give. Nothing is saved.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let asked = asked(&app, &desk, &form);
    let saved = desk.budget().map_err(|_| PageError::NotFound)?;
    let mut controller = desk.controller().clone();
    decide(&mut form, &mut controller, &asked, true);
    let year = YearView::of(YearInput {
        desk: &desk,
        controller: &controller,
        letter: asked.letter,
        month: asked.month,
        current: asked.current,
        figure: asked.figure,
        saved: Some(&saved),
        units: user.units,
        form: Form::default(),
    })
    .map_err(|_| PageError::NotFound)?;
    page(&YearLiveTemplate { w: Words, token: user.token, year })
}
