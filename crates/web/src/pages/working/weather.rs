use chrono::Datelike;
use upland_core::budget::{Group, MonthBudget, percent_if};
use upland_core::controller::Controller;
use upland_core::landscape::Provenance;
use upland_core::quantity::MonthOfYear;

use super::{Prov, prov};
use crate::context::{PlaceContext, TypedNormals, Weather};
use crate::intake::WEATHER_GUESSES;
use crate::pages::weather::{method_words, typed_source};
use crate::show::{Measure, Units, dial_figure, number};
use crate::words::Words;

/// Where the weather of a figure comes from.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Provenances<'a> {
    pub(crate) context: &'a PlaceContext,
    pub(crate) weather: &'a Weather,
}

impl<'a> Provenances<'a> {
    pub(crate) fn of(context: &'a PlaceContext) -> Option<Self> {
        context.weather.as_ref().map(|weather| Self { context, weather })
    }

    /// Rows for reference ET and what it was made from, in a month.
    pub(crate) fn rows(&self, month: MonthOfYear, units: Units) -> Vec<Prov> {
        let w = Words;
        let Some(normal) = self.weather.normals().map(|n| n[month.index()]) else { return Vec::new() };
        let et0 = Measure::DepthADay.show(normal.et0_mm_per_day, units);
        let rain = normal.rain_mm.map_or_else(|| w.t("not-there"), |r| Measure::Depth.show(r, units));
        if self.weather.is_typed() {
            // Worked out from highs and lows alone it is a guess; as printed in a summary it is a table's.
            let typed = self.weather.typed();
            let source = typed_source(self.weather);
            let (how, note) = match typed.filter(TypedNormals::is_guess) {
                Some(_) => (Provenance::Guessed, method_words(&self.weather.revision.method)),
                None => (Provenance::Table, source.clone()),
            };
            return vec![prov("input-et0", et0, how, note), prov("input-rain", rain, Provenance::Table, source)];
        }
        let method = &self.weather.revision.method;
        let hargreaves = method.starts_with("hargreaves");
        let years = self.years();
        let off = self
            .context
            .distance_km()
            .map_or_else(String::new, |km| w.t1("weather-off", Measure::Distance.show(km, units)));
        let mut rows = vec![prov("input-et0", et0, Provenance::Measured, format!("{off}, {years}{}", self.gaps()))];
        if hargreaves {
            rows.push(prov("input-others", String::new(), Provenance::Guessed, w.t("hargreaves-note")));
        } else {
            for (flag, name, value, note) in [
                ("wind-assumed", "input-wind", Measure::Wind.show(2.0, units), "wind-note"),
                ("sun-from-range", "input-sun", "k 0.16".to_owned(), "sun-note"),
                ("humidity-from-tmin", "input-humidity", String::new(), "humidity-note"),
            ] {
                if method.contains(flag) {
                    rows.push(prov(name, value, Provenance::Guessed, w.t(note)));
                } else {
                    rows.push(prov(name, String::new(), Provenance::Measured, off.clone()));
                }
            }
        }
        let rain_how = if normal.rain_mm.is_some() { Provenance::Measured } else { Provenance::Guessed };
        let near_enough = |km: f64| if km > 2.0 { "rain-far-note" } else { "rain-note" };
        let rain_note = match self.weather.rain_station() {
            _ if normal.rain_mm.is_none() => w.t("rain-none-note"),
            Some(station) => {
                let km = self.context.place.value.place.position.distance_km(&station.series.value.position);
                format!("{}; {}", w.t1("rain-from-note", &station.series.value.name), w.t(near_enough(km)))
            }
            None => w.t(near_enough(self.context.distance_km().unwrap_or(0.0))),
        };
        rows.push(prov("input-rain", rain, rain_how, rain_note));
        rows
    }

    /// `; gaps from Valley airfield`; nothing where no station fills them.
    fn gaps(&self) -> String {
        let stations = self.weather.beside.iter().filter(|b| b.for_gaps);
        let names: Vec<&str> = stations.map(|b| b.series.value.name.as_str()).collect();
        if names.is_empty() { String::new() } else { format!("; {}", Words.t1("gaps-from-note", names.join(", "))) }
    }

    fn years(&self) -> String {
        let r = &self.weather.revision;
        match (r.first_day, r.last_day) {
            (Some(first), Some(last)) if first.year() != last.year() => format!("{}–{}", first.year(), last.year()),
            (Some(first), _) => first.year().to_string(),
            _ => String::new(),
        }
    }

    /// One line a guess: what the percent would be under its other values.
    pub(super) fn percent_what_ifs(&self, controller: &Controller, group: &Group, month: &MonthBudget) -> Vec<String> {
        let w = Words;
        let Some(letter) = group.letters.first() else { return Vec::new() };
        let mut lines = Vec::new();
        for guess in &WEATHER_GUESSES {
            let under = |value: f64| {
                let variant = self.weather.variants.iter().find(|v| v.variant == guess.variant(value))?;
                percent_if(controller, &variant.normals, *letter, month.month)
            };
            let [Some((a, dial_a)), Some((b, dial_b))] = guess.tried.map(under) else { continue };
            let question = w.t(match guess.key {
                "wind" => "if-wind",
                "sun" => "if-sun",
                _ => "if-humidity",
            });
            let answer = w.t2("if-percents", ("low", number(a, 1)), ("high", number(b, 1)));
            let verdict = if dial_a == month.called && dial_b == month.called {
                w.t1("if-still", dial_figure(month.called))
            } else {
                w.t2("if-changes", ("low", dial_figure(dial_a)), ("high", dial_figure(dial_b)))
            };
            lines.push(format!("{question} {answer} {verdict}"));
        }
        lines
    }
}
