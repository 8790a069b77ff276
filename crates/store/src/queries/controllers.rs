use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use rayon::prelude::*;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ControllerRecord, Versioned};
use crate::pool::Account;
use crate::rows::JsonText;
use crate::schema::{aggregates, controllers};

/// So many documents are read at once where they were asked for; more of them take their time on threads of their own.
const AT_ONCE: usize = 4;

/// A row as it comes: id, document, version.
type Row = (Uuid, JsonText, i32);

fn read((id, document, version): Row) -> Result<Versioned<ControllerRecord>, StoreError> {
    Ok(Versioned { id, version, value: ControllerRecord::of_document(document.read()?)? })
}

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
            .select((controllers::id, controllers::document, aggregates::version))
            .into_boxed();
        if let Some(ids) = only {
            query = query.filter(controllers::id.eq_any(ids));
        }
        let rows: Vec<Row> = query.load(&mut self.connection().await?).await?;
        if rows.len() <= AT_ONCE {
            return rows.into_iter().map(read).collect();
        }
        // A document of 24 stations takes a third of a millisecond, and a morning's first visit reads a thousand.
        let apart = tokio::task::spawn_blocking(|| rows.into_par_iter().map(read).collect());
        apart.await.map_err(|e| StoreError::BrokenRow(e.to_string()))?
    }
}
