use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{ControllerRecord, Versioned};
use crate::pool::Account;
use crate::rows::{ControllerRow, MonthPlanRow, ProgramRow, SensorRow, StationRow, TemporaryRow, assemble};
use crate::schema::{aggregates, controllers, month_plans, programs, sensors, stations, temporaries};

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
        self.controllers_where(Some(id)).await?.into_iter().next().ok_or(StoreError::NotFound)
    }

    async fn controllers_where(&self, only: Option<Uuid>) -> Result<Vec<Versioned<ControllerRecord>>, StoreError> {
        let connection = &mut self.connection().await?;
        let mut query = controllers::table
            .inner_join(
                aggregates::table
                    .on(aggregates::account_id.eq(controllers::account_id).and(aggregates::id.eq(controllers::id))),
            )
            .filter(controllers::account_id.eq(self.id))
            .order((controllers::name, controllers::id))
            .select((ControllerRow::as_select(), aggregates::version))
            .into_boxed();
        if let Some(id) = only {
            query = query.filter(controllers::id.eq(id));
        }
        let rows: Vec<(ControllerRow, i32)> = query.load(connection).await?;
        let ids: Vec<Uuid> = rows.iter().map(|(r, _)| r.id).collect();
        if ids.is_empty() {
            return Ok(Vec::new());
        }
        // Five questions that do not wait for each other's answers: one round trip.
        let connection: &AsyncPgConnection = connection;
        let (mut for_programs, mut for_plans, mut for_stations) = (connection, connection, connection);
        let (mut for_sensors, mut for_temporaries) = (connection, connection);
        let (programs, plans, stations, sensors, temporaries) = tokio::try_join!(
            programs::table
                .filter(programs::account_id.eq(self.id))
                .filter(programs::controller_id.eq_any(&ids))
                .select(ProgramRow::as_select())
                .load::<ProgramRow>(&mut for_programs),
            month_plans::table
                .filter(month_plans::account_id.eq(self.id))
                .filter(month_plans::controller_id.eq_any(&ids))
                .select(MonthPlanRow::as_select())
                .load::<MonthPlanRow>(&mut for_plans),
            stations::table
                .filter(stations::account_id.eq(self.id))
                .filter(stations::controller_id.eq_any(&ids))
                .select(StationRow::as_select())
                .load::<StationRow>(&mut for_stations),
            sensors::table
                .filter(sensors::account_id.eq(self.id))
                .filter(sensors::controller_id.eq_any(&ids))
                .order(sensors::ordinal)
                .select(SensorRow::as_select())
                .load::<SensorRow>(&mut for_sensors),
            temporaries::table
                .filter(temporaries::account_id.eq(self.id))
                .filter(temporaries::controller_id.eq_any(&ids))
                .order(temporaries::ordinal)
                .select(TemporaryRow::as_select())
                .load::<TemporaryRow>(&mut for_temporaries),
        )?;
        rows.iter()
            .map(|(row, version)| {
                let value = assemble(row, &programs, &plans, &stations, (&sensors, &temporaries))?;
                Ok(Versioned { id: row.id, version: *version, value })
            })
            .collect()
    }
}
