use diesel::result::{DatabaseErrorKind, Error as DieselError};
use thiserror::Error;

use crate::model::Kind;

/// Why the store could not do what was asked.
#[derive(Debug, Error)]
pub enum StoreError {
    /// There is no such thing in this company.
    #[error("not found")]
    NotFound,
    /// The thing was changed since the version that the change was made on.
    #[error("the {kind:?} is at version {current}, the change was made on {expected}")]
    Conflict {
        /// The thing.
        id: uuid::Uuid,
        /// What kind of thing.
        kind: Kind,
        /// The version that the change was made on.
        expected: i32,
        /// The version it is at now.
        current: i32,
    },
    /// Under the id of this action something else was done.
    #[error("something else was done under the same id")]
    OtherContent,
    /// The action to be undone was undone before.
    #[error("it was undone already")]
    UndoneAlready,
    /// Something else still hangs on it, or what it refers to is gone.
    #[error("something else refers to it")]
    InUse,
    /// The e-mail address is taken.
    #[error("already there")]
    AlreadyThere,
    /// A row holds what the core refuses: the database was changed behind the application.
    #[error("a row cannot be read: {0}")]
    BrokenRow(String),
    /// The database is away or answers too slowly.
    #[error("the database cannot be reached")]
    Away(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// The database refused.
    #[error("the database refused")]
    Database(#[source] DieselError),
}

impl From<DieselError> for StoreError {
    fn from(error: DieselError) -> Self {
        match error {
            DieselError::NotFound => Self::NotFound,
            DieselError::DatabaseError(DatabaseErrorKind::ForeignKeyViolation, _) => Self::InUse,
            DieselError::DatabaseError(DatabaseErrorKind::UniqueViolation, _) => Self::AlreadyThere,
            // A connection that the server closed is found out when it is next used.
            DieselError::DatabaseError(
                DatabaseErrorKind::ClosedConnection | DatabaseErrorKind::UnableToSendCommand,
                _,
            )
            | DieselError::BrokenTransactionManager => Self::Away(Box::new(error)),
            // The server sends "57P0x" when it is going down; the driver keeps only the words.
            DieselError::DatabaseError(_, ref info) if info.message().contains("terminating connection") => {
                Self::Away(Box::new(error))
            }
            other => Self::Database(other),
        }
    }
}

impl From<diesel_async::pooled_connection::deadpool::PoolError> for StoreError {
    fn from(error: diesel_async::pooled_connection::deadpool::PoolError) -> Self {
        Self::Away(Box::new(error))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_closed_connection_is_a_database_that_is_away() {
        for kind in [DatabaseErrorKind::ClosedConnection, DatabaseErrorKind::UnableToSendCommand] {
            let error = DieselError::DatabaseError(kind, Box::new("connection closed".to_owned()));
            assert!(matches!(StoreError::from(error), StoreError::Away(_)));
        }
    }
}
