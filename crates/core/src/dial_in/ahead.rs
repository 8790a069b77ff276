//! What has to be set on a panel by hand in the time to come.

use std::collections::BTreeSet;

use chrono::{Datelike, Months, NaiveDate, TimeDelta};

use super::{Slot, SlotId, Value, slots};
use crate::controller::{Controller, Temporary, TemporaryKind};
use crate::schedule::Plan;

/// A day on which a panel has to be set otherwise than on the day before.
#[derive(Debug, Clone, PartialEq)]
pub struct DayAhead {
    /// The day.
    pub on: NaiveDate,
    /// The slots, in the order of the panel.
    pub changes: Vec<Change>,
}

/// A slot that is to be set.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Change {
    /// What it must read from the day on.
    pub slot: Slot,
    /// What it must read until then; nothing where it was not asked for before.
    pub before: Option<Value>,
}

/// The days after the first of a span, to its last, on which the slots of a panel must read otherwise than before.
///
/// It is what [`slots`] asks for, day by day, so that what a panel changes by itself is no change: the months of a
/// panel that keeps twelve percents, the end of a rain delay.
#[must_use]
pub fn changes_ahead(controller: &Controller, plan: &Plan, [first, last]: [NaiveDate; 2]) -> Vec<DayAhead> {
    let on = |date: NaiveDate| slots(controller, plan, date).into_iter().filter(|s| !s.is_clock());
    let mut known = Known(on(first).map(|s| (s.id(), s.value)).collect());
    let mut out = Vec::new();
    for date in turning_days(controller, [first, last]).range(first + TimeDelta::days(1)..=last) {
        let mut changes = Vec::new();
        for (at, slot) in on(*date).enumerate() {
            let before = known.set(at, slot.id(), slot.value);
            if before != Some(slot.value) {
                changes.push(Change { slot, before });
            }
        }
        if !changes.is_empty() {
            out.push(DayAhead { on: *date, changes });
        }
    }
    out
}

/// What the slots of a panel read, in the order in which they were first asked for.
struct Known(Vec<(SlotId, Value)>);

impl Known {
    /// Sets what a slot reads; gives what it read before. A list asks for the same slots in the same order day after
    /// day, so that the slot is looked for where it stands in the list, and on from there.
    fn set(&mut self, at: usize, id: SlotId, value: Value) -> Option<Value> {
        let at = at.min(self.0.len());
        let (before, after) = self.0.split_at_mut(at);
        match after.iter_mut().chain(before).find(|(known, _)| *known == id) {
            Some((_, known)) => Some(std::mem::replace(known, value)),
            None => {
                self.0.push((id, value));
                None
            }
        }
    }
}

/// The days on which anything can change: the first of a month, and where something temporary begins, goes on
/// otherwise or is over.
fn turning_days(controller: &Controller, [first, last]: [NaiveDate; 2]) -> BTreeSet<NaiveDate> {
    let month = first.with_day(1).unwrap_or(first);
    let months = (0..).map_while(|n| month.checked_add_months(Months::new(n)));
    let months = months.take_while(|month| *month <= last);
    months.chain(controller.temporaries.iter().flat_map(steps)).collect()
}

/// The days on which a temporary setting changes what is set.
fn steps(t: &Temporary) -> Vec<NaiveDate> {
    let mut days = vec![t.since, t.until + TimeDelta::days(1)];
    if let TemporaryKind::Weaning { .. } = t.kind {
        let weeks = (t.until - t.since).num_days() / 7;
        days.extend((1..=weeks).map(|week| t.since + TimeDelta::days(7 * week)));
    }
    days
}
