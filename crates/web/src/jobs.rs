//! What is to be done at each controller of a company, what comes there and where its soil stands, worked out once a
//! day and again when something changes.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use chrono::{DateTime, NaiveDate, TimeDelta, Utc};
use futures_util::future::join;
use rayon::prelude::*;
use tokio::sync::Semaphore;
use upland_core::replay::SoilNow;
use upland_store::{Account, ControllerHead};
use uuid::Uuid;

use crate::apart::apart;
use crate::clock::Clock;
use crate::context::{ControllerContext, FieldRecord, Weather, WeatherDay};
use crate::error::PageError;
use crate::loading;
use crate::pages::ahead::{Dated, ahead};
use crate::pages::due::due;
use crate::pages::field::FieldState;
use crate::pages::job_list::Todo;
use crate::pages::last_weeks::{BALANCE_DAYS, soil_this_morning};
use crate::pages::today::todos;

/// Everything that the jobs and the soil of a controller follow from: its figures at a day, with nothing left out. It
/// is what a head tells, so that most days no document has to be read.
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
    fn in_zones<'a>(clock: Clock, heads: impl IntoIterator<Item = &'a ControllerHead>) -> Self {
        let mut days: Vec<(String, NaiveDate)> = Vec::new();
        for head in heads {
            if !days.iter().any(|(zone, _)| *zone == head.time_zone) {
                let zone = head.time_zone.parse().unwrap_or(chrono_tz::Tz::UTC);
                days.push((head.time_zone.clone(), clock.today(zone)));
            }
        }
        Self(days)
    }

    fn first(&self) -> Option<NaiveDate> {
        self.0.iter().map(|(_, day)| *day).min()
    }

    fn last(&self) -> Option<NaiveDate> {
        self.0.iter().map(|(_, day)| *day).max()
    }

    fn of(&self, zone: &str) -> NaiveDate {
        self.0.iter().find(|(known, _)| known == zone).map_or(NaiveDate::MIN, |(_, day)| *day)
    }
}

/// What was worked out, by controller, with what it followed from.
type ByController<T> = HashMap<Uuid, (Basis, Arc<[T]>)>;

/// What was worked out for controllers at a day. Nothing is lost with it: what is not here is worked out anew.
#[derive(Debug)]
struct Kept<T>(Mutex<ByController<T>>);

impl<T> Default for Kept<T> {
    fn default() -> Self {
        Self(Mutex::default())
    }
}

impl<T> Kept<T> {
    fn lock(&self) -> MutexGuard<'_, ByController<T>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn missing<'a>(&self, days: &Days, heads: impl IntoIterator<Item = &'a ControllerHead>) -> Vec<&'a ControllerHead> {
        let kept = self.lock();
        let is_known =
            |head: &ControllerHead| kept.get(&head.id).is_some_and(|(basis, _)| *basis == Basis::of(head, days));
        heads.into_iter().filter(|head| !is_known(head)).collect()
    }

    /// In the order of the heads; controllers that were removed meanwhile have nothing.
    fn known<'a>(&self, days: &Days, heads: impl IntoIterator<Item = &'a ControllerHead>) -> Vec<Arc<[T]>> {
        let kept = self.lock();
        let known = |head: &ControllerHead| {
            let (basis, own) = kept.get(&head.id)?;
            (*basis == Basis::of(head, days)).then(|| own.clone())
        };
        heads.into_iter().map(|head| known(head).unwrap_or_default()).collect()
    }

    fn keep(&self, heads: &[&ControllerHead], worked_out: Vec<(Uuid, Arc<[T]>)>, days: &Days) {
        let mut kept = self.lock();
        if kept.len() + worked_out.len() > MOST_KEPT {
            kept.clear();
        }
        for (id, own) in worked_out {
            if let Some(head) = heads.iter().find(|head| head.id == id) {
                kept.insert(id, (Basis::of(head, days), own));
            }
        }
    }
}

/// The jobs of the controllers, and where the soil of their stations stands.
#[derive(Debug)]
pub(crate) struct Jobs {
    jobs: Kept<Todo>,
    ahead: Kept<Dated>,
    soil: Kept<SoilNow>,
    /// How many are worked out at once: others of the company's pages go on meanwhile.
    turns: Semaphore,
}

/// Controllers of which something is kept; a dozen jobs with their words take a few kilobytes.
const MOST_KEPT: usize = 20_000;
/// Controllers whose documents are in memory at once.
const AT_ONCE: usize = 100;

/// Controllers with the newest of their records.
#[derive(Default)]
struct Loaded {
    contexts: Vec<ControllerContext>,
    records: Vec<FieldRecord>,
}

async fn load(account: &Account, clock: Clock, chunk: Option<&[&ControllerHead]>) -> Result<Loaded, PageError> {
    let Some(chunk) = chunk else { return Ok(Loaded::default()) };
    let ids: Vec<Uuid> = chunk.iter().map(|head| head.id).collect();
    Ok(Loaded {
        contexts: loading::contexts(account, clock, chunk).await?,
        records: account.newest_records(&ids).await?,
    })
}

impl Default for Jobs {
    fn default() -> Self {
        Self { jobs: Kept::default(), ahead: Kept::default(), soil: Kept::default(), turns: Semaphore::new(2) }
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
        let of = |context: &ControllerContext, state: &FieldState, today: NaiveDate| {
            due(context, state, today).into_iter().chain(todos(context, today)).collect()
        };
        self.worked_out(&self.jobs, of, account, clock, heads).await
    }

    /// What comes at some controllers within a year, in their order.
    pub(crate) async fn ahead(
        &self,
        account: &Account,
        clock: Clock,
        heads: &[ControllerHead],
    ) -> Result<Vec<Arc<[Dated]>>, PageError> {
        self.worked_out(&self.ahead, ahead, account, clock, heads).await
    }

    /// What follows from a controller and its records alone.
    async fn worked_out<T, F>(
        &self,
        kept: &Kept<T>,
        of: F,
        account: &Account,
        clock: Clock,
        heads: &[ControllerHead],
    ) -> Result<Vec<Arc<[T]>>, PageError>
    where
        T: Send + Sync + 'static,
        F: Fn(&ControllerContext, &FieldState, NaiveDate) -> Vec<T> + Copy + Send + Sync + 'static,
    {
        let days = Days::in_zones(clock, heads);
        if kept.missing(&days, heads).is_empty() {
            return Ok(kept.known(&days, heads));
        }
        let _turn = self.turns.acquire().await.map_err(|e| PageError::Ours(Box::new(e)))?;
        // Somebody else may have worked them out while this one waited.
        let missing = kept.missing(&days, heads);
        let mut chunks = missing.chunks(AT_ONCE);
        let mut next = chunks.next();
        let mut loaded = load(account, clock, next).await?;
        while let Some(chunk) = next {
            let Loaded { contexts, records } = loaded;
            let worked_out = apart(move || {
                let of_controller = |context: &ControllerContext| {
                    let own = records.iter().filter(|r| r.controller_id == context.controller.id);
                    let own = of(context, &FieldState::of(own), clock.today(context.at.zone));
                    (context.controller.id, own.into())
                };
                // A thousand controllers on the morning's first visit: every core has its share.
                contexts.par_iter().map(of_controller).collect()
            });
            next = chunks.next();
            // The database fetches the next ones meanwhile.
            let (worked_out, meanwhile) = join(worked_out, load(account, clock, next)).await;
            kept.keep(chunk, worked_out?, &days);
            loaded = meanwhile?;
        }
        Ok(kept.known(&days, heads))
    }

    /// Where the soil of the stations of some controllers stands this morning, in their order; nothing where the
    /// weather on record ended before.
    pub(crate) async fn soil(
        &self,
        account: &Account,
        clock: Clock,
        heads: &[&ControllerHead],
        (contexts, records): (&[ControllerContext], &[FieldRecord]),
    ) -> Result<Vec<Arc<[SoilNow]>>, PageError> {
        let days = Days::in_zones(clock, heads.iter().copied());
        let missing = self.soil.missing(&days, heads.iter().copied());
        if missing.is_empty() {
            return Ok(self.soil.known(&days, heads.iter().copied()));
        }
        let to_do: Vec<&ControllerContext> =
            contexts.iter().filter(|c| missing.iter().any(|head| head.id == c.controller.id)).collect();
        let weather: Vec<&Weather> = to_do.iter().filter_map(|c| c.at.weather.as_ref()).collect();
        let (Some(first), Some(last)) = (days.first(), days.last()) else { return Ok(Vec::new()) };
        let span = [first - TimeDelta::days(BALANCE_DAYS), last];
        let mut of_places = loading::days_of_places(account, &weather, span).await?.into_iter();
        let with_days: Vec<(ControllerContext, Vec<WeatherDay>, FieldState)> = to_do
            .into_iter()
            .map(|context| {
                let own = records.iter().filter(|r| r.controller_id == context.controller.id);
                let days = context.at.weather.as_ref().and_then(|_| of_places.next()).unwrap_or_default();
                (context.clone(), days, FieldState::of(own))
            })
            .collect();
        let worked_out = apart(move || {
            let of = |(context, days, state): &(ControllerContext, Vec<WeatherDay>, FieldState)| {
                let morning = clock.today(context.at.zone);
                (context.controller.id, soil_this_morning(context, state, days, morning).into())
            };
            with_days.iter().map(of).collect()
        });
        self.soil.keep(&missing, worked_out.await?, &days);
        Ok(self.soil.known(&days, heads.iter().copied()))
    }
}
