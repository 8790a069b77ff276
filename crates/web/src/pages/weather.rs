//! Series of weather: the list, the choice for a place, one series.

use crate::context::{RevisionSummary, SeriesRecord, TYPED, TYPED_TEMPERATURES, Versioned};
use upland_core::place::Position;
use upland_core::quantity::MonthOfYear;
use uuid::Uuid;

use super::shell::Shell;
use super::spine::Spine;
use crate::context::Weather;
use crate::show::{Measure, Units, date_long, month_long, number};
use crate::words::Words;

/// A series as a list shows it.
#[derive(Debug, Clone)]
pub(crate) struct SeriesRow {
    pub(crate) id: String,
    pub(crate) href: String,
    pub(crate) name: String,
    pub(crate) span: String,
    pub(crate) method: String,
    pub(crate) distance: String,
    pub(crate) good_for: String,
    pub(crate) used_by: String,
    pub(crate) chosen: bool,
}

#[derive(askama::Template)]
#[template(path = "weather.html")]
pub(crate) struct WeatherTemplate {
    pub(crate) shell: Shell,
    pub(crate) rows: Vec<SeriesRow>,
}

/// The weather of a place: which series it looks at, and two ways to get one.
#[derive(askama::Template)]
#[template(path = "place_weather.html")]
pub(crate) struct PlaceWeatherTemplate {
    pub(crate) shell: Shell,
    pub(crate) rows: Vec<SeriesRow>,
    pub(crate) place: String,
    pub(crate) place_id: String,
    pub(crate) version: i32,
    pub(crate) action: String,
    pub(crate) post_to: String,
    pub(crate) file_error: String,
    pub(crate) normals_href: String,
    pub(crate) controllers: Vec<super::places::ControllerLink>,
    pub(crate) spine: Option<Spine>,
    pub(crate) most_bytes: usize,
}

/// A method's name in words.
pub(crate) fn method_words(method: &str) -> String {
    let w = Words;
    if method == TYPED {
        return w.t("method-typed");
    }
    if method == TYPED_TEMPERATURES {
        return w.t("method-typed-temperatures");
    }
    if method.starts_with("hargreaves") {
        return w.t("method-hargreaves");
    }
    let guesses = method.matches('+').count();
    if guesses == 0 { w.t("method-pm") } else { w.count("method-pm-guesses", guesses) }
}

/// Rows of series; distances are from a place where there is one.
pub(crate) fn series_rows(
    series: &[(Versioned<SeriesRecord>, RevisionSummary)],
    from: Option<(&Position, Option<Uuid>)>,
    used_by: impl Fn(Uuid) -> Vec<String>,
    units: Units,
) -> Vec<SeriesRow> {
    let w = Words;
    series
        .iter()
        .map(|(s, r)| {
            let typed = r.is_typed();
            let km = from.filter(|_| !typed).map(|(p, _)| p.distance_km(&s.value.position));
            SeriesRow {
                id: s.id.to_string(),
                href: format!("/weather/{}", s.id),
                name: s.value.name.clone(),
                span: match (r.first_day, r.last_day) {
                    (Some(a), Some(b)) => w.with(
                        "series-span",
                        &[("from", &date_long(a)), ("to", &date_long(b)), ("days", &number(f64::from(r.day_count), 0))],
                    ),
                    _ => w.t("series-typed"),
                },
                method: method_words(&r.method),
                distance: km.map_or_else(String::new, |km| Measure::Distance.show(km, units)),
                good_for: w.t(match km {
                    None if typed => "good-typed",
                    None => "good-unknown",
                    Some(km) if km <= 2.0 => "good-near",
                    Some(km) if km <= 20.0 => "good-far",
                    Some(_) => "good-very-far",
                }),
                used_by: some_names(&used_by(s.id)),
                chosen: from.is_some_and(|(_, chosen)| chosen == Some(s.id)),
            }
        })
        .collect()
}

/// What each guess of a series would do to its July, or whatever its peak is.
pub(crate) fn variant_lines(weather: &Weather, units: Units) -> Vec<(String, String)> {
    let w = Words;
    let Some(normals) = weather.normals() else { return Vec::new() };
    let peak = MonthOfYear::ALL
        .into_iter()
        .max_by(|a, b| normals[a.index()].et0_mm_per_day.total_cmp(&normals[b.index()].et0_mm_per_day));
    let Some(peak) = peak else { return Vec::new() };
    crate::intake::WEATHER_GUESSES
        .iter()
        .filter_map(|guess| {
            let under = |value: f64| {
                weather
                    .variants
                    .iter()
                    .find(|v| v.variant == guess.variant(value))
                    .map(|v| v.normals[peak.index()].et0_mm_per_day)
            };
            let [a, b] = guess.tried.map(under);
            let question = w.t(match guess.key {
                "wind" => "if-wind",
                "sun" => "if-sun",
                _ => "if-humidity",
            });
            let figure = |mm: f64| Measure::DepthADay.figure(mm, units);
            let answer = w.with(
                "series-if",
                &[
                    ("month", &month_long(peak)),
                    ("a", &figure(a?)),
                    ("b", &figure(b?)),
                    ("now", &figure(normals[peak.index()].et0_mm_per_day)),
                ],
            );
            Some((question, answer))
        })
        .collect()
}

/// The first of many names, and how many more there are.
fn some_names(names: &[String]) -> String {
    const MOST: usize = 4;
    let more = names.len().saturating_sub(MOST);
    let first = names.iter().take(MOST).cloned().collect::<Vec<_>>().join(", ");
    if more == 0 { first } else { Words.t2("names-and-more", first, more.to_string()) }
}
