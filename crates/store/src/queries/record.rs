use std::iter::Peekable;

use chrono::NaiveDate;
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::review::Decision;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{HoursOnRecord, RecordDay, WeatherDay};
use crate::pool::Account;
use crate::rows::{DayRow, DecisionRow, HoursRow};
use crate::schema::{daily_et0, daily_weather, weather_decisions, weather_hours};

// Days are asked for by their import, which never changes: a page reads one of them throughout, whatever is imported
// meanwhile, and what was read can be kept. Days and their reference ET are two statements and not one with a join:
// right after an import the database takes it for a single day, and joins thousands of days to thousands row by row.
impl Account {
    /// Every day of an import with all its elements, as they count, and its reference ET, by date.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn record_days(&self, revision_id: Uuid) -> Result<Vec<RecordDay>, StoreError> {
        let mut connection = self.connection().await?;
        let rows: Vec<(DayRow, bool)> = daily_weather::table
            .filter(daily_weather::account_id.eq(self.id))
            .filter(daily_weather::revision_id.eq(revision_id))
            .order(daily_weather::day)
            .select((DayRow::as_select(), daily_weather::hours_of.is_not_null()))
            .load(&mut connection)
            .await?;
        let et0: Vec<Et0Row> = et0_of(self.id, &[revision_id]).load(&mut connection).await?;
        let mut et0 = InOrder::of(et0);
        let day = |(day, has_hours): (DayRow, bool)| {
            let weather = DailyWeather::from(day);
            RecordDay { weather, et0_mm: et0.on(revision_id, weather.date), has_hours }
        };
        Ok(rows.into_iter().map(day).collect())
    }

    /// Every day of an import, for replays.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn weather_days(&self, revision_id: Uuid) -> Result<Vec<WeatherDay>, StoreError> {
        let days = self.record_days(revision_id).await?.into_iter();
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

    /// The days of some imports in an interval, both ends included, by import and date.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn days_between(
        &self,
        revision_ids: &[Uuid],
        [from, to]: [NaiveDate; 2],
    ) -> Result<Vec<(Uuid, WeatherDay)>, StoreError> {
        type Row = (Uuid, NaiveDate, Option<f64>, Option<f64>, Option<f64>);
        let mut connection = self.connection().await?;
        let rows: Vec<Row> = daily_weather::table
            .filter(daily_weather::account_id.eq(self.id))
            .filter(daily_weather::revision_id.eq_any(revision_ids))
            .filter(daily_weather::day.between(from, to))
            .order((daily_weather::revision_id, daily_weather::day))
            .select((
                daily_weather::revision_id,
                daily_weather::day,
                daily_weather::rain_mm,
                daily_weather::tmin_c,
                daily_weather::tmax_c,
            ))
            .load(&mut connection)
            .await?;
        let et0 = et0_of(self.id, revision_ids).filter(daily_et0::day.between(from, to));
        let mut et0 = InOrder::of(et0.load(&mut connection).await?);
        let day = |(revision, date, rain_mm, tmin_c, tmax_c): Row| {
            (revision, WeatherDay { date, et0_mm: et0.on(revision, date), rain_mm, tmin_c, tmax_c })
        };
        Ok(rows.into_iter().map(day).collect())
    }

    /// The hours that count in an import, of the days in an interval, both ends included, or of all.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn record_hours(
        &self,
        revision_id: Uuid,
        interval: Option<[NaiveDate; 2]>,
    ) -> Result<HoursOnRecord, StoreError> {
        let mut query = weather_hours::table
            .inner_join(
                daily_weather::table.on(daily_weather::account_id
                    .eq(weather_hours::account_id)
                    .and(daily_weather::hours_of.eq(weather_hours::revision_id.nullable()))
                    .and(daily_weather::day.eq(weather_hours::day))),
            )
            .filter(weather_hours::account_id.eq(self.id))
            .filter(daily_weather::account_id.eq(self.id))
            .filter(daily_weather::revision_id.eq(revision_id))
            .select(HoursRow::as_select())
            .into_boxed();
        if let Some([from, to]) = interval {
            query = query.filter(weather_hours::day.between(from, to));
        }
        let rows: Vec<HoursRow> = query.load(&mut self.connection().await?).await?;
        Ok(rows.into_iter().map(HoursRow::day_hours).collect())
    }

    /// What was decided about single values of an import, by day and element.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn weather_decisions(&self, revision_id: Uuid) -> Result<Vec<Decision>, StoreError> {
        let rows: Vec<DecisionRow> = weather_decisions::table
            .filter(weather_decisions::account_id.eq(self.id))
            .filter(weather_decisions::revision_id.eq(revision_id))
            .order((weather_decisions::day, weather_decisions::element))
            .select(DecisionRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(Decision::try_from).collect()
    }
}

/// Import, day and reference ET.
type Et0Row = (Uuid, NaiveDate, f64);

/// The reference ET of some imports, by import and date.
#[diesel::dsl::auto_type(no_type_alias)]
fn et0_of<'a>(account: Uuid, revision_ids: &'a [Uuid]) -> _ {
    daily_et0::table
        .filter(daily_et0::account_id.eq(account))
        .filter(daily_et0::revision_id.eq_any(revision_ids))
        .order((daily_et0::revision_id, daily_et0::day))
        .select((daily_et0::revision_id, daily_et0::day, daily_et0::et0_mm))
}

/// Reference ET beside days that come in the same order.
struct InOrder(Peekable<std::vec::IntoIter<Et0Row>>);

impl InOrder {
    fn of(rows: Vec<Et0Row>) -> Self {
        Self(rows.into_iter().peekable())
    }

    /// The figure of a day, which comes after those that were asked for before.
    fn on(&mut self, revision: Uuid, day: NaiveDate) -> Option<f64> {
        while self.0.next_if(|(of, on, _)| (*of, *on) < (revision, day)).is_some() {}
        self.0.next_if(|(of, on, _)| (*of, *on) == (revision, day)).map(|(.., et0_mm)| et0_mm)
    }
}
