//! What is to be done at each controller of a company, worked out once a day and again when something changes.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};

use actix_web::web;
use chrono::{DateTime, NaiveDate, Utc};
use tokio::sync::Semaphore;
use upland_store::{Account, ControllerHead};
use uuid::Uuid;

use crate::clock::Clock;
use crate::context::{ControllerContext, FieldRecord};
use crate::error::PageError;
use crate::loading;
use crate::pages::due::due;
use crate::pages::field::FieldState;
use crate::pages::job_list::Todo;
use crate::pages::today::todos;

/// Everything that the jobs of a controller follow from: its figures at a day, with nothing left out. It is
/// what a head tells, so that most days no document has to be read.
#[derive(Debug, Clone, PartialEq, Eq)]
struct Basis {
    version: i32,
    place_version: i32,
    revision_id: Option<Uuid>,
    further_revisions: Vec<Uuid>,
    recorded_at: Option<DateTime<Utc>>,
    today: NaiveDate,
}

impl Basis {
    fn of(head: &ControllerHead, days: &Days) -> Self {
        Self {
            version: head.version,
            place_version: head.place_version,
            revision_id: head.revision_id,
            further_revisions: head.further_revisions.clone(),
            recorded_at: head.recorded_at,
            today: days.of(&head.time_zone),
        }
    }
}

/// The day in each zone that there is.
struct Days(Vec<(String, NaiveDate)>);

impl Days {
    fn in_zones(clock: Clock, heads: &[ControllerHead]) -> Self {
        let mut days: Vec<(String, NaiveDate)> = Vec::new();
        for head in heads {
            if !days.iter().any(|(zone, _)| *zone == head.time_zone) {
                let zone = head.time_zone.parse().unwrap_or(chrono_tz::Tz::UTC);
                days.push((head.time_zone.clone(), clock.today(zone)));
            }
        }
        Self(days)
    }

    fn of(&self, zone: &str) -> NaiveDate {
        self.0.iter().find(|(known, _)| known == zone).map_or(NaiveDate::MIN, |(_, day)| *day)
    }
}

type Kept = HashMap<Uuid, (Basis, Arc<[Todo]>)>;

/// The jobs that were worked out, by controller. Nothing is lost with it: what is not here is worked out anew.
#[derive(Debug)]
pub(crate) struct Jobs {
    kept: Mutex<Kept>,
    /// How many are worked out at once: others of the company's pages go on meanwhile.
    turns: Semaphore,
}

/// Controllers whose jobs are kept; a dozen jobs with their words take a few kilobytes.
const MOST_KEPT: usize = 20_000;
/// Controllers whose documents are in memory at once.
const AT_ONCE: usize = 100;

impl Default for Jobs {
    fn default() -> Self {
        Self { kept: Mutex::default(), turns: Semaphore::new(2) }
    }
}

impl Jobs {
    /// The jobs of some controllers, in their order.
    pub(crate) async fn of(
        &self,
        account: &Account,
        clock: Clock,
        heads: &[ControllerHead],
    ) -> Result<Vec<Arc<[Todo]>>, PageError> {
        let days = Days::in_zones(clock, heads);
        if self.missing(&days, heads).is_empty() {
            return Ok(self.known(&days, heads));
        }
        let _turn = self.turns.acquire().await.map_err(|e| PageError::Ours(Box::new(e)))?;
        // Somebody else may have worked them out while this one waited.
        for chunk in self.missing(&days, heads).chunks(AT_ONCE) {
            let ids: Vec<Uuid> = chunk.iter().map(|head| head.id).collect();
            let contexts = loading::contexts(account, clock, chunk).await?;
            let records = account.newest_records(&ids).await?;
            let worked_out = web::block(move || work_out(&contexts, &records, clock)).await;
            let worked_out = worked_out.map_err(|e| PageError::Ours(Box::new(e)))?;
            self.keep(chunk, worked_out, &days);
        }
        Ok(self.known(&days, heads))
    }

    fn missing<'a>(&self, days: &Days, heads: &'a [ControllerHead]) -> Vec<&'a ControllerHead> {
        let kept = self.kept.lock().unwrap_or_else(PoisonError::into_inner);
        heads
            .iter()
            .filter(|head| kept.get(&head.id).is_none_or(|(basis, _)| *basis != Basis::of(head, days)))
            .collect()
    }

    /// Controllers that were removed meanwhile have none.
    fn known(&self, days: &Days, heads: &[ControllerHead]) -> Vec<Arc<[Todo]>> {
        let kept = self.kept.lock().unwrap_or_else(PoisonError::into_inner);
        let known = |head: &ControllerHead| {
            let (basis, jobs) = kept.get(&head.id)?;
            (*basis == Basis::of(head, days)).then(|| jobs.clone())
        };
        heads.iter().map(|head| known(head).unwrap_or_default()).collect()
    }

    fn keep(&self, heads: &[&ControllerHead], worked_out: Vec<(Uuid, Arc<[Todo]>)>, days: &Days) {
        let mut kept = self.kept.lock().unwrap_or_else(PoisonError::into_inner);
        if kept.len() + worked_out.len() > MOST_KEPT {
            kept.clear();
        }
        for (id, jobs) in worked_out {
            if let Some(head) = heads.iter().find(|head| head.id == id) {
                kept.insert(id, (Basis::of(head, days), jobs));
            }
        }
    }
}

fn work_out(contexts: &[ControllerContext], records: &[FieldRecord], clock: Clock) -> Vec<(Uuid, Arc<[Todo]>)> {
    contexts
        .iter()
        .map(|context| {
            let today = clock.today(context.at.zone);
            let own = records.iter().filter(|r| r.controller_id == context.controller.id);
            let due = due(context, &FieldState::of(own), today);
            (context.controller.id, due.into_iter().chain(todos(context, today)).collect())
        })
        .collect()
}
