//! What was read or worked out before, kept in memory while there is room.

use std::collections::HashMap;
use std::hash::Hash;
use std::sync::{Mutex, MutexGuard, PoisonError};

/// Answers by their questions, of a bounded weight in all; when they grow over it, all are let go.
///
/// For what cannot become wrong, such as what follows from an import, which never changes: nothing is ever taken out
/// for its age.
#[derive(Debug)]
pub(crate) struct Remembered<K, V> {
    most: usize,
    kept: Mutex<Kept<K, V>>,
}

#[derive(Debug)]
struct Kept<K, V> {
    answers: HashMap<K, V>,
    weight: usize,
}

impl<K: Eq + Hash, V: Clone> Remembered<K, V> {
    /// Room for so much, in the unit in which answers are weighed.
    pub(crate) fn with_room(most: usize) -> Self {
        Self { most, kept: Mutex::new(Kept { answers: HashMap::new(), weight: 0 }) }
    }

    fn lock(&self) -> MutexGuard<'_, Kept<K, V>> {
        self.kept.lock().unwrap_or_else(PoisonError::into_inner)
    }

    pub(crate) fn get(&self, question: &K) -> Option<V> {
        self.lock().answers.get(question).cloned()
    }

    /// Keeps an answer of a weight; one that is there already stays.
    pub(crate) fn keep(&self, question: K, answer: V, weight: usize) {
        let mut kept = self.lock();
        if kept.answers.contains_key(&question) {
            return;
        }
        if kept.weight + weight > self.most {
            kept.answers.clear();
            kept.weight = 0;
        }
        kept.weight += weight;
        kept.answers.insert(question, answer);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_answer_is_kept_for_its_question_alone() {
        let known = Remembered::with_room(10);
        known.keep("a", 1, 4);
        known.keep("a", 2, 4);
        assert_eq!((known.get(&"a"), known.get(&"b")), (Some(1), None), "the same question has the same answer");
        assert_eq!(known.lock().weight, 4, "it is weighed once");
    }

    #[test]
    fn there_is_never_more_than_there_is_room_for() {
        let known = Remembered::with_room(10);
        for n in 0..100 {
            known.keep(n, n, 3);
            assert!(known.lock().weight <= 10);
            assert_eq!(known.get(&n), Some(n), "the last one is there");
        }
        // What is larger than all the room still answers once.
        known.keep(1000, 1000, 50);
        assert_eq!((known.get(&1000), known.get(&99)), (Some(1000), None));
    }
}
