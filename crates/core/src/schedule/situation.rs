use chrono::{NaiveDate, TimeDelta, TimeZone};

use super::plan::{Level, Plan};
use super::runs::{Expansion, expand};
use crate::budget::{YearBudget, year_budget};
use crate::climate::normals::Normals;
use crate::controller::{Controller, DayMode};
use crate::place::{Allowed, Bound};

/// What surrounds a controller's schedule.
#[derive(Debug, Clone, Copy)]
pub struct Situation<'a, Tz> {
    /// The rules of the place.
    pub rules: &'a Bound,
    /// The weather's normals, where there are any.
    pub normals: Option<&'a Normals>,
    /// The time zone of the place.
    pub zone: &'a Tz,
    /// First day of the week.
    pub first: NaiveDate,
}

impl<Tz: TimeZone> Situation<'_, Tz> {
    /// The year's budget of a controller under the rules of the place.
    #[must_use]
    pub fn budget(&self, controller: &Controller) -> Option<YearBudget> {
        let bound = Controller { capability: self.rules.limit(controller.capability), ..controller.clone() };
        year_budget(&bound, self.normals?).ok()
    }

    /// The days and hours that hold at the end of the week: a schedule is made for what comes.
    #[must_use]
    pub fn allowed(&self) -> &Allowed {
        self.rules.on(self.first + TimeDelta::days(6))
    }

    /// The figures on the panel of a controller.
    #[must_use]
    pub fn plan(&self, controller: &Controller) -> Plan {
        Plan::of(controller, self.budget(controller).as_ref())
    }

    /// The days that findings look at: the week, or five of them when days go by the date.
    #[must_use]
    pub fn horizon(&self, controller: &Controller) -> [NaiveDate; 2] {
        let by_weekday = controller.programs.iter().all(|p| matches!(p.schedule.days, DayMode::Weekdays(_)));
        [self.first, self.first + TimeDelta::days(if by_weekday { 6 } else { 34 })]
    }

    /// The week's runs.
    #[must_use]
    pub fn week(&self, controller: &Controller, plan: &Plan, level: Level) -> Expansion {
        expand(controller, plan, self.zone, [self.first, self.first + TimeDelta::days(6)], level)
    }
}
