use actix_web::web;
use uuid::Uuid;

use super::{asked, decide};
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::year::{YearInput, YearLiveTemplate, YearView};
use crate::state::App;
use crate::words::Words;

/// What a month in hand would give. Nothing is saved.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let asked = asked(&app, &context, &form);
    let saved = context.budget().map_err(|_| PageError::NotFound)?;
    let mut controller = context.controller().clone();
    decide(&mut form, &mut controller, &asked, true);
    let year = YearView::of(YearInput {
        context: &context,
        controller: &controller,
        letter: asked.letter,
        month: asked.month,
        current: asked.current,
        today: asked.today,
        figure: asked.figure,
        saved: Some(saved),
        units: user.units,
        form: Form::default(),
    })
    .map_err(|_| PageError::NotFound)?;
    page(&YearLiveTemplate { w: Words, token: user.token, year })
}
