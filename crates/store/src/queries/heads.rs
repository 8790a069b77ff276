//! Lists across places: searched, sorted and cut by the database, without a document.

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Text, Uuid as SqlUuid};
use diesel_async::RunQueryDsl;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ControllerHead, HeadFilter, Part, PlaceRecord, Versioned};
use crate::pool::Account;
use crate::rows::PlaceRow;
use crate::schema::{aggregates, controller_heads, places};

impl From<HeadRow> for ControllerHead {
    fn from(row: HeadRow) -> Self {
        let HeadRow { id, name, version, stations, place_id, place, place_version, time_zone, .. } = row;
        let HeadRow {
            latitude, longitude, revision_id, recorded_at, last_visit, look_again, further_revisions, ..
        } = row;
        Self {
            id,
            name,
            version,
            stations,
            place_id,
            place,
            place_version,
            position_deg: [latitude, longitude],
            time_zone,
            revision_id,
            further_revisions: further_revisions.unwrap_or_default(),
            recorded_at,
            last_visit,
            look_again,
        }
    }
}

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = controller_heads)]
struct HeadRow {
    id: Uuid,
    name: String,
    version: i32,
    stations: i32,
    place_id: Uuid,
    place: String,
    place_version: i32,
    latitude: f64,
    longitude: f64,
    time_zone: String,
    revision_id: Option<Uuid>,
    recorded_at: Option<DateTime<Utc>>,
    last_visit: Option<NaiveDate>,
    look_again: Option<NaiveDate>,
    further_revisions: Option<Vec<Uuid>>,
}

/// A pattern that finds a text anywhere; empty where there is none.
fn pattern(text: &str) -> String {
    if text.is_empty() {
        return String::new();
    }
    let plain = text.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
    format!("%{plain}%")
}

impl Account {
    /// The company's controllers without their documents.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn heads(&self, filter: &HeadFilter) -> Result<Part<ControllerHead>, StoreError> {
        use controller_heads as heads;
        let mut found = heads::table.filter(heads::account_id.eq(self.id)).into_boxed();
        if !filter.text.is_empty() {
            let pattern = pattern(&filter.text);
            found = found.filter(heads::name.ilike(pattern.clone()).or(heads::place.ilike(pattern)));
        }
        if let Some(places) = &filter.places {
            found = found.filter(heads::place_id.eq_any(places));
        }
        if filter.by_look_again {
            found = found.order(heads::look_again.asc().nulls_last());
        }
        found = found.then_order_by((heads::place, heads::name, heads::id)).offset(filter.skip);
        let mut connection = self.connection().await?;
        let Some(most) = filter.most else {
            let rows: Vec<HeadRow> = found.select(HeadRow::as_select()).load(&mut connection).await?;
            return Ok(Part { total: rows.len(), items: rows.into_iter().map(ControllerHead::from).collect() });
        };
        let rows: Vec<(HeadRow, i64)> = found
            .limit(most)
            .select((HeadRow::as_select(), diesel::dsl::count_star().over()))
            .load(&mut connection)
            .await?;
        let total = rows.as_slice().first().map_or(0, |(_, total)| usize::try_from(*total).unwrap_or(0));
        Ok(Part { items: rows.into_iter().map(|(row, _)| row.into()).collect(), total })
    }

    /// Places whose name, or the name of a controller there, holds a text, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn places_part(
        &self,
        text: &str,
        skip: i64,
        most: i64,
    ) -> Result<Part<Versioned<PlaceRecord>>, StoreError> {
        let found: Vec<Found> = diesel::sql_query(
            "SELECT p.id, count(*) OVER () AS total FROM places AS p \
             WHERE p.account_id = $1 AND ($2 = '' OR p.name ILIKE $2 OR EXISTS ( \
                 SELECT FROM controllers AS c \
                 WHERE c.account_id = p.account_id AND c.place_id = p.id AND c.name ILIKE $2)) \
             ORDER BY p.name, p.id OFFSET $3 LIMIT $4",
        )
        .bind::<SqlUuid, _>(self.id)
        .bind::<Text, _>(pattern(text))
        .bind::<BigInt, _>(skip)
        .bind::<BigInt, _>(most)
        .load(&mut self.connection().await?)
        .await?;
        let ids: Vec<Uuid> = found.iter().map(|f| f.id).collect();
        let items = self.places_of(&ids).await?;
        Ok(Part { items, total: found.as_slice().first().map_or(0, |f| usize::try_from(f.total).unwrap_or(0)) })
    }

    /// Other places whose rules of the authority are those of a place, by name: whatever each of them closes itself.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn places_under_the_rules_of(&self, id: Uuid) -> Result<Vec<Versioned<PlaceRecord>>, StoreError> {
        let found: Vec<Found> = diesel::sql_query(
            "SELECT o.id, 0::bigint AS total FROM places AS p \
             JOIN places AS o ON o.account_id = p.account_id AND o.id <> p.id \
                 AND (o.document -> 'rules') - 'never' - 'closed' = (p.document -> 'rules') - 'never' - 'closed' \
             WHERE p.account_id = $1 AND p.id = $2",
        )
        .bind::<SqlUuid, _>(self.id)
        .bind::<SqlUuid, _>(id)
        .load(&mut self.connection().await?)
        .await?;
        self.places_of(&found.iter().map(|f| f.id).collect::<Vec<_>>()).await
    }

    /// Some places, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn places_of(&self, ids: &[Uuid]) -> Result<Vec<Versioned<PlaceRecord>>, StoreError> {
        let rows: Vec<(PlaceRow, i32)> = places::table
            .inner_join(
                aggregates::table.on(aggregates::account_id.eq(places::account_id).and(aggregates::id.eq(places::id))),
            )
            .filter(places::account_id.eq(self.id))
            .filter(places::id.eq_any(ids))
            .order((places::name, places::id))
            .select((PlaceRow::as_select(), aggregates::version))
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(super::places::versioned).collect()
    }

    /// Who looks at which series, first or beside another: the series, the place and its name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn places_by_series(&self) -> Result<Vec<(Uuid, Uuid, String)>, StoreError> {
        let looking: Vec<(Uuid, Vec<Uuid>, Uuid, String)> = places::table
            .filter(places::account_id.eq(self.id))
            .filter(places::series_id.is_not_null())
            .order((places::name, places::id))
            .select((places::series_id.assume_not_null(), places::further_series, places::id, places::name))
            .load(&mut self.connection().await?)
            .await?;
        let of_place = |(first, further, place, name): (Uuid, Vec<Uuid>, Uuid, String)| {
            let all = std::iter::once(first).chain(further.into_iter().filter(move |id| *id != first));
            all.map(move |series| (series, place, name.clone()))
        };
        Ok(looking.into_iter().flat_map(of_place).collect())
    }
}

#[derive(Debug, QueryableByName)]
struct Found {
    #[diesel(sql_type = SqlUuid)]
    id: Uuid,
    #[diesel(sql_type = BigInt)]
    total: i64,
}

#[cfg(test)]
mod tests {
    #[test]
    fn what_is_searched_is_meant_as_it_is_typed() {
        assert_eq!(super::pattern(""), "");
        assert_eq!(super::pattern("50 %_\\"), "%50 \\%\\_\\\\%");
    }
}
