use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{PlaceRecord, Versioned};
use crate::pool::Account;
use crate::rows::PlaceRow;
use crate::schema::{aggregates, places};

impl Account {
    /// The company's places, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn places(&self) -> Result<Vec<Versioned<PlaceRecord>>, StoreError> {
        let rows: Vec<(PlaceRow, i32)> = places::table
            .inner_join(
                aggregates::table.on(aggregates::account_id.eq(places::account_id).and(aggregates::id.eq(places::id))),
            )
            .filter(places::account_id.eq(self.id))
            .order((places::name, places::id))
            .select((PlaceRow::as_select(), aggregates::version))
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(versioned).collect()
    }

    /// A place of the company.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none.
    pub async fn place(&self, id: Uuid) -> Result<Versioned<PlaceRecord>, StoreError> {
        let row: (PlaceRow, i32) = places::table
            .inner_join(
                aggregates::table.on(aggregates::account_id.eq(places::account_id).and(aggregates::id.eq(places::id))),
            )
            .filter(places::account_id.eq(self.id))
            .filter(places::id.eq(id))
            .select((PlaceRow::as_select(), aggregates::version))
            .first(&mut self.connection().await?)
            .await?;
        versioned(row)
    }
}

pub(super) fn versioned((row, version): (PlaceRow, i32)) -> Result<Versioned<PlaceRecord>, StoreError> {
    Ok(Versioned { id: row.id, version, value: PlaceRecord::of_document(row.document)? })
}
