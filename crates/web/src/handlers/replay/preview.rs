use actix_web::web;
use uuid::Uuid;

use super::Loaded;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::replay::ReplayLiveTemplate;
use crate::state::App;

/// What a setting that is tried would have done: the pieces of the page that change with it.
pub(crate) async fn preview(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(form): Posted) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let (_, view) = loaded.view_apart(form, user.units).await?;
    let view = view.ok_or(PageError::NotFound)?;
    page(&ReplayLiveTemplate { token: user.token.clone(), view: Box::new(view) })
}
