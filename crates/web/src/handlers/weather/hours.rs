use actix_web::web;
use chrono::NaiveDate;
use uuid::Uuid;

use crate::apart::apart;
use crate::error::{Page, PageError};
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::loading;
use crate::pages::series::{HoursTemplate, HoursView, days_for, newest_with_hours};
use crate::pages::shell::View;
use crate::state::App;

/// The hours of the day that the address asks for, or of the newest day with hours.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let record = loading::record(&user.account, *id).await?;
    let mut form = query;
    let newest = newest_with_hours(&record).ok_or(PageError::NotFound)?;
    let asked = form.get("day").parse::<NaiveDate>().ok();
    let date = asked.filter(|date| record.days.iter().any(|day| day.weather.date == *date)).unwrap_or(newest);
    form.set("day", date.to_string());
    let hours = user.account.record_hours(record.weather.revision.id, Some(days_for(date))).await?;
    let base = format!("/weather/{id}");
    let name = record.weather.series.value.name.clone();
    let units = user.units;
    let view = apart(move || HoursView::of(&record, &hours, date, units)).await?;
    let shell = shell(&app, &user, View::Weather, "weather", name.clone(), &format!("{base}/hours"));
    page(&HoursTemplate { shell, form, base, name, view })
}
