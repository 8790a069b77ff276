use actix_web::web;
use upland_core::quantity::Range;

use super::{ADDRESS, company_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{go, invalid};
use crate::state::App;

/// Months that a log can be kept for: a month to a century.
const MONTHS: Range = Range { what: "log-months", unit: "", min: 1.0, max: 1200.0 };

/// States how long the log of changes is kept.
pub(crate) async fn keep(app: web::Data<App>, user: SignedIn, Posted(mut form): Posted) -> Page {
    let months = if form.get("keep_log").is_empty() { None } else { form.whole::<i32>("keep_log", MONTHS) };
    if !form.is_sound() {
        return invalid(&company_page(&app, &user, form, None).await?);
    }
    user.account.set_keep_log_months(months).await?;
    go(ADDRESS)
}
