//! Searches of the best setting that go on while their user does something else. Nothing is lost with them: what is not
//! here is searched again.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use upland_core::replay::Progress;
use uuid::Uuid;

use crate::apart::apart;

/// How long an answer is kept.
const KEPT: Duration = Duration::from_mins(30);
/// Searches that are known at once, in the whole process.
const MOST: usize = 500;

/// What became of a search.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum Outcome {
    /// It goes on.
    Going,
    /// The address of what it found.
    Found(String),
    /// It found nothing, or was stopped.
    Nothing,
}

/// A search of a user for a controller.
#[derive(Debug)]
pub(crate) struct Search {
    pub(crate) id: Uuid,
    user: Uuid,
    pub(crate) controller: Uuid,
    pub(crate) progress: Progress,
    began: Instant,
    outcome: Mutex<Outcome>,
}

impl Search {
    pub(crate) fn outcome(&self) -> Outcome {
        self.outcome.lock().unwrap_or_else(PoisonError::into_inner).clone()
    }

    fn is_going(&self) -> bool {
        self.outcome() == Outcome::Going
    }

    pub(crate) fn seconds(&self) -> u64 {
        self.began.elapsed().as_secs()
    }

    fn ends(&self, outcome: Outcome) {
        *self.outcome.lock().unwrap_or_else(PoisonError::into_inner) = outcome;
    }
}

/// The searches that go on, and the answers of late.
#[derive(Debug, Default)]
pub(crate) struct Searches(Mutex<HashMap<Uuid, Arc<Search>>>);

impl Searches {
    fn lock(&self) -> std::sync::MutexGuard<'_, HashMap<Uuid, Arc<Search>>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Begins a search. An earlier one of the same user for the same controller is stopped: nobody waits for it.
    pub(crate) fn begin(
        &self,
        user: Uuid,
        controller: Uuid,
        work: impl FnOnce(&Progress) -> Option<String> + Send + 'static,
    ) -> Arc<Search> {
        let search = Arc::new(Search {
            id: Uuid::new_v4(),
            user,
            controller,
            progress: Progress::default(),
            began: Instant::now(),
            outcome: Mutex::new(Outcome::Going),
        });
        let mut known = self.lock();
        known.retain(|_, s| s.is_going() || s.began.elapsed() < KEPT);
        for earlier in known.values().filter(|s| s.user == user && s.controller == controller) {
            earlier.progress.stop();
        }
        known.retain(|_, s| !(s.user == user && s.controller == controller));
        if known.len() >= MOST {
            known.values().for_each(|s| s.progress.stop());
            known.clear();
        }
        known.insert(search.id, search.clone());
        drop(known);
        let own = search.clone();
        actix_web::rt::spawn(async move {
            let searched = own.clone();
            let found = apart(move || work(&searched.progress)).await;
            own.ends(found.ok().flatten().map_or(Outcome::Nothing, Outcome::Found));
        });
        search
    }

    /// A search of a user.
    pub(crate) fn of_user(&self, user: Uuid, id: Uuid) -> Option<Arc<Search>> {
        self.lock().get(&id).filter(|s| s.user == user).cloned()
    }

    /// The search of a user for a controller that goes on, or whose answer nobody has fetched yet.
    pub(crate) fn of_controller(&self, user: Uuid, controller: Uuid) -> Option<Arc<Search>> {
        self.lock().values().find(|s| s.user == user && s.controller == controller).cloned()
    }

    /// Forgets a search whose answer was fetched, or that was stopped.
    pub(crate) fn forget(&self, id: Uuid) {
        if let Some(search) = self.lock().remove(&id) {
            search.progress.stop();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    async fn ended(search: &Search) -> Outcome {
        for _ in 0..500 {
            if !search.is_going() {
                break;
            }
            actix_web::rt::time::sleep(Duration::from_millis(10)).await;
        }
        search.outcome()
    }

    /// A search that ends when it is stopped.
    fn endless(progress: &Progress) -> Option<String> {
        while !progress.is_stopped() {
            std::thread::sleep(Duration::from_millis(2));
        }
        None
    }

    #[actix_web::test]
    async fn an_answer_waits_for_its_user_alone() {
        let searches = Searches::default();
        let (me, other, controller) = (Uuid::from_u128(1), Uuid::from_u128(2), Uuid::from_u128(3));
        let search = searches.begin(me, controller, |_| Some("scale=80".into()));
        assert_eq!(ended(&search).await, Outcome::Found("scale=80".into()));
        assert!(searches.of_user(me, search.id).is_some() && searches.of_user(other, search.id).is_none());
        assert!(searches.of_controller(other, controller).is_none());
        searches.forget(search.id);
        assert!(searches.of_controller(me, controller).is_none());
    }

    #[actix_web::test]
    async fn a_new_search_and_a_cancel_stop_what_goes_on() {
        let searches = Searches::default();
        let (me, controller) = (Uuid::from_u128(1), Uuid::from_u128(3));
        let first = searches.begin(me, controller, endless);
        assert_eq!(first.outcome(), Outcome::Going);
        let second = searches.begin(me, controller, endless);
        assert_eq!(ended(&first).await, Outcome::Nothing);
        assert_eq!(searches.of_controller(me, controller).unwrap().id, second.id);
        searches.forget(second.id);
        assert_eq!(ended(&second).await, Outcome::Nothing);
    }
}
