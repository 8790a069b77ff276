//! A controller with its place and its weather: what the steps of a controller look at.

use chrono::{Datelike, NaiveDate, TimeDelta};
use chrono_tz::Tz;
use upland_core::budget::{BudgetError, YearBudget, year_budget};
use upland_core::climate::normals::Normals;
use upland_core::controller::Controller;
use upland_core::place::Bound;
use upland_core::schedule::Situation;
use upland_store::{
    Account, ControllerRecord, NormalsVariant, PlaceRecord, RevisionSummary, SeriesRecord, StoreError, Versioned,
};
use uuid::Uuid;

/// The weather that a place looks at.
#[derive(Debug, Clone)]
pub(crate) struct Weather {
    pub(crate) series: Versioned<SeriesRecord>,
    pub(crate) revision: RevisionSummary,
    pub(crate) variants: Vec<NormalsVariant>,
}

impl Weather {
    pub(crate) async fn load(account: &Account, series_id: Uuid) -> Result<Self, StoreError> {
        let (series, revision) = account.series(series_id).await?;
        Ok(Self { series, revision, variants: account.normals(series_id).await? })
    }

    /// The normals themselves.
    pub(crate) fn normals(&self) -> Option<&Normals> {
        self.variants.iter().find(|v| v.variant.is_empty()).map(|v| &v.normals)
    }

    /// Whether the normals were typed by hand.
    pub(crate) fn is_typed(&self) -> bool {
        self.revision.day_count == 0
    }
}

/// A place with the weather it looks at.
#[derive(Debug, Clone)]
pub(crate) struct PlaceDesk {
    pub(crate) place: Versioned<PlaceRecord>,
    pub(crate) zone: Tz,
    /// The place's water rules, its house number looked up.
    pub(crate) rules: Bound,
    pub(crate) weather: Option<Weather>,
}

impl PlaceDesk {
    pub(crate) async fn load(account: &Account, place_id: Uuid) -> Result<Self, StoreError> {
        Self::of(account, account.place(place_id).await?).await
    }

    /// The desk of a place that is at hand already.
    pub(crate) async fn of(account: &Account, place: Versioned<PlaceRecord>) -> Result<Self, StoreError> {
        let weather = match place.value.series_id {
            Some(id) => Some(Weather::load(account, id).await?),
            None => None,
        };
        let zone = zone_of(&place.value);
        let rules = place.value.rules.bind(&place.value.house_number);
        Ok(Self { place, zone, rules, weather })
    }

    /// Distance from the weather station, km; none for typed normals.
    pub(crate) fn distance_km(&self) -> Option<f64> {
        let weather = self.weather.as_ref().filter(|w| !w.is_typed())?;
        Some(weather.series.value.position.distance_km(&self.place.value.position))
    }
}

/// The time zone of a place; a name that is not known any more counts as UTC.
pub(crate) fn zone_of(place: &PlaceRecord) -> Tz {
    place.time_zone.parse().unwrap_or(Tz::UTC)
}

/// A controller's desk.
#[derive(Debug, Clone)]
pub(crate) struct Desk {
    pub(crate) controller: Versioned<ControllerRecord>,
    pub(crate) at: PlaceDesk,
}

/// Why there are no figures yet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Missing {
    /// The place looks at no weather.
    Weather,
    /// The budget has nothing to take a share of.
    Budget(BudgetError),
}

impl Desk {
    pub(crate) async fn load(account: &Account, controller_id: Uuid) -> Result<Self, StoreError> {
        let controller = account.controller(controller_id).await?;
        let at = PlaceDesk::load(account, controller.value.place_id).await?;
        Ok(Self { controller, at })
    }

    pub(crate) fn controller(&self) -> &Controller {
        &self.controller.value.controller
    }

    pub(crate) fn normals(&self) -> Result<&Normals, Missing> {
        self.at.weather.as_ref().and_then(Weather::normals).ok_or(Missing::Weather)
    }

    pub(crate) fn budget(&self) -> Result<YearBudget, Missing> {
        budget_of(self.controller(), self.normals(), &self.at.rules)
    }

    /// What surrounds the controller in the week that a day falls in.
    pub(crate) fn week_of(&self, day: NaiveDate) -> Situation<'_, Tz> {
        self.situation(monday(day))
    }

    /// What surrounds the controller in the week from a day on.
    pub(crate) fn situation(&self, first: NaiveDate) -> Situation<'_, Tz> {
        Situation { rules: &self.at.rules, normals: self.normals().ok(), zone: &self.at.zone, first }
    }
}

/// Every place of a company, and every controller with its place.
pub(crate) async fn all_desks(account: &Account) -> Result<(Vec<PlaceDesk>, Vec<Desk>), StoreError> {
    let mut places = Vec::new();
    for place in account.places().await? {
        places.push(PlaceDesk::of(account, place).await?);
    }
    let mut desks = Vec::new();
    for controller in account.controllers().await? {
        if let Some(at) = places.iter().find(|p| p.place.id == controller.value.place_id) {
            desks.push(Desk { controller, at: at.clone() });
        }
    }
    Ok((places, desks))
}

/// The Monday of a day's week.
pub(crate) fn monday(day: NaiveDate) -> NaiveDate {
    day - TimeDelta::days(i64::from(day.weekday().num_days_from_monday()))
}

/// The budget of a controller that may not be saved yet, under the rules of its place.
pub(crate) fn budget_of(
    controller: &Controller,
    normals: Result<&Normals, Missing>,
    rules: &Bound,
) -> Result<YearBudget, Missing> {
    if controller.stations.is_empty() {
        return Err(Missing::Budget(BudgetError::NoStations));
    }
    let bound = Controller { capability: rules.limit(controller.capability), ..controller.clone() };
    year_budget(&bound, normals?).map_err(Missing::Budget)
}
