use diesel::dsl::exists;
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{NormalsVariant, RevisionSummary, SeriesRecord, Versioned};
use crate::pool::Account;
use crate::rows::{NormalRow, RevisionRow, SeriesRow, normals_by_variant};
use crate::schema::{aggregates, monthly_normals, series, series_revisions};

type SeriesWithRevision = (SeriesRow, i32, RevisionRow, bool);

impl Account {
    /// The company's series of weather with the import that counts, by name.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn all_series(&self) -> Result<Vec<(Versioned<SeriesRecord>, RevisionSummary)>, StoreError> {
        self.series_where(None).await
    }

    /// A series of the company with the import that counts.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none.
    pub async fn series(&self, id: Uuid) -> Result<(Versioned<SeriesRecord>, RevisionSummary), StoreError> {
        self.series_of(&[id]).await?.into_iter().next().ok_or(StoreError::NotFound)
    }

    /// Some series of the company with the imports that count, by name; those that are not there are left out.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn series_of(&self, ids: &[Uuid]) -> Result<Vec<(Versioned<SeriesRecord>, RevisionSummary)>, StoreError> {
        self.series_where(Some(ids)).await
    }

    async fn series_where(
        &self,
        only: Option<&[Uuid]>,
    ) -> Result<Vec<(Versioned<SeriesRecord>, RevisionSummary)>, StoreError> {
        let has_normals = exists(
            monthly_normals::table
                .filter(monthly_normals::account_id.eq(series_revisions::account_id))
                .filter(monthly_normals::revision_id.eq(series_revisions::id)),
        );
        let mut query = series::table
            .inner_join(
                aggregates::table.on(aggregates::account_id.eq(series::account_id).and(aggregates::id.eq(series::id))),
            )
            .inner_join(series_revisions::table.on(
                series_revisions::account_id.eq(series::account_id).and(series_revisions::id.eq(series::revision_id)),
            ))
            .filter(series::account_id.eq(self.id))
            .order((series::name, series::id))
            .select((SeriesRow::as_select(), aggregates::version, RevisionRow::as_select(), has_normals))
            .into_boxed();
        if let Some(ids) = only {
            query = query.filter(series::id.eq_any(ids));
        }
        let rows: Vec<SeriesWithRevision> = query.load(&mut self.connection().await?).await?;
        rows.into_iter()
            .map(|(row, version, revision, has_normals)| {
                let value = Versioned { id: row.id, version, value: row.try_into()? };
                Ok((value, revision.summary(has_normals)))
            })
            .collect()
    }

    /// Normals of an import, with their variants; the plain ones come first.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn normals(&self, revision_id: Uuid) -> Result<Vec<NormalsVariant>, StoreError> {
        let rows: Vec<NormalRow> = monthly_normals::table
            .filter(monthly_normals::account_id.eq(self.id))
            .filter(monthly_normals::revision_id.eq(revision_id))
            .order((monthly_normals::variant, monthly_normals::month))
            .select(NormalRow::as_select())
            .load(&mut self.connection().await?)
            .await?;
        normals_by_variant(&rows)
    }
}
