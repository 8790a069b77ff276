use actix_web::web;
use uuid::Uuid;

use super::RECORDS;
use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::found::{EarlierPanel, FoundPage, FoundTemplate, blank, filled, found_href, panel_of, read};
use crate::pages::spine::Step;
use crate::state::App;

/// As found: a panel to write down, or with `of` one that was written down before.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let query = Form::from_pairs(query.into_inner());
    page(&found_page(&app, &user, &context, &query, None).await?)
}

/// The page; `typed` is a form that could not be saved.
pub(super) async fn found_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    query: &Form,
    typed: Option<Form>,
) -> Result<FoundTemplate, PageError> {
    let href = found_href(context.controller.id);
    let frame = frame(app, user, context, Step::Controller, ["found", "found-title"], &href).await?;
    let records = user.account.field_records(context.controller.id, RECORDS).await?;
    let of = Uuid::parse_str(query.get("of")).ok();
    let record = records.iter().find(|r| Some(r.id) == of);
    let earlier = match (of, record) {
        (None, _) => None,
        (Some(_), None) => return Err(PageError::NotFound),
        (Some(_), Some(record)) => Some((record, panel_of(record).ok_or(PageError::NotFound)?)),
    };
    let now = app.clock.local(context.at.zone);
    let (form, panel, earlier) = match (typed, earlier) {
        (Some(form), _) => {
            let panel = read(&mut form.clone(), &context.controller().capability, now);
            (form, panel, None)
        }
        (None, Some((record, panel))) => {
            let view = EarlierPanel::of(&panel, record, context.controller());
            (filled(&panel, &context.controller().capability), panel, Some(view))
        }
        (None, None) => {
            let (form, panel) = blank(context.controller(), now);
            (form, panel, None)
        }
    };
    Ok(FoundPage { frame, context, form, panel: &panel, earlier, records: &records, units: user.units }.template())
}
