use std::collections::HashMap;
use std::sync::Arc;

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

/// A document as it comes, with its controller and version.
type Row = (Uuid, JsonText, i32);

type ReadRow = (Uuid, i32, Arc<ControllerRecord>);

fn read((id, document, version): Row) -> Result<ReadRow, StoreError> {
    Ok((id, version, Arc::new(ControllerRecord::of_document(document.read()?)?)))
}

async fn read_all(rows: Vec<Row>) -> Result<Vec<ReadRow>, StoreError> {
    if rows.len() <= AT_ONCE {
        return rows.into_iter().map(read).collect();
    }
    // A document of 24 stations takes a third of a millisecond, and a company may have a thousand.
    let apart = tokio::task::spawn_blocking(|| rows.into_par_iter().map(read).collect());
    apart.await.map_err(|e| StoreError::BrokenRow(e.to_string()))?
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
        let aggregate = aggregates::account_id.eq(controllers::account_id).and(aggregates::id.eq(controllers::id));
        let mut query = controllers::table
            .inner_join(aggregates::table.on(aggregate))
            .filter(controllers::account_id.eq(self.id))
            .order((controllers::name, controllers::id))
            .select((controllers::id, aggregates::version))
            .into_boxed();
        if let Some(ids) = only {
            query = query.filter(controllers::id.eq_any(ids));
        }
        let versions: Vec<(Uuid, i32)> = query.load(&mut self.connection().await?).await?;
        self.controllers_at(versions).await
    }

    /// Controllers at the versions at which they were just seen in the database, or newer ones, in their order: what was
    /// read before needs no query. One that was removed meanwhile is left out.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn controllers_at(
        &self,
        versions: Vec<(Uuid, i32)>,
    ) -> Result<Vec<Versioned<ControllerRecord>>, StoreError> {
        let known = &self.store.controllers;
        let mut found: HashMap<Uuid, (i32, Arc<ControllerRecord>)> = versions
            .iter()
            .filter_map(|(id, version)| Some((*id, (*version, known.get((self.id, *id), *version)?))))
            .collect();
        let missing: Vec<Uuid> = versions.iter().map(|(id, _)| *id).filter(|id| !found.contains_key(id)).collect();
        if !missing.is_empty() {
            let aggregate = aggregates::account_id.eq(controllers::account_id).and(aggregates::id.eq(controllers::id));
            let query = controllers::table
                .inner_join(aggregates::table.on(aggregate))
                .filter(controllers::account_id.eq(self.id))
                .filter(controllers::id.eq_any(&missing))
                .select((controllers::id, controllers::document, aggregates::version));
            let rows: Vec<Row> = query.load(&mut self.connection().await?).await?;
            for (id, version, record) in read_all(rows).await? {
                known.keep((self.id, id), version, &record);
                found.insert(id, (version, record));
            }
        }
        let in_order = versions.into_iter().filter_map(|(id, _)| {
            let (version, record) = found.remove(&id)?;
            Some(Versioned { id, version, value: Arc::unwrap_or_clone(record) })
        });
        Ok(in_order.collect())
    }
}
