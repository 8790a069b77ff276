//! Whose turn it is to try a password: guesses are counted before anything is hashed.

use chrono::{DateTime, TimeDelta, Utc};
use diesel::prelude::*;
use diesel::sql_types::Text;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};

use crate::error::StoreError;
use crate::pool::Store;
use crate::schema::sign_in_attempts;

/// Whether a password may be tried now.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SignInTurn {
    /// It may, and the attempt is counted.
    Allowed,
    /// Not before so many seconds have passed.
    Wait {
        /// Seconds, at least one.
        seconds: i64,
    },
}

/// How attempts under a key are slowed down.
struct Limit {
    key: String,
    /// Attempts within the hour that wait for nothing.
    free: i64,
    /// Longest wait, s.
    most_s: i64,
}

/// Attempts are remembered for so long.
const WINDOW: TimeDelta = TimeDelta::hours(1);
/// The first wait, s; each attempt more doubles it.
const FIRST_WAIT_S: i64 = 10;

/// The keys of an attempt, in an order that all attempts share. Somebody who guesses is slowed down at
/// once; the owner of the account, at another address, only when very many guesses were made, and then
/// by a minute at most.
fn limits(email: &str, network: &str) -> [Limit; 3] {
    [
        Limit { key: format!("account {email}"), free: 30, most_s: 60 },
        Limit { key: format!("network {network}"), free: 40, most_s: 900 },
        Limit { key: format!("pair {network} {email}"), free: 5, most_s: 900 },
    ]
}

impl Limit {
    /// How long after the last of `count` attempts the next one may be made, s.
    const fn wait_s(&self, count: i64) -> i64 {
        if count < self.free {
            return 0;
        }
        let doublings = if count - self.free > 10 { 10 } else { count - self.free };
        let wait = FIRST_WAIT_S << doublings;
        if wait > self.most_s { self.most_s } else { wait }
    }
}

impl Store {
    /// Counts an attempt to sign in and says whether it may be made. Attempts at once take their turns:
    /// each sees the ones before it.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn claim_sign_in(&self, email: &str, network: &str, at: DateTime<Utc>) -> Result<SignInTurn, StoreError> {
        let limits = limits(&email.to_lowercase(), network);
        self.connection()
            .await?
            .transaction::<_, StoreError, _>(async |connection| {
                let mut longest = 0;
                for limit in &limits {
                    // Held until the transaction ends.
                    diesel::sql_query("SELECT pg_advisory_xact_lock(hashtextextended($1, 0))")
                        .bind::<Text, _>(&limit.key)
                        .execute(connection)
                        .await?;
                    longest = longest.max(waits(connection, limit, at).await?);
                }
                if longest > 0 {
                    return Ok(SignInTurn::Wait { seconds: longest });
                }
                let keys: Vec<&str> = limits.iter().map(|l| l.key.as_str()).collect();
                let old = sign_in_attempts::key.eq_any(&keys).and(sign_in_attempts::at.lt(at - WINDOW));
                diesel::delete(sign_in_attempts::table.filter(old)).execute(connection).await?;
                let rows: Vec<_> =
                    keys.iter().map(|k| (sign_in_attempts::key.eq(*k), sign_in_attempts::at.eq(at))).collect();
                diesel::insert_into(sign_in_attempts::table).values(rows).execute(connection).await?;
                Ok(SignInTurn::Allowed)
            })
            .await
    }

    /// Forgets the attempts on an account after one that went well; those of the network stay, but for
    /// that one.
    ///
    /// # Errors
    /// [`StoreError`] when the database refuses.
    pub async fn sign_in_went_well(&self, email: &str, network: &str, at: DateTime<Utc>) -> Result<(), StoreError> {
        let [account, own_network, pair] = limits(&email.to_lowercase(), network).map(|l| l.key);
        let own = sign_in_attempts::key.eq_any([account, pair]);
        let this = sign_in_attempts::key.eq(own_network).and(sign_in_attempts::at.eq(at));
        diesel::delete(sign_in_attempts::table.filter(own.or(this))).execute(&mut self.connection().await?).await?;
        Ok(())
    }
}

/// Seconds until the next attempt under a limit.
async fn waits(connection: &mut AsyncPgConnection, limit: &Limit, at: DateTime<Utc>) -> Result<i64, StoreError> {
    let (count, last): (i64, Option<DateTime<Utc>>) = sign_in_attempts::table
        .filter(sign_in_attempts::key.eq(&limit.key))
        .filter(sign_in_attempts::at.gt(at - WINDOW))
        .select((diesel::dsl::count_star(), diesel::dsl::max(sign_in_attempts::at)))
        .first(connection)
        .await?;
    let until = last.map_or(at, |last| last + TimeDelta::seconds(limit.wait_s(count)));
    let left = (until - at).num_milliseconds();
    // Part of a second is waited for too.
    Ok(if left > 0 { (left + 999) / 1000 } else { 0 })
}
