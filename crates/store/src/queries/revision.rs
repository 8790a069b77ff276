//! An import and all that it brings, written once.

use diesel::sql_types::{Array, Date, Double, Nullable, Text, Uuid as SqlUuid};
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use upland_core::climate::daily::DailyWeather;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::NewRevision;
use crate::rows::{DecisionRow, HoursRow, NormalRow, RevisionRow};
use crate::schema::{monthly_normals, series_revisions, weather_decisions, weather_hours};

/// Days go in as one statement over arrays, a column each: a hundred years in one batch.
pub(super) async fn write_revision(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    series_id: Uuid,
    revision: &NewRevision,
) -> Result<(), StoreError> {
    diesel::insert_into(series_revisions::table)
        .values(RevisionRow::new(account, series_id, revision))
        .execute(connection)
        .await?;
    let days = &revision.days;
    let hours_of = |day: &DailyWeather| Some(revision.hours.get(&day.date)?.brought_by.unwrap_or(revision.id));
    type Values = Array<Nullable<Double>>;
    diesel::sql_query(
        "INSERT INTO daily_weather (account_id, revision_id, day, tmax_c, tmin_c, rhmax_pct, rhmin_pct, rhmean_pct, \
         dewpoint_c, wind_ms, solar_mj_m2, rain_mm, hours_of) \
         SELECT $1, $2, * FROM unnest($3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)",
    )
    .bind::<SqlUuid, _>(account)
    .bind::<SqlUuid, _>(revision.id)
    .bind::<Array<Date>, _>(days.iter().map(|d| d.date).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.t_max).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.t_min).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.rh_max).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.rh_min).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.rh_mean).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.dew_point).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.wind).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.solar).collect::<Vec<_>>())
    .bind::<Values, _>(days.iter().map(|d| d.rain).collect::<Vec<_>>())
    .bind::<Array<Nullable<SqlUuid>>, _>(days.iter().map(hours_of).collect::<Vec<_>>())
    .execute(connection)
    .await?;
    diesel::sql_query(
        "INSERT INTO daily_et0 (account_id, revision_id, day, et0_mm, method) \
         SELECT $1, $2, * FROM unnest($3, $4, $5)",
    )
    .bind::<SqlUuid, _>(account)
    .bind::<SqlUuid, _>(revision.id)
    .bind::<Array<Date>, _>(revision.et0.iter().map(|(d, ..)| *d).collect::<Vec<_>>())
    .bind::<Array<Double>, _>(revision.et0.iter().map(|(_, et0, _)| *et0).collect::<Vec<_>>())
    .bind::<Array<Text>, _>(revision.et0.iter().map(|(.., m)| m.as_str()).collect::<Vec<_>>())
    .execute(connection)
    .await?;
    let fresh: Vec<_> = revision.hours.iter().filter(|(_, of_day)| of_day.brought_by.is_none()).collect();
    // A year at a time: thirty would be written out three times over.
    for some in fresh.chunks(366) {
        let rows: Vec<HoursRow> =
            some.iter().map(|(day, of_day)| HoursRow::new(account, revision.id, **day, &of_day.hours)).collect();
        diesel::insert_into(weather_hours::table).values(rows).execute(connection).await?;
    }
    let decisions: Vec<_> = revision.decisions.iter().map(|d| DecisionRow::new(account, revision.id, d)).collect();
    // A statement has at most 65,535 values, a decision eight.
    for some in decisions.chunks(5000) {
        diesel::insert_into(weather_decisions::table).values(some).execute(connection).await?;
    }
    diesel::insert_into(monthly_normals::table).values(NormalRow::of(account, revision)).execute(connection).await?;
    Ok(())
}
