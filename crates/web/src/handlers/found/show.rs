use actix_web::web;
use uuid::Uuid;

use super::RECORDS;
use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::found::{EarlierPanel, FoundPage, FoundTemplate, blank, filled, found_href, panel_of, read};
use crate::pages::spine::Step;

/// As found: a panel to write down, or with `of` one that was written down before.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let query = Form::from_pairs(query.into_inner());
    page(&found_page(&app, &user, &desk, &query, None).await?)
}

/// The page; `typed` is a form that could not be saved.
pub(super) async fn found_page(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    query: &Form,
    typed: Option<Form>,
) -> Result<FoundTemplate, PageError> {
    let href = found_href(desk.controller.id);
    let frame = frame(app, user, desk, Step::Controller, ["found", "found-title"], &href).await?;
    let records = user.account.field_records(desk.controller.id, RECORDS).await?;
    let of = Uuid::parse_str(query.get("of")).ok();
    let record = records.iter().find(|r| Some(r.id) == of);
    let earlier = match (of, record) {
        (None, _) => None,
        (Some(_), None) => return Err(PageError::NotFound),
        (Some(_), Some(record)) => Some((record, panel_of(record).ok_or(PageError::NotFound)?)),
    };
    let now = app.clock.local(desk.at.zone);
    let (form, panel, earlier) = match (typed, earlier) {
        (Some(form), _) => {
            let panel = read(&mut form.clone(), &desk.controller().capability, now);
            (form, panel, None)
        }
        (None, Some((record, panel))) => {
            let view = EarlierPanel::of(&panel, record, desk.controller());
            (filled(&panel, &desk.controller().capability), panel, Some(view))
        }
        (None, None) => {
            let (form, panel) = blank(desk.controller(), now);
            (form, panel, None)
        }
    };
    Ok(FoundPage { frame, desk, form, panel: &panel, earlier, records: &records, units: user.units }.template())
}
