use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::{Action, Kind, Record, Write};
use crate::pool::Account;
use crate::queries::revision::write_revision;
use crate::rows::{ControllerRow, PlaceRow, SeriesRow};
use crate::schema::{actions, aggregates, changes, controllers, places, series};

impl Account {
    /// Does an action: the rows and the log of every write, or nothing. Gives the address that it led to.
    ///
    /// The action is reserved first. The same one again, or at once from eight presses, changes nothing and
    /// gives the address that the first one led to.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when something was changed since the version that the action was
    /// made on; [`StoreError::InUse`] when a thing to be removed is referred to;
    /// [`StoreError::OtherContent`] when something else was done under the same id;
    /// [`StoreError::UndoneAlready`] when the action to be undone was undone before.
    pub async fn apply(&self, action: &Action) -> Result<String, StoreError> {
        let account = self.id;
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                if !reserve(connection, account, action).await? {
                    let done = done(connection, account, action.id).await?.ok_or(StoreError::NotFound)?;
                    return done.same_as(&action.digest);
                }
                if let Some(undone) = action.undoes {
                    mark_undone(connection, account, undone).await?;
                }
                for (ordinal, write) in (0i16..).zip(&action.writes) {
                    let version = next_version(connection, account, write).await?;
                    write_rows(connection, account, write).await?;
                    write_change(connection, account, action, write, Step { ordinal, version }).await?;
                }
                super::field::write_records(connection, account, action).await?;
                Ok(action.leads_to.clone())
            })
            .await
    }

    /// Where an action led that was done already; none when it was not.
    ///
    /// # Errors
    /// [`StoreError::OtherContent`] when something else was done under the same id.
    pub async fn done_already(&self, action: Uuid, digest: &[u8]) -> Result<Option<String>, StoreError> {
        let mut connection = self.connection().await?;
        let done = done(&mut connection, self.id, action).await?;
        done.map(|done| done.same_as(digest)).transpose()
    }
}

/// An action that was done.
#[derive(Debug, Queryable)]
struct Done {
    digest: Vec<u8>,
    led_to: String,
}

impl Done {
    fn same_as(self, digest: &[u8]) -> Result<String, StoreError> {
        if self.digest == digest { Ok(self.led_to) } else { Err(StoreError::OtherContent) }
    }
}

async fn done(connection: &mut AsyncPgConnection, account: Uuid, id: Uuid) -> Result<Option<Done>, StoreError> {
    let known = actions::table.filter(actions::account_id.eq(account)).filter(actions::id.eq(id));
    Ok(known.select((actions::digest, actions::led_to)).first(connection).await.optional()?)
}

/// Writes the action down before anything else. Who comes second waits here for the first one's end;
/// `false` when that one was done.
async fn reserve(connection: &mut AsyncPgConnection, account: Uuid, action: &Action) -> Result<bool, StoreError> {
    let written = diesel::insert_into(actions::table)
        .values((
            actions::account_id.eq(account),
            actions::id.eq(action.id),
            actions::at.eq(action.at),
            actions::user_id.eq(action.user_id),
            actions::user_name.eq(&action.user_name),
            actions::why.eq(&action.why),
            actions::digest.eq(&action.digest),
            actions::led_to.eq(&action.leads_to),
            actions::undoes.eq(action.undoes),
            actions::can_be_undone.eq(action.undoes.is_none() && !action.writes.is_empty()),
        ))
        .on_conflict_do_nothing()
        .execute(connection)
        .await?;
    Ok(written == 1)
}

/// An action is undone once.
async fn mark_undone(connection: &mut AsyncPgConnection, account: Uuid, undone: Uuid) -> Result<(), StoreError> {
    let open = actions::table
        .filter(actions::account_id.eq(account))
        .filter(actions::id.eq(undone))
        .filter(actions::can_be_undone);
    match diesel::update(open).set(actions::can_be_undone.eq(false)).execute(connection).await? {
        0 => Err(StoreError::UndoneAlready),
        _ => Ok(()),
    }
}

/// Holds the thing's row against others, compares versions, and counts one up.
async fn next_version(connection: &mut AsyncPgConnection, account: Uuid, write: &Write) -> Result<i32, StoreError> {
    let kind = write.record.kind();
    let current: Option<(i32, String)> = aggregates::table
        .filter(aggregates::account_id.eq(account))
        .filter(aggregates::id.eq(write.id))
        .select((aggregates::version, aggregates::kind))
        .for_update()
        .first(connection)
        .await
        .optional()?;
    let conflict = |current| StoreError::Conflict { id: write.id, kind, expected: write.made_on, current };
    match current {
        None if write.made_on == 0 => {
            diesel::insert_into(aggregates::table)
                .values((
                    aggregates::account_id.eq(account),
                    aggregates::id.eq(write.id),
                    aggregates::kind.eq(kind.word()),
                    aggregates::version.eq(1),
                ))
                .execute(connection)
                .await?;
            Ok(1)
        }
        None => Err(StoreError::NotFound),
        Some((version, known)) if version == write.made_on && Kind::of_word(&known) == Some(kind) => {
            diesel::update(
                aggregates::table.filter(aggregates::account_id.eq(account)).filter(aggregates::id.eq(write.id)),
            )
            .set(aggregates::version.eq(version + 1))
            .execute(connection)
            .await?;
            Ok(version + 1)
        }
        Some((version, _)) => Err(conflict(version)),
    }
}

async fn write_rows(connection: &mut AsyncPgConnection, account: Uuid, write: &Write) -> Result<(), StoreError> {
    let id = write.id;
    match &write.record {
        Record::Place(Some(place)) => {
            let row = PlaceRow::new(account, id, place);
            diesel::insert_into(places::table)
                .values(&row)
                .on_conflict((places::account_id, places::id))
                .do_update()
                .set(&row)
                .execute(connection)
                .await?;
        }
        Record::Place(None) => {
            diesel::delete(places::table.filter(places::account_id.eq(account)).filter(places::id.eq(id)))
                .execute(connection)
                .await?;
        }
        Record::Controller(Some(record)) => {
            let row = ControllerRow::new(account, id, record);
            diesel::insert_into(controllers::table)
                .values(&row)
                .on_conflict((controllers::account_id, controllers::id))
                .do_update()
                .set(&row)
                .execute(connection)
                .await?;
        }
        Record::Controller(None) => {
            diesel::delete(
                controllers::table.filter(controllers::account_id.eq(account)).filter(controllers::id.eq(id)),
            )
            .execute(connection)
            .await?;
        }
        Record::Series(record, revision) => {
            if let Some(revision) = revision {
                write_revision(connection, account, id, revision).await?;
            }
            match record {
                Some(record) => {
                    let row = SeriesRow::new(account, id, record);
                    diesel::insert_into(series::table)
                        .values(&row)
                        .on_conflict((series::account_id, series::id))
                        .do_update()
                        .set(&row)
                        .execute(connection)
                        .await?;
                }
                None => {
                    diesel::delete(series::table.filter(series::account_id.eq(account)).filter(series::id.eq(id)))
                        .execute(connection)
                        .await?;
                }
            }
        }
    }
    Ok(())
}

/// What a write becomes in the log.
struct Step {
    ordinal: i16,
    version: i32,
}

async fn write_change(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    action: &Action,
    write: &Write,
    step: Step,
) -> Result<(), StoreError> {
    diesel::insert_into(changes::table)
        .values((
            changes::account_id.eq(account),
            changes::action_id.eq(action.id),
            changes::ordinal.eq(step.ordinal),
            changes::aggregate_id.eq(write.id),
            changes::kind.eq(write.record.kind().word()),
            changes::version.eq(step.version),
            changes::after.eq(write.record.document()),
        ))
        .execute(connection)
        .await?;
    Ok(())
}
