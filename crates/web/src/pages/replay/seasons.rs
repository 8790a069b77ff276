//! The replays behind a page: what is tried, the present, and the usual strategies beside them.

use chrono::NaiveDate;
use upland_core::climate::sun::sunrise_hours;
use upland_core::controller::Controller;
use upland_core::found::Panel;
use upland_core::replay::{
    BestInput, Candidate, Found, Ground, Keep, Kind, Progress, REFILL_SHARE, Replayed, Season, SeasonDay, Way,
    WholeTotals, peak_et0, replay,
};
use upland_core::schedule::Plan;

use super::asked::Asked;
use crate::context::{ControllerContext, WeatherDay};

/// Days that are replayed before a period and not counted: root zones reach where they stand in weeks.
const LEAD_DAYS: i64 = 90;

/// Everything that a replay asks of a controller.
#[derive(Debug)]
pub(crate) struct Field<'a> {
    pub(crate) context: &'a ControllerContext,
    /// The controller without what is set for a while, which belongs to its own dates.
    pub(crate) controller: Controller,
    pub(crate) plan: Plan,
    pub(crate) ground: Ground,
    pub(crate) found: Option<Found>,
    pub(crate) whole: Season,
    sunrise: [f64; 12],
    first: NaiveDate,
}

/// A controller under one strategy in one period.
#[derive(Debug)]
pub(crate) struct Run {
    pub(crate) replayed: Replayed,
    pub(crate) totals: WholeTotals,
}

impl<'a> Field<'a> {
    /// Nothing where there is no weather by the day.
    pub(crate) fn of(context: &'a ControllerContext, days: &[WeatherDay], panel: Option<&Panel>) -> Option<Self> {
        let days: Vec<SeasonDay> = days.iter().map(SeasonDay::from).collect();
        let whole = Season::of(&days).ok()?;
        let first = *whole.dates.first()?;
        let mut controller = context.controller().clone();
        controller.temporaries.clear();
        let position = context.at.place.value.place.position;
        let year = chrono::Datelike::year(&first);
        Some(Self {
            plan: context.situation(first).plan(&controller),
            ground: Ground::of(&controller),
            found: panel.map(|p| Found::of(p, &controller)),
            sunrise: sunrise_hours(position.latitude_deg(), position.longitude_deg(), &context.at.zone, year),
            controller,
            context,
            whole,
            first,
        })
    }

    /// The period of a question, with the days that lead up to it.
    pub(crate) fn season(&self, span: [NaiveDate; 2]) -> Option<Season> {
        self.whole.part_with_lead(span, LEAD_DAYS)
    }

    fn candidate<'b>(&'b self, controller: &'b Controller, plan: &'b Plan) -> Candidate<'b> {
        Candidate {
            controller,
            plan,
            ground: &self.ground,
            found: self.found.clone(),
            rules: &self.context.at.rules,
            peak_et0_mm_per_day: self.context.normals().map_or(1.0, peak_et0),
            sunrise_hours: self.sunrise,
            refill_share: REFILL_SHARE,
        }
    }

    fn run(&self, replayed: Replayed, asked: &Asked) -> Run {
        let own = self.controller.stations.iter().filter(|s| asked.letters.contains(&s.program));
        let numbers: Vec<u8> = own.map(|s| s.number).collect();
        let totals = replayed.totals(Some(&numbers));
        Run { replayed, totals }
    }

    /// One of the usual strategies.
    pub(crate) fn usual(&self, kind: Kind, season: &Season, asked: &Asked) -> Run {
        let candidate = Candidate { refill_share: asked.refill_share, ..self.candidate(&self.controller, &self.plan) };
        let keep = if kind == Kind::AsFound { Keep::Station(asked.station) } else { Keep::Sums };
        let rules = &self.context.at.rules;
        self.run(replay(&self.ground, season, rules, candidate.strategy(kind).as_mut(), keep), asked)
    }

    /// A station as it is planned under all its sensors, and without one of them.
    pub(crate) fn with_and_without(&self, season: &Season, sensor: u16, station: u8) -> [Replayed; 2] {
        let mut without = self.controller.clone();
        without.sensors.retain(|s| s.id != sensor);
        let rules = &self.context.at.rules;
        [&self.controller, &without].map(|controller| {
            let candidate = self.candidate(controller, &self.plan);
            replay(&self.ground, season, rules, &mut candidate.planned(), Keep::Station(station))
        })
    }

    /// A usual strategy of every station, or the plan as it stands.
    pub(crate) fn whole_of(&self, kind: Option<Kind>, season: &Season) -> Replayed {
        let candidate = self.candidate(&self.controller, &self.plan);
        let rules = &self.context.at.rules;
        match kind {
            Some(kind) => replay(&self.ground, season, rules, candidate.strategy(kind).as_mut(), Keep::Sums),
            None => replay(&self.ground, season, rules, &mut candidate.planned(), Keep::Sums),
        }
    }

    /// The controller with what is tried, and its figures.
    pub(crate) fn tried_controller(&self, asked: &Asked) -> (Controller, Plan) {
        let rules = &self.context.at.rules;
        let controller = asked.what_if.applied(&self.controller, &self.plan, rules, &asked.letters);
        let plan = self.context.situation(self.first).plan(&controller);
        (controller, plan)
    }

    /// What is tried, with the days of the station that is asked about.
    pub(crate) fn tried(&self, season: &Season, asked: &Asked, tried: (&Controller, &Plan)) -> Run {
        self.trial(season, asked, tried, Keep::Station(asked.station))
    }

    /// The same without any days.
    pub(crate) fn tried_sums(&self, season: &Season, asked: &Asked, tried: (&Controller, &Plan)) -> WholeTotals {
        self.trial(season, asked, tried, Keep::Sums).totals
    }

    fn trial(&self, season: &Season, asked: &Asked, (controller, plan): (&Controller, &Plan), keep: Keep) -> Run {
        let candidate = self.candidate(controller, plan);
        let rules = &self.context.at.rules;
        self.run(replay(&self.ground, season, rules, &mut candidate.planned(), keep), asked)
    }

    /// Another schedule for the same stations: its sums over a season, of some stations or of all.
    pub(crate) fn of_schedule(&self, season: &Season, controller: &Controller, only: Option<&[u8]>) -> WholeTotals {
        let controller = Controller { temporaries: Vec::new(), ..controller.clone() };
        let plan = self.context.situation(self.first).plan(&controller);
        let ground = Ground::of(&controller);
        let candidate = Candidate { ground: &ground, ..self.candidate(&controller, &plan) };
        let rules = &self.context.at.rules;
        replay(&ground, season, rules, &mut candidate.planned(), Keep::Sums).totals(only)
    }

    /// A way to water at work in a controller that was made for it: its sums over a season, of some stations.
    pub(crate) fn of_way(&self, season: &Season, way: Way, controller: &Controller, only: &[u8]) -> WholeTotals {
        let controller = Controller { temporaries: Vec::new(), ..controller.clone() };
        let plan = self.context.situation(self.first).plan(&controller);
        let candidate = self.candidate(&controller, &plan);
        let rules = &self.context.at.rules;
        replay(&self.ground, season, rules, way.strategy(&candidate).as_mut(), Keep::Sums).totals(Some(only))
    }

    /// What is tried, and the present.
    pub(crate) fn pair(&self, season: &Season, asked: &Asked) -> [Replayed; 2] {
        let (controller, plan) = self.tried_controller(asked);
        [self.tried(season, asked, (&controller, &plan)).replayed, self.usual(Kind::AsFound, season, asked).replayed]
    }

    /// What a search for the best setting is given.
    pub(crate) fn search<'b>(
        &'b self,
        season: &'b Season,
        asked: &'b Asked,
        rain: &'b [upland_core::sensor::RainSetting],
        progress: &'b Progress,
    ) -> BestInput<'b> {
        BestInput {
            controller: &self.controller,
            letters: &asked.letters,
            season,
            normals: self.context.normals().ok(),
            rules: &self.context.at.rules,
            rain,
            adequacy: asked.enough,
            sunrise_hours: self.sunrise,
            progress: Some(progress),
        }
    }
}
