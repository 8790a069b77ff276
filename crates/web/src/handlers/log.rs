use actix_web::web;
use uuid::Uuid;

use crate::apart::apart;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::{attachment, page};
use crate::loading;
use crate::pages::log::{JudgedTable, LogTemplate, as_csv, days};
use crate::pages::spine::Step;
use crate::state::App;

/// Entries that the log shows of each kind.
const ENTRIES: i64 = 300;

/// The controller's log in one line of time.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let href = format!("/controllers/{id}");
    let path = format!("{href}/log");
    let frame = frame(&app, &user, &context, Step::Controller, ["log", "log-title"], &path).await?;
    let changes = user.account.log(*id, ENTRIES).await?;
    let records = user.account.field_records(*id, ENTRIES).await?;
    page(&LogTemplate {
        days: days(&changes, &records, &context, &href, user.units),
        judged: JudgedTable::of(&records, context.controller()),
        csv_href: format!("{path}.csv"),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
    })
}

/// Entries of each kind in the file.
const FILE_ENTRIES: i64 = 5000;

/// The history as CSV: a row for every value that changed and everything that was seen.
pub(crate) async fn export(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let changes = user.account.log(*id, FILE_ENTRIES).await?;
    let records = user.account.field_records(*id, FILE_ENTRIES).await?;
    let units = user.units;
    let text = apart(move || as_csv(&changes, &records, &context, units)).await?;
    attachment("text/csv; charset=utf-8", "history.csv", text)
}
