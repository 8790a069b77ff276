use actix_web::web;
use upland_formats::site::{FieldDoc, PanelDoc};
use uuid::Uuid;

use super::show::{Typed, found_page};
use crate::error::Page;
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::{action, field_record};
use crate::handlers::{go, invalid};
use crate::loading;
use crate::pages::found::{found_href, read};
use crate::state::App;

/// Keeps a panel as it was found. It is never overwritten: sending it twice keeps one.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let panel = read(&mut form, &context.controller().capability, app.clock.local(context.at.zone));
    if !form.is_sound() {
        return invalid(&found_page(&app, &user, &context, &Form::default(), Typed::Panel(form)).await?);
    }
    let mut action = action(&app, &user, &form, ["why-found", ""], Vec::new());
    let record = field_record(&action, &form, context.controller.id, FieldDoc::Found(PanelDoc::from(&panel)));
    action.leads_to = format!("{}?of={}", found_href(context.controller.id), record.id);
    action.records.push(record);
    go(&user.account.apply(&action).await?)
}
