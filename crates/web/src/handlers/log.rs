use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::log::{LogTemplate, days};
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
        days: days(&changes, &records, &context, &href),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
    })
}
