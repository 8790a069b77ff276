//! Series of weather: the list, the choice for a place, one series.

use crate::context::{
    FurtherWeather, PlaceRecord, RevisionSummary, SeriesRecord, TYPED, TYPED_TEMPERATURES, Versioned,
};
use chrono::NaiveDate;
use upland_core::climate::blend::BlendedDay;
use upland_core::quantity::MonthOfYear;
use uuid::Uuid;

use super::Choice;
use super::normals::climate_words;
use super::shell::Shell;
use super::spine::Spine;
use super::waiting::WaitingFile;
use crate::context::{Weather, climate_of_method};
use crate::form::Form;
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
    /// Whether it has normals of its own, so that a place can look at it first.
    pub(crate) can_be_first: bool,
    /// Whether its rain counts before any other's.
    pub(crate) rain: bool,
    /// Where it comes in filling gaps, `1` first; empty where it fills none.
    pub(crate) gaps: String,
    /// The choices of that.
    pub(crate) ranks: Vec<Choice>,
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
    /// Files that were uploaded for the place and not imported yet.
    pub(crate) waiting: Vec<WaitingFile>,
    /// From which station the days on record are, where there are several; a line each.
    pub(crate) shares: Vec<String>,
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
    if let Some(climate) = climate_of_method(method) {
        return w.t1("method-typed-climate", climate_words(&climate));
    }
    if method.is_empty() {
        return w.t("method-none");
    }
    if method.starts_with("hargreaves") {
        return w.t("method-hargreaves");
    }
    match (method.contains("hourly"), method.matches('+').count()) {
        (false, 0) => w.t("method-pm"),
        (false, guesses) => w.count("method-pm-guesses", guesses),
        (true, 0) => w.t("method-hours"),
        (true, guesses) => w.count("method-hours-guesses", guesses),
    }
}

/// Where typed normals come from.
pub(crate) fn typed_source(weather: &Weather) -> String {
    Words.t(if weather.is_giving_way() { "normals-typed-measured" } else { "normals-typed" })
}

/// A record without a day in so many is history: good for normals, not for what a week's watering follows from. So
/// long a logger that is read by hand may wait for its next visit.
const HISTORY_DAYS: i64 = 60;

/// Rows of series; distances are from a place where there is one, and the day is today's there.
pub(crate) fn series_rows(
    series: &[(Versioned<SeriesRecord>, RevisionSummary)],
    from: Option<(&PlaceRecord, NaiveDate)>,
    used_by: impl Fn(Uuid) -> Vec<String>,
    units: Units,
) -> Vec<SeriesRow> {
    let w = Words;
    series
        .iter()
        .map(|(s, r)| {
            let typed = r.is_typed();
            let place = from.map(|(place, _)| place);
            let away = place.filter(|_| !typed).map(|p| {
                (p.place.position.distance_km(&s.value.position), p.place.position.bearing_deg(&s.value.position))
            });
            let km = away.map(|(km, _)| km);
            let ended = r.last_day.zip(from).filter(|(last, (_, today))| (*today - *last).num_days() > HISTORY_DAYS);
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
                distance: away.map_or_else(String::new, |away| away_words(away, units)),
                good_for: match (km, ended) {
                    (None, _) if typed => w.t("good-typed"),
                    (_, Some((last, _))) if r.has_normals => w.t1("good-history", date_long(last)),
                    (_, Some((last, _))) => w.t1("good-ended", date_long(last)),
                    (Some(km), _) if r.method.is_empty() && km <= 2.0 => w.t("good-rain-near"),
                    _ if r.method.is_empty() => w.t("good-rain"),
                    (None, _) => w.t("good-unknown"),
                    (Some(km), _) if km <= 2.0 => w.t("good-near"),
                    (Some(km), _) if km <= 20.0 => w.t("good-far"),
                    (Some(_), _) => w.t("good-very-far"),
                },
                used_by: some_names(&used_by(s.id)),
                chosen: place.is_some_and(|p| p.series_id == Some(s.id)),
                can_be_first: r.has_normals,
                rain: place.is_some_and(|p| p.further.rain.or(p.series_id) == Some(s.id)),
                gaps: place
                    .and_then(|p| p.further.gaps.iter().position(|id| *id == s.id))
                    .map_or_else(String::new, |rank| (rank + 1).to_string()),
                ranks: ranks(),
            }
        })
        .collect()
}

/// `8.2 km NW`; a station on the spot has no direction.
pub(crate) fn away_words((km, bearing): (f64, f64), units: Units) -> String {
    let distance = Measure::Distance.show(km, units);
    if km < 0.05 { distance } else { format!("{distance} {}", compass(bearing)) }
}

/// The nearest of eight points of the compass, in letters.
fn compass(bearing_deg: f64) -> String {
    const POINTS: [&str; 8] =
        ["compass-n", "compass-ne", "compass-e", "compass-se", "compass-s", "compass-sw", "compass-w", "compass-nw"];
    // 0 to 360 divided in eight, each point in the middle of its part.
    Words.t(POINTS[(bearing_deg / 45.0).round() as usize % 8])
}

fn ranks() -> Vec<Choice> {
    let ranks = (1..=FurtherWeather::MOST_GAPS).map(|n| Choice::new(n.to_string(), n.to_string()));
    std::iter::once(Choice::new("", Words.t("place-weather-no-gaps"))).chain(ranks).collect()
}

/// What a form has chosen for a place: the first station, the one for rain, those that fill gaps. Nothing where no
/// station is chosen, or one that is not there.
pub(crate) fn chosen(
    form: &Form,
    place: &PlaceRecord,
    series: &[(Versioned<SeriesRecord>, RevisionSummary)],
) -> Option<PlaceRecord> {
    let known: Vec<Uuid> = series.iter().map(|(s, _)| s.id).collect();
    let read = |field: &str| Uuid::parse_str(form.get(field)).ok().filter(|id| known.contains(id));
    let first = read("series").filter(|id| series.iter().any(|(s, r)| s.id == *id && r.has_normals))?;
    let mut gaps: Vec<(u8, Uuid)> = known
        .iter()
        .filter(|id| **id != first)
        .filter_map(|id| Some((form.get(&format!("gaps_{id}")).parse().ok()?, *id)))
        .collect();
    // Two of one rank stand as they are listed.
    gaps.sort_by_key(|(rank, _)| *rank);
    gaps.truncate(FurtherWeather::MOST_GAPS);
    let further = FurtherWeather {
        rain: read("rain").filter(|id| *id != first),
        gaps: gaps.into_iter().map(|(_, id)| id).collect(),
    };
    Some(PlaceRecord { series_id: Some(first), further, ..place.clone() })
}

/// How many days each station of a place gives, and how many are missing.
pub(crate) fn share_lines(weather: &Weather, days: &[BlendedDay]) -> Vec<String> {
    let w = Words;
    let mut lines: Vec<String> = weather
        .stations()
        .iter()
        .enumerate()
        .map(|(at, name)| {
            let et0 = days.iter().filter(|d| d.et0_from == Some(at)).count();
            let rain = days.iter().filter(|d| d.rain_from == Some(at)).count();
            w.t2("place-weather-share", ("name", name), ("days", day_counts(et0, rain)))
        })
        .collect();
    let without = |from: fn(&BlendedDay) -> Option<usize>| days.iter().filter(|d| from(d).is_none()).count();
    let (et0, rain) = (without(|d| d.et0_from), without(|d| d.rain_from));
    if et0 + rain > 0 {
        lines.push(w.t1("place-weather-missing", day_counts(et0, rain)));
    }
    lines
}

/// Days with reference ET and days with rain; of what there is none of, nothing is said.
fn day_counts(et0: usize, rain: usize) -> String {
    let counts = [("place-weather-et0-days", et0), ("place-weather-rain-days", rain)];
    let said: Vec<String> = counts.into_iter().filter(|(_, n)| *n > 0).map(|(key, n)| Words.count(key, n)).collect();
    if said.is_empty() { Words.t("place-weather-no-day") } else { said.join(", ") }
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
                    ("one", &figure(a?)),
                    ("other", &figure(b?)),
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
    if more == 0 { first } else { Words.t2("names-and-more", ("names", first), ("more", more.to_string())) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_gauge_is_not_said_to_have_reference_et() {
        assert_eq!(day_counts(0, 154), "rain of 154 days");
        assert_eq!(day_counts(1, 0), "reference ET of one day");
        assert_eq!(day_counts(720, 717), "reference ET of 720 days, rain of 717 days");
        assert_eq!(day_counts(0, 0), "no day");
    }
}
