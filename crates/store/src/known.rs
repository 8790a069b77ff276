//! Controllers that were read before.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use uuid::Uuid;

use crate::model::ControllerRecord;

/// Controllers that are kept; one of 24 stations takes some fifteen kilobytes.
const MOST: usize = 2_000;

/// Company and controller: no company is ever given what another one owns.
type Key = (Uuid, Uuid);

/// Controllers that were read, each at its newest version known here.
///
/// A version is written once and never again, so what is kept is never wrong, only old: whoever asks knows the version
/// from the database. Nothing is lost with it, and nothing has to be told of a change.
#[derive(Debug, Default)]
pub(crate) struct KnownControllers(Mutex<HashMap<Key, (i32, Arc<ControllerRecord>)>>);

impl KnownControllers {
    fn lock(&self) -> MutexGuard<'_, HashMap<Key, (i32, Arc<ControllerRecord>)>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// A controller at a version, where it was read before.
    pub(crate) fn get(&self, key: Key, version: i32) -> Option<Arc<ControllerRecord>> {
        self.lock().get(&key).filter(|(known, _)| *known == version).map(|(_, record)| record.clone())
    }

    /// Keeps a controller at a version; an older one does not take the place of a newer.
    pub(crate) fn keep(&self, key: Key, version: i32, record: &Arc<ControllerRecord>) {
        let mut known = self.lock();
        if known.get(&key).is_some_and(|(newer, _)| *newer >= version) {
            return;
        }
        if known.len() >= MOST && !known.contains_key(&key) {
            known.clear();
        }
        known.insert(key, (version, record.clone()));
    }
}

#[cfg(test)]
mod tests {
    use upland_core::controller::{Controller, Preset};

    use super::*;

    fn record(name: &str) -> Arc<ControllerRecord> {
        let controller = Controller::new(name.into(), Preset::Monthly.capability());
        Arc::new(ControllerRecord { place_id: Uuid::nil(), controller })
    }

    #[test]
    fn a_version_is_found_as_it_was_read_and_no_other() {
        let known = KnownControllers::default();
        let id = (Uuid::from_u128(7), Uuid::from_u128(1));
        known.keep(id, 2, &record("two"));
        known.keep(id, 1, &record("one"));
        assert_eq!(known.get(id, 2).unwrap().controller.name, "two");
        assert!(known.get(id, 1).is_none() && known.get(id, 3).is_none());
        known.keep(id, 3, &record("three"));
        assert!(known.get(id, 2).is_none());
        // The same key of another company.
        assert!(known.get((Uuid::from_u128(8), id.1), 3).is_none());
    }

    #[test]
    fn no_more_than_so_many_are_kept() {
        let known = KnownControllers::default();
        let one = record("one");
        for id in 0..=MOST {
            known.keep((Uuid::nil(), Uuid::from_u128(id as u128)), 1, &one);
        }
        assert!(known.lock().len() <= MOST);
        assert!(known.get((Uuid::nil(), Uuid::from_u128(MOST as u128)), 1).is_some(), "the last one");
    }
}
