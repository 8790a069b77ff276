use actix_web::web;
use upland_formats::weather::{write_days, write_hours};
use uuid::Uuid;

use crate::context::Weather;
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
    attachment(CSV, &format!("{}.csv", file_name(&record.weather)), write_days(&days))
}

/// The hours of a series that count, as CSV that can be imported again unchanged.
pub(crate) async fn export_hours(_app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let weather = loading::weather(&user.account, *id).await?;
    let hours = user.account.record_hours(weather.revision.id, None).await?;
    if hours.is_empty() {
        return Err(PageError::NotFound);
    }
    let hours: Vec<_> = hours.into_values().flat_map(|day| day.hours).collect();
    attachment(CSV, &format!("{}-hours.csv", file_name(&weather)), write_hours(&hours))
}

const CSV: &str = "text/csv; charset=utf-8";

/// The name of a series as that of a file.
fn file_name(weather: &Weather) -> String {
    let name = weather.series.value.name.chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' });
    name.collect::<String>().to_lowercase()
}
