//! The last weeks of a controller up to a morning: where the soil of its stations stands, by the one daily balance.

use chrono::{Datelike, NaiveDate, TimeDelta};
use upland_core::climate::sun::sunrise_hours;
use upland_core::controller::{Controller, Temporary, TemporaryKind};
use upland_core::replay::{Recent, Season, SeasonDay, SoilNow, used_without_water};
use upland_core::schedule::{Plan, on_panel};

use super::field::FieldState;
use crate::context::{ControllerContext, WeatherDay};

/// Days of weather before a morning in which root zones reach where they stand.
pub(crate) const BALANCE_DAYS: i64 = 60;
/// A record that ended longer before a morning says nothing about it.
const FRESH_DAYS: i64 = 2;

/// What the balance of a controller is kept from.
#[derive(Debug)]
pub(crate) struct LastWeeks {
    controller: Controller,
    plan: Plan,
    season: Season,
    sunrise_hours: [f64; 12],
}

impl LastWeeks {
    /// The weeks before a morning of a controller as its panel ran it; days from that one on are left out. Nothing
    /// where the record ended before.
    pub(crate) fn of(
        context: &ControllerContext,
        controller: Controller,
        days: &[WeatherDay],
        morning: NaiveDate,
    ) -> Option<Self> {
        let normals = context.normals().ok();
        let first = morning - TimeDelta::days(BALANCE_DAYS);
        let known = days.iter().filter(|d| (first..morning).contains(&d.date));
        let days: Vec<SeasonDay> = known
            // Where rain alone was read by hand the month's normal stands for the day's reference ET.
            .map(|d| SeasonDay {
                et0_mm: d.et0_mm.or_else(|| normals.map(|n| n[d.date.month0() as usize].et0_mm_per_day)),
                ..SeasonDay::from(d)
            })
            .collect();
        let season = Season::of(&days).ok()?;
        season.dates.last().filter(|last| morning - **last <= TimeDelta::days(FRESH_DAYS))?;
        let position = context.at.place.value.place.position;
        let zone = &context.at.zone;
        Some(Self {
            plan: context.situation(morning).plan(&controller),
            sunrise_hours: sunrise_hours(position.latitude_deg(), position.longitude_deg(), zone, morning.year()),
            controller,
            season,
        })
    }

    /// The same, with a panel that was found off and watered nothing from that day on.
    pub(crate) fn off_since(mut self, found_off: Option<NaiveDate>) -> Self {
        if let Some(since) = found_off {
            self.controller.add_temporary(Temporary {
                id: 0,
                kind: TemporaryKind::Off,
                since,
                until: self.last_day(),
                reason: String::new(),
                by: String::new(),
                left_standing: false,
            });
        }
        self
    }

    /// The first and the last day of the weather behind it.
    pub(crate) fn first_day(&self) -> NaiveDate {
        self.season.dates.first().copied().unwrap_or_default()
    }

    pub(crate) fn last_day(&self) -> NaiveDate {
        self.season.dates.last().copied().unwrap_or_default()
    }

    /// What each station has used in the week before the morning, mm by number, were it full at its beginning and not
    /// watered since.
    pub(crate) fn used_in_a_week(&self) -> Vec<(u8, f64)> {
        let last = self.last_day();
        let week = self.season.part([last - TimeDelta::days(6), last]);
        week.map_or_else(Vec::new, |week| used_without_water(&self.controller, &week))
    }

    /// The question to the balance, with sums since a day.
    pub(crate) fn recent<'a>(&'a self, context: &'a ControllerContext, since: NaiveDate) -> Recent<'a> {
        Recent {
            controller: &self.controller,
            plan: &self.plan,
            rules: &context.at.rules,
            season: &self.season,
            sunrise_hours: self.sunrise_hours,
            since,
        }
    }
}

/// Where the soil of the stations of a controller stands on a morning, as its panel ran by what is on record of it;
/// nothing where the weather ended before.
pub(crate) fn soil_this_morning(
    context: &ControllerContext,
    state: &FieldState,
    days: &[WeatherDay],
    morning: NaiveDate,
) -> Vec<SoilNow> {
    let (ran, _) = on_panel(context.controller(), None, state.panel_still_found());
    let weeks = LastWeeks::of(context, ran, days, morning).map(|weeks| weeks.off_since(state.found_off()));
    weeks.map_or_else(Vec::new, |weeks| weeks.recent(context, weeks.first_day()).soil())
}
