//! What stood on a panel on a day: as found, as last dialled, or as planned where neither is on record.

use chrono::NaiveDate;

use crate::controller::Controller;
use crate::found::Panel;

/// Where it is known from what a panel held.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stood {
    /// Nobody had dialled it in or written it down: the plan is taken for it.
    Planned,
    /// It was dialled in.
    Dialled {
        /// When.
        on: NaiveDate,
    },
    /// It was written down as it was found.
    Found {
        /// When.
        on: NaiveDate,
    },
}

/// The controller as its panel ran it.
///
/// `planned` is the plan of that day, with what was set for a while and the sensors of that day; `dialled` the plan
/// that was dialled in last before it; `found` the panel as it was found, with nothing dialled since.
#[must_use]
pub fn on_panel(
    planned: &Controller,
    dialled: Option<(NaiveDate, &Controller)>,
    found: Option<&Panel>,
) -> (Controller, Stood) {
    if let Some(panel) = found {
        let own = panel.as_controller(planned);
        let temporaries = planned.temporaries.clone();
        return (Controller { temporaries, ..own }, Stood::Found { on: panel.seen_at.date() });
    }
    let Some((on, then)) = dialled else { return (planned.clone(), Stood::Planned) };
    let own = Controller { temporaries: planned.temporaries.clone(), sensors: planned.sensors.clone(), ..then.clone() };
    (own, Stood::Dialled { on })
}
