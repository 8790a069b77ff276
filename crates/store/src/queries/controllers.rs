use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ControllerRecord, Versioned};
use crate::pool::Account;
use crate::rows::ControllerRow;
use crate::schema::{aggregates, controllers};

impl Account {
    /// The company's controllers with all that belongs to them, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn controllers(&self) -> Result<Vec<Versioned<ControllerRecord>>, StoreError> {
        self.controllers_where(None).await
    }

    /// A controller of the company.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none.
    pub async fn controller(&self, id: Uuid) -> Result<Versioned<ControllerRecord>, StoreError> {
        self.controllers_where(Some(&[id])).await?.into_iter().next().ok_or(StoreError::NotFound)
    }

    /// Some controllers, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn controllers_of(&self, ids: &[Uuid]) -> Result<Vec<Versioned<ControllerRecord>>, StoreError> {
        self.controllers_where(Some(ids)).await
    }

    async fn controllers_where(&self, only: Option<&[Uuid]>) -> Result<Vec<Versioned<ControllerRecord>>, StoreError> {
        let mut query = controllers::table
            .inner_join(
                aggregates::table
                    .on(aggregates::account_id.eq(controllers::account_id).and(aggregates::id.eq(controllers::id))),
            )
            .filter(controllers::account_id.eq(self.id))
            .order((controllers::name, controllers::id))
            .select((ControllerRow::as_select(), aggregates::version))
            .into_boxed();
        if let Some(ids) = only {
            query = query.filter(controllers::id.eq_any(ids));
        }
        let rows: Vec<(ControllerRow, i32)> = query.load(&mut self.connection().await?).await?;
        rows.into_iter()
            .map(|(row, version)| {
                let value = ControllerRecord::of_document(row.document)?;
                Ok(Versioned { id: row.id, version, value })
            })
            .collect()
    }
}
