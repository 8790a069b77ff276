use actix_web::web;
use upland_formats::weather::write_days;
use uuid::Uuid;

use crate::error::{Page, PageError};
use crate::guard::signed_in::SignedIn;
use crate::handlers::attachment;
use crate::loading;
use crate::state::App;

/// The days of a series as they count, as CSV that can be imported again unchanged.
pub(crate) async fn export(_app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let record = loading::record(&user.account, *id).await?;
    if record.days.is_empty() {
        return Err(PageError::NotFound);
    }
    let days: Vec<_> = record.days.iter().map(|d| d.weather).collect();
    let name: String =
        record.weather.series.value.name.chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    attachment("text/csv; charset=utf-8", &format!("{}.csv", name.to_lowercase()), write_days(&days))
}
