use actix_web::web;
use uuid::Uuid;

use super::Loaded;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::save_controller;
use crate::pages::controller_error::cannot_be_set;
use crate::pages::replay::{Asked, Field, ReplayLiveTemplate};
use crate::state::App;

/// Makes what is tried the plan: percents, days, a station's minutes and the rain sensor's setting, in one change.
pub(crate) async fn apply(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let field = Field::of(&loaded.context, &loaded.days, loaded.found.as_ref()).ok_or(PageError::NotFound)?;
    let asked = Asked::read(&mut form, (&field.controller, &field.plan), &loaded.days).ok_or(PageError::NotFound)?;
    let (mut controller, _) = field.tried_controller(&asked);
    // What is set for a while was left out of the replay, and stays on the controller.
    controller.temporaries.clone_from(&loaded.context.controller().temporaries);
    if let Err(error) = controller.check() {
        form.fail("set", cannot_be_set(&error));
        let view = loaded.view(form, user.units).ok_or(PageError::NotFound)?;
        return invalid(&ReplayLiveTemplate { token: user.token.clone(), view: Box::new(view) });
    }
    let (post_to, back) = (format!("{}/apply", loaded.href()), loaded.href());
    save_controller(&app, &user, &loaded.context, form, controller, "why-replay", [&post_to, &back]).await
}
