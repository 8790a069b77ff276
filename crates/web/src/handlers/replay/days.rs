use actix_web::web;
use uuid::Uuid;

use super::Loaded;
use crate::apart::apart;
use crate::error::{Page, PageError};
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::attachment;
use crate::pages::replay::{Asked, Field, daily_csv};
use crate::state::App;

/// The days of a station under what is tried and as present, as CSV.
pub(crate) async fn export(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let mut form = query;
    let made = apart(move || {
        let field = Field::of(&loaded.context, &loaded.days, loaded.found.as_ref())?;
        let asked = Asked::read(&mut form, (&field.controller, &field.plan), &loaded.days)?;
        let season = field.season(asked.span)?;
        let part = asked.part.index();
        let [tried, present] = field.pair(&season, &asked);
        let of =
            |run: &upland_core::replay::Replayed| run.station(asked.station)?.daily.as_ref().map(|d| d[part].clone());
        let text = daily_csv(season.counted(), &of(&tried)?, &of(&present)?);
        Some((format!("replay-station-{}-{}.csv", asked.station, asked.period), text))
    });
    let (name, text) = made.await?.ok_or(PageError::NotFound)?;
    attachment("text/csv; charset=utf-8", &name, text)
}
