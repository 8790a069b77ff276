use diesel::deserialize::{self, FromSql, FromSqlRow};
use diesel::pg::{Pg, PgValue};
use diesel::sql_types::Jsonb;
use serde_json::Value;

use crate::error::StoreError;

/// The first byte of the only binary form of `jsonb` that there is: the rest is its text.
const VERSION: u8 = 1;

/// A document as the database sends it, not read yet: reading many takes longer than fetching them, and need not be
/// done on the thread that waits for them.
#[derive(Debug, FromSqlRow)]
pub(crate) struct JsonText(String);

impl JsonText {
    pub(crate) fn read(&self) -> Result<Value, StoreError> {
        serde_json::from_str(&self.0).map_err(|e| StoreError::BrokenRow(e.to_string()))
    }
}

impl FromSql<Jsonb, Pg> for JsonText {
    fn from_sql(value: PgValue<'_>) -> deserialize::Result<Self> {
        match value.as_bytes() {
            [VERSION, text @ ..] => Ok(Self(std::str::from_utf8(text)?.to_owned())),
            _ => Err("a form of jsonb that is not known".into()),
        }
    }
}
