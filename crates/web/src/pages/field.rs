//! What the field records say about a controller today.

use crate::context::FieldRecord;
use chrono::NaiveDate;
use upland_core::dial_in::{Slot, shown};
use upland_core::found::{Panel, SensorSwitch, Switch, panel_findings};
use upland_core::schedule::Known;
use upland_core::tuning::Judgement;
use upland_formats::site::{DialledDoc, DialledValueDoc, FieldDoc, RoundDoc};

use crate::context::ControllerContext;

/// The newest record of each kind.
#[derive(Debug, Clone, Default)]
pub(crate) struct FieldState {
    /// The panel as it was last found, and whether something was dialled since.
    pub(crate) found: Option<(FieldRecord, Panel)>,
    pub(crate) dialled: Option<(FieldRecord, DialledDoc)>,
    pub(crate) round: Option<(FieldRecord, RoundDoc)>,
    /// When a station was last measured.
    pub(crate) measured: Option<NaiveDate>,
}

impl FieldState {
    /// From the records of one controller, in any order.
    pub(crate) fn of<'a>(records: impl IntoIterator<Item = &'a FieldRecord>) -> Self {
        let mut out = Self::default();
        let newer = |old: Option<&FieldRecord>, new: &FieldRecord| old.is_none_or(|o| new.at > o.at);
        for record in records {
            match &record.document {
                FieldDoc::Found(doc) if newer(out.found.as_ref().map(|f| &f.0), record) => {
                    out.found = Panel::try_from(doc).ok().map(|p| (record.clone(), p));
                }
                FieldDoc::Dialled(doc) if newer(out.dialled.as_ref().map(|f| &f.0), record) => {
                    out.dialled = Some((record.clone(), doc.clone()));
                }
                FieldDoc::Round(doc) if newer(out.round.as_ref().map(|f| &f.0), record) => {
                    out.round = Some((record.clone(), doc.clone()));
                }
                FieldDoc::Measured(doc) => out.measured = out.measured.max(Some(doc.on)),
                _ => {}
            }
        }
        out
    }

    /// The panel as it was found, when nothing was dialled since.
    pub(crate) fn panel_still_found(&self) -> Option<&Panel> {
        let (record, panel) = self.found.as_ref()?;
        let dialled_since = self.dialled.as_ref().is_some_and(|(d, _)| d.at > record.at);
        (!dialled_since).then_some(panel)
    }

    /// The panel of a record, while nothing was dialled since.
    pub(crate) fn still_found_as(&self, record: &str) -> Option<&Panel> {
        self.panel_still_found().filter(|_| self.found.as_ref().is_some_and(|(r, _)| r.id.to_string() == record))
    }

    /// The value of a slot of the panel as far as it is on record: as it was found, else as dialled last. An inner
    /// none: it was dialled in, and nothing was said of this slot.
    pub(crate) fn on_panel(&self, slot: &Slot) -> Option<Option<DialledValueDoc>> {
        let found = self.panel_still_found().and_then(|panel| shown(slot, panel));
        if let Some(value) = found {
            return Some(DialledValueDoc::of(&value));
        }
        let (_, dialled) = self.dialled.as_ref()?;
        let key = slot.key();
        Some(dialled.values.iter().find(|(k, _)| *k == key).map(|(_, value)| value.clone()))
    }

    /// When the panel was found off, with nothing dialled since.
    pub(crate) fn found_off(&self) -> Option<NaiveDate> {
        self.panel_still_found().filter(|p| p.switch == Switch::Off).map(|p| p.seen_at.date())
    }

    /// How stations were judged on the last round.
    pub(crate) fn judged(&self) -> Vec<(u8, Judgement)> {
        let round = self.round.as_ref().map(|(_, doc)| doc.stations.iter().map(|(n, ground)| (*n, (*ground).into())));
        round.map_or_else(Vec::new, Iterator::collect)
    }

    /// When something was last changed on the panel.
    pub(crate) fn last_change(&self) -> Option<NaiveDate> {
        self.dialled.as_ref().map(|(_, doc)| doc.on)
    }

    /// The day on which the panel was last written down or dialled in.
    pub(crate) fn on_record_since(&self) -> Option<NaiveDate> {
        self.found.as_ref().map(|(_, p)| p.seen_at.date()).max(self.last_change())
    }

    /// The day of the last visit of any kind.
    pub(crate) fn last_visit(&self) -> Option<NaiveDate> {
        let round = self.round.as_ref().map(|(_, d)| d.on);
        [self.on_record_since(), round, self.measured].into_iter().flatten().max()
    }

    /// When to look again: what the newer of the last round and the last dialling says.
    pub(crate) fn look_again(&self) -> Option<NaiveDate> {
        let dialled = self.dialled.as_ref().map(|(r, d)| (r.at, d.look_again));
        let round = self.round.as_ref().map(|(r, d)| (r.at, d.look_again));
        [dialled, round].into_iter().flatten().max_by_key(|(at, _)| *at).map(|(_, day)| day)
    }

    /// What stands beside the controller when one asks why it did not water.
    pub(crate) fn known(&self, context: &ControllerContext, held: Vec<(u16, Option<bool>)>) -> Known {
        let panel = self.panel_still_found();
        let clock_wrong = panel.is_some_and(|p| {
            let situation = context.week_of(p.seen_at.date());
            panel_findings(p, context.controller(), &situation, None).iter().any(|f| f.is_clock())
        });
        Known {
            held,
            found_off: self.found_off(),
            clock_wrong,
            found_bypassed: panel.is_some_and(|p| p.sensor == SensorSwitch::Bypassed),
            not_all_set: panel.is_none() && self.dialled.as_ref().is_some_and(|(_, d)| !d.not_set.is_empty()),
        }
    }
}
