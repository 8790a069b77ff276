use chrono::NaiveDate;
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use upland_core::climate::review::Decision;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{HoursOnRecord, RecordDay, WeatherDay};
use crate::pool::Account;
use crate::rows::{DayRow, DecisionRow, HoursRow};
use crate::schema::{daily_et0, daily_weather, series, weather_decisions, weather_hours};

impl Account {
    /// Every day of a series with all its elements, as they count, and its reference ET, by date.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn record_days(&self, series_id: Uuid) -> Result<Vec<RecordDay>, StoreError> {
        let rows: Vec<(DayRow, Option<f64>, bool)> = days_that_count(self.id)
            .filter(series::id.eq(series_id))
            .order(daily_weather::day)
            .select((DayRow::as_select(), daily_et0::et0_mm.nullable(), daily_weather::hours_of.is_not_null()))
            .load(&mut self.connection().await?)
            .await?;
        let day = |(day, et0_mm, has_hours): (DayRow, _, _)| RecordDay { weather: day.into(), et0_mm, has_hours };
        Ok(rows.into_iter().map(day).collect())
    }

    /// Every day of a series, for replays.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn weather_days(&self, series_id: Uuid) -> Result<Vec<WeatherDay>, StoreError> {
        let days = self.record_days(series_id).await?.into_iter();
        Ok(days
            .map(|RecordDay { weather, et0_mm, .. }| WeatherDay {
                date: weather.date,
                et0_mm,
                rain_mm: weather.rain,
                tmin_c: weather.t_min,
                tmax_c: weather.t_max,
            })
            .collect())
    }

    /// The days of some series in an interval, both ends included, by series and date.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn days_between(
        &self,
        series_ids: &[Uuid],
        [from, to]: [NaiveDate; 2],
    ) -> Result<Vec<(Uuid, WeatherDay)>, StoreError> {
        type Row = (Uuid, NaiveDate, Option<f64>, Option<f64>, Option<f64>, Option<f64>);
        let rows: Vec<Row> = days_that_count(self.id)
            .filter(series::id.eq_any(series_ids))
            .filter(daily_weather::day.between(from, to))
            .order((series::id, daily_weather::day))
            .select((
                series::id,
                daily_weather::day,
                daily_et0::et0_mm.nullable(),
                daily_weather::rain_mm,
                daily_weather::tmin_c,
                daily_weather::tmax_c,
            ))
            .load(&mut self.connection().await?)
            .await?;
        let day = |(series, date, et0_mm, rain_mm, tmin_c, tmax_c): Row| {
            (series, WeatherDay { date, et0_mm, rain_mm, tmin_c, tmax_c })
        };
        Ok(rows.into_iter().map(day).collect())
    }

    /// The hours of a series that count, of the days in an interval, both ends included, or of all.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn record_hours(
        &self,
        series_id: Uuid,
        interval: Option<[NaiveDate; 2]>,
    ) -> Result<HoursOnRecord, StoreError> {
        let mut query = weather_hours::table
            .inner_join(
                daily_weather::table.on(daily_weather::account_id
                    .eq(weather_hours::account_id)
                    .and(daily_weather::hours_of.eq(weather_hours::revision_id.nullable()))
                    .and(daily_weather::day.eq(weather_hours::day))),
            )
            .inner_join(
                series::table.on(series::account_id
                    .eq(daily_weather::account_id)
                    .and(series::revision_id.eq(daily_weather::revision_id))),
            )
            .filter(weather_hours::account_id.eq(self.id))
            .filter(series::id.eq(series_id))
            .select(HoursRow::as_select())
            .into_boxed();
        if let Some([from, to]) = interval {
            query = query.filter(weather_hours::day.between(from, to));
        }
        let rows: Vec<HoursRow> = query.load(&mut self.connection().await?).await?;
        Ok(rows.into_iter().map(HoursRow::day_hours).collect())
    }

    /// What was decided about single values of a series, by day and element.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn weather_decisions(&self, series_id: Uuid) -> Result<Vec<Decision>, StoreError> {
        let rows: Vec<DecisionRow> = weather_decisions::table
            .inner_join(
                series::table.on(series::account_id
                    .eq(weather_decisions::account_id)
                    .and(series::revision_id.eq(weather_decisions::revision_id))),
            )
            .filter(weather_decisions::account_id.eq(self.id))
            .filter(series::id.eq(series_id))
            .order((weather_decisions::day, weather_decisions::element))
            .select(DecisionRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(Decision::try_from).collect()
    }
}

/// The days of the imports that count, with their reference ET.
#[diesel::dsl::auto_type(no_type_alias)]
fn days_that_count(account: Uuid) -> _ {
    daily_weather::table
        .inner_join(series::table.on(
            series::account_id.eq(daily_weather::account_id).and(series::revision_id.eq(daily_weather::revision_id)),
        ))
        .left_join(
            daily_et0::table.on(daily_et0::account_id
                .eq(daily_weather::account_id)
                .and(daily_et0::revision_id.eq(daily_weather::revision_id))
                .and(daily_et0::day.eq(daily_weather::day))),
        )
        .filter(daily_weather::account_id.eq(account))
}
