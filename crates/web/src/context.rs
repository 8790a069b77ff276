//! A controller with its place and its weather: what the pages of a controller show.

use std::borrow::Cow;
use std::sync::OnceLock;

use chrono::{Datelike, NaiveDate, TimeDelta};
use chrono_tz::Tz;
use upland_core::budget::{YearBudget, year_budget};
use upland_core::climate::blend::Preference;
use upland_core::climate::daily::{DailyWeather, Guesses, Site};
use upland_core::climate::flags::{Flag, flags};
use upland_core::climate::giving_way::{MeasuredMonth, giving_way};
use upland_core::climate::in_words::{Air, ClimateInWords, Warmth};
use upland_core::climate::normals::Normals;
use upland_core::climate::review::{Decision, as_read};
use upland_core::controller::Controller;
use upland_core::in_force::{InForce, in_force};
use upland_core::place::Bound;
use upland_core::schedule::{Plan, Situation};
use upland_core::word::Word as _;
use uuid::Uuid;

// The records that view models show. Everything else of the store stays with loading and saving.
pub(crate) use upland_store::{
    ActionLine, ChangeEntry, ControllerHead, ControllerRecord, DayHours, FieldRecord, FurtherWeather, HoursOnRecord,
    NormalsVariant, Person, PlaceRecord, RecordDay, RevisionSummary, Role, SeriesRecord, SessionRecord, Snooze, TYPED,
    TYPED_CLIMATE, TYPED_TEMPERATURES, Versioned, WaitingUpload, WeatherDay,
};

/// Twelve months that somebody typed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TypedNormals {
    /// Reference ET and rain.
    pub normals: Normals,
    /// From what the reference ET follows.
    pub told: Told,
}

/// From what the reference ET of typed months follows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Told {
    /// It was typed itself.
    Et0,
    /// Mean high and low of each month, °C.
    Temperatures([[f64; 2]; 12]),
    /// A climate in words.
    Climate(ClimateInWords),
}

impl TypedNormals {
    /// From reference ET and rain.
    #[must_use]
    pub const fn of(normals: Normals) -> Self {
        Self { normals, told: Told::Et0 }
    }

    /// The method, by which the figures are marked.
    pub(crate) fn method(&self) -> String {
        match self.told {
            Told::Et0 => TYPED.into(),
            Told::Temperatures(_) => TYPED_TEMPERATURES.into(),
            Told::Climate(c) => format!("{TYPED_CLIMATE}{} {} {}", c.air.word(), c.summer.word(), c.winter.word()),
        }
    }

    /// Mean high and low of each month, °C, where they were typed.
    pub(crate) const fn temperatures(&self) -> Option<[[f64; 2]; 12]> {
        match self.told {
            Told::Temperatures(months) => Some(months),
            Told::Et0 | Told::Climate(_) => None,
        }
    }

    /// Whether the reference ET is a guess, marked as one.
    pub(crate) const fn is_guess(&self) -> bool {
        !matches!(self.told, Told::Et0)
    }

    /// Years after which a month that was measured in each is measured wholly: a published reference ET is the mean of
    /// many, a guess gives way at once. Source: own rule, common practice.
    pub(crate) const fn years(&self) -> u32 {
        if self.is_guess() { 1 } else { 3 }
    }

    /// The normals as they count with the months measured since, and, where some were, as they were typed.
    pub(crate) fn with_measured(&self, measured: &[MeasuredMonth; 12]) -> Vec<NormalsVariant> {
        let normals = giving_way(&self.normals, measured, self.years());
        if normals == self.normals {
            return vec![self.variant()];
        }
        let counts = NormalsVariant { variant: String::new(), normals, temperatures: None };
        vec![counts, NormalsVariant { variant: ENTERED.into(), ..self.variant() }]
    }

    pub(crate) const fn variant(&self) -> NormalsVariant {
        NormalsVariant { variant: String::new(), normals: self.normals, temperatures: self.temperatures() }
    }
}

/// The variant of normals as they were typed, where some months gave way to measured ones.
const ENTERED: &str = "entered";

/// The climate in words that a method names; nothing where it is another method.
pub(crate) fn climate_of_method(method: &str) -> Option<ClimateInWords> {
    let mut words = method.strip_prefix(TYPED_CLIMATE)?.split(' ');
    let mut next = || words.next();
    let (air, summer, winter) = (next()?, next()?, next()?);
    Some(ClimateInWords {
        air: Air::of_word(air).ok()?,
        summer: Warmth::of_word(summer).ok()?,
        winter: Warmth::of_word(winter).ok()?,
    })
}

/// The weather that a place uses.
#[derive(Debug, Clone)]
pub(crate) struct Weather {
    pub(crate) series: Versioned<SeriesRecord>,
    pub(crate) revision: RevisionSummary,
    /// Normals, plain and under each guess; their rain is that of the place.
    pub(crate) variants: Vec<NormalsVariant>,
    /// Stations beside this one, those for the rain first.
    pub(crate) beside: Vec<Beside>,
}

/// Imports in the order in which they are asked, and whether each counts for rain before others or fills gaps.
pub(crate) type Imports = Vec<(Uuid, bool, bool)>;

/// A station that a place looks at beside its first one.
#[derive(Debug, Clone)]
pub(crate) struct Beside {
    pub(crate) series: Versioned<SeriesRecord>,
    pub(crate) revision: RevisionSummary,
    /// Whether its rain counts before any other's.
    pub(crate) for_rain: bool,
    /// Whether it fills gaps.
    pub(crate) for_gaps: bool,
}

impl Weather {
    /// The normals themselves.
    pub(crate) fn normals(&self) -> Option<&Normals> {
        self.variants.iter().find(|v| v.variant.is_empty()).map(|v| &v.normals)
    }

    /// The normals as they were typed, where they were.
    pub(crate) fn typed(&self) -> Option<TypedNormals> {
        let named = |name: &str| self.variants.iter().find(|v| v.variant == name);
        let variant = named(ENTERED).or_else(|| named("")).filter(|_| self.is_typed())?;
        let told = match (climate_of_method(&self.revision.method), variant.temperatures) {
            (Some(climate), _) => Told::Climate(climate),
            (None, Some(months)) => Told::Temperatures(months),
            (None, None) => Told::Et0,
        };
        Some(TypedNormals { normals: variant.normals, told })
    }

    /// Whether typed normals gave way to measured months, in part.
    pub(crate) fn is_giving_way(&self) -> bool {
        self.is_typed() && self.variants.iter().any(|v| v.variant == ENTERED)
    }

    /// Whether the normals were typed by hand. There may be days besides, to which they give way.
    pub(crate) fn is_typed(&self) -> bool {
        self.revision.is_typed()
    }

    /// Whether there are days on record, at this station or one beside it.
    pub(crate) fn has_days(&self) -> bool {
        self.revisions().any(|r| r.day_count > 0)
    }

    /// The last day on record at any of its stations.
    pub(crate) fn last_day(&self) -> Option<NaiveDate> {
        self.revisions().filter_map(|r| r.last_day).max()
    }

    /// The imports that its days are made of, and what each is for: the same imports give the same days.
    pub(crate) fn imports(&self) -> Imports {
        let beside = self.beside.iter().map(|b| (b.revision.id, b.for_rain, b.for_gaps));
        std::iter::once((self.revision.id, false, false)).chain(beside).collect()
    }

    fn revisions(&self) -> impl Iterator<Item = &RevisionSummary> {
        std::iter::once(&self.revision).chain(self.beside.iter().map(|b| &b.revision))
    }

    /// The station whose rain counts, where it is not this one.
    pub(crate) fn rain_station(&self) -> Option<&Beside> {
        self.beside.iter().find(|b| b.for_rain)
    }

    /// The series that rain read at the gauge is entered into.
    pub(crate) fn rain_series(&self) -> Uuid {
        self.rain_station().map_or(self.series.id, |b| b.series.id)
    }

    /// The names of its stations: this one, then those beside it.
    pub(crate) fn stations(&self) -> Vec<&str> {
        let beside = self.beside.iter().map(|b| b.series.value.name.as_str());
        std::iter::once(self.series.value.name.as_str()).chain(beside).collect()
    }

    /// In which order [`Weather::imports`] are asked.
    pub(crate) fn preference(&self) -> Preference {
        let of = |wanted: fn(&Beside) -> bool| {
            self.beside.iter().enumerate().filter(move |(_, b)| wanted(b)).map(|(i, _)| i + 1)
        };
        Preference {
            et0: std::iter::once(0).chain(of(|b| b.for_gaps)).collect(),
            rain: of(|b| b.for_rain).chain([0]).chain(of(|b| b.for_gaps && !b.for_rain)).collect(),
        }
    }
}

/// A record as it is loaded.
#[derive(Debug, Clone)]
pub(crate) struct Record {
    pub(crate) weather: Weather,
    pub(crate) days: Vec<RecordDay>,
    pub(crate) decisions: Vec<Decision>,
}

impl Record {
    /// Its first and its last day; none without days.
    pub(crate) fn span(&self) -> Option<[NaiveDate; 2]> {
        Some([self.days.first()?, self.days.last()?].map(|day| day.weather.date))
    }

    /// The days as they were read.
    pub(crate) fn read(&self) -> Vec<DailyWeather> {
        let days: Vec<DailyWeather> = self.days.iter().map(|d| d.weather).collect();
        as_read(&days, &self.decisions)
    }

    /// The station; none where its position and mast cannot be.
    pub(crate) fn site(&self) -> Option<Site> {
        let series = &self.weather.series.value;
        Site::new(&series.position, series.wind_height_m, Guesses::default()).ok()
    }

    /// The doubtful values that nobody has decided about.
    pub(crate) fn open_flags(&self) -> Vec<Flag> {
        let Some(site) = self.site() else { return Vec::new() };
        let all = flags(&self.read(), &site);
        all.into_iter().filter(|flag| !flag.is_decided(&self.decisions)).collect()
    }
}

/// A record with the hours of its days, from which it can be worked out anew.
#[derive(Debug, Clone)]
pub(crate) struct WholeRecord {
    pub(crate) record: Record,
    pub(crate) hours: HoursOnRecord,
}

/// A place with the weather it uses.
#[derive(Debug, Clone)]
pub(crate) struct PlaceContext {
    pub(crate) place: Versioned<PlaceRecord>,
    pub(crate) zone: Tz,
    /// The place's water rules, its house number looked up.
    pub(crate) rules: Bound,
    pub(crate) weather: Option<Weather>,
}

impl PlaceContext {
    /// A place with its weather, its zone and rules worked out.
    pub(crate) fn new(place: Versioned<PlaceRecord>, weather: Option<Weather>) -> Self {
        let zone = place.value.place.zone;
        let rules = place.value.rules.bind(&place.value.place.house_number);
        Self { place, zone, rules, weather }
    }

    /// Distance from the weather station, km; none for typed normals.
    pub(crate) fn distance_km(&self) -> Option<f64> {
        let weather = self.weather.as_ref().filter(|w| !w.is_typed())?;
        Some(weather.series.value.position.distance_km(&self.place.value.place.position))
    }
}

/// A controller with its place.
#[derive(Debug, Clone)]
pub(crate) struct ControllerContext {
    pub(crate) controller: Versioned<ControllerRecord>,
    pub(crate) at: PlaceContext,
    /// The year's budget, once it was asked for: several parts of a page follow from it.
    budget: OnceLock<Result<YearBudget, Missing>>,
}

/// Why there are no figures yet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Missing {
    /// The place has no weather.
    Weather,
    /// No stations were entered.
    Stations,
}

impl ControllerContext {
    /// A controller at a place, as a day knows it: what is over and was not put back goes on.
    pub(crate) fn of(mut controller: Versioned<ControllerRecord>, at: PlaceContext, today: NaiveDate) -> Self {
        controller.value.controller = controller.value.controller.as_of(today);
        Self::new(controller, at)
    }

    /// A controller at a place, as it is saved.
    pub(crate) const fn new(controller: Versioned<ControllerRecord>, at: PlaceContext) -> Self {
        Self { controller, at, budget: OnceLock::new() }
    }

    /// What is in force on a day; `found_off` is when the panel was last found off, with nothing dialled since.
    pub(crate) fn in_force(&self, found_off: Option<NaiveDate>, day: NaiveDate) -> InForce {
        in_force(self.controller(), &self.plan(), found_off, day)
    }

    pub(crate) fn controller(&self) -> &Controller {
        &self.controller.value.controller
    }

    pub(crate) fn normals(&self) -> Result<&Normals, Missing> {
        self.at.weather.as_ref().and_then(Weather::normals).ok_or(Missing::Weather)
    }

    /// The year's budget.
    pub(crate) fn budget(&self) -> Result<&YearBudget, Missing> {
        let budget = self.budget.get_or_init(|| budget_of(self.controller(), self.normals(), &self.at.rules));
        budget.as_ref().map_err(|missing| *missing)
    }

    /// The budget of the controller as it may become; of what is saved it is not worked out again.
    pub(crate) fn budget_of(&self, controller: &Controller) -> Result<Cow<'_, YearBudget>, Missing> {
        if controller == self.controller() {
            return self.budget().map(Cow::Borrowed);
        }
        budget_of(controller, self.normals(), &self.at.rules).map(Cow::Owned)
    }

    /// The figures on the panel.
    pub(crate) fn plan(&self) -> Plan {
        Plan::of(self.controller(), self.budget().ok())
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
        return Err(Missing::Stations);
    }
    let bound = Controller { capability: rules.limit(controller.capability), ..controller.clone() };
    // A budget lacks nothing but stations.
    year_budget(&bound, normals?).map_err(|_| Missing::Stations)
}
