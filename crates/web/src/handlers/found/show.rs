use actix_web::web;
use uuid::Uuid;

use super::RECORDS;
use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::found::{Against, EarlierPanel, FoundPage, FoundTemplate, blank, filled, found_href, panel_of, read};
use crate::pages::spine::Step;
use crate::state::App;

/// As found: a panel to write down, or with `of` one that was written down before.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    page(&found_page(&app, &user, &context, &query, Typed::Nothing).await?)
}

/// A form that could not be saved.
pub(super) enum Typed {
    Nothing,
    /// A panel.
    Panel(Form),
    /// The values to take over.
    Boxes(Form),
}

/// The page.
pub(super) async fn found_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    query: &Form,
    typed: Typed,
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
    let state = FieldState::of(&records);
    let boxes = if let Typed::Boxes(form) = &typed { form.clone() } else { Form::default() };
    let against = earlier.as_ref().and_then(|(record, _)| {
        let panel = state.still_found_as(&record.id.to_string())?;
        Some(Against::of(context, (record.id, panel), &boxes))
    });
    let (form, panel, earlier) = match (typed, earlier) {
        (Typed::Panel(form), _) => {
            let panel = read(&mut form.clone(), &context.controller().capability, now);
            (form, panel, None)
        }
        (_, Some((record, panel))) => {
            let view = EarlierPanel::of(&panel, record, context.controller());
            (filled(&panel, &context.controller().capability), panel, Some(view))
        }
        (_, None) => {
            let (form, panel) = blank(context.controller(), now);
            (form, panel, None)
        }
    };
    let units = user.units;
    Ok(FoundPage { frame, context, form, panel: &panel, earlier, against, records: &records, units }.template())
}
