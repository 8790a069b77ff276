//! What goes away by itself.

use chrono::{DateTime, Utc};
use diesel::sql_types::Timestamptz;
use diesel_async::{AsyncConnection, RunQueryDsl};

use crate::error::StoreError;
use crate::pool::Store;

/// What has run out. Of the log of changes goes what a company no longer keeps, but never the newest
/// document of a thing: it is what the next change is compared with.
const RUN_OUT: [&str; 6] = [
    "DELETE FROM sessions WHERE expires_at < $1",
    "DELETE FROM password_links WHERE expires_at < $1",
    "DELETE FROM sign_in_attempts WHERE at < $1 - interval '1 day'",
    "DELETE FROM snoozes WHERE until < ($1 - interval '1 month')::date",
    "DELETE FROM uploads WHERE created_at < $1 - interval '1 day'",
    "DELETE FROM changes AS old USING accounts, actions \
     WHERE accounts.id = old.account_id AND actions.account_id = old.account_id AND actions.id = old.action_id \
       AND actions.at < $1 - make_interval(months => accounts.keep_log_months) \
       AND EXISTS (SELECT FROM changes AS next JOIN actions AS later \
                       ON later.account_id = next.account_id AND later.id = next.action_id \
                   WHERE next.account_id = old.account_id AND next.aggregate_id = old.aggregate_id \
                     AND next.version > old.version \
                     AND later.at < $1 - make_interval(months => accounts.keep_log_months))",
];

/// An action goes when nothing that it changed is kept, and no longer stands in anybody's undo line.
const FORGOTTEN_ACTIONS: &str = "\
    DELETE FROM actions USING accounts \
    WHERE accounts.id = actions.account_id \
      AND actions.at < $1 - make_interval(months => accounts.keep_log_months) \
      AND NOT EXISTS (SELECT FROM changes \
                      WHERE changes.account_id = actions.account_id AND changes.action_id = actions.id)";

impl Store {
    /// Takes away what has run out: sessions, links, counted sign-ins, uploaded files, and what companies no
    /// longer keep of their logs. Gives how many rows went.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn tidy(&self, now: DateTime<Utc>) -> Result<usize, StoreError> {
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                let mut gone = 0;
                for statement in RUN_OUT.into_iter().chain([FORGOTTEN_ACTIONS]) {
                    gone += diesel::sql_query(statement).bind::<Timestamptz, _>(now).execute(connection).await?;
                }
                Ok(gone)
            })
            .await
    }
}
