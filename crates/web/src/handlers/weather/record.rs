//! The page of a series, as it is shown and as it comes back with an error.

use std::collections::BTreeMap;

use chrono::NaiveDate;
use chrono_tz::Tz;
use upland_core::schedule::{Level, expand};
use upland_store::HeadFilter;
use uuid::Uuid;

use crate::apart::apart;
use crate::context::{ControllerContext, Record};
use crate::error::PageError;
use crate::form::{Form, new_key};
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::loading;
use crate::pages::Choice;
use crate::pages::series::{Period, RecordView, Scheduled, SeriesTemplate, fill_station, where_is};
use crate::pages::shell::View;
use crate::pages::weather::{method_words, series_rows, variant_lines};
use crate::show::Measure;
use crate::state::App;

/// A schedule of today says nothing about a record that ended long ago.
const FRESH_DAYS: i64 = 45;
/// Controllers that can be chosen from.
const MOST_CONTROLLERS: i64 = 200;

pub(super) async fn series_page(
    app: &App,
    user: &SignedIn,
    record: Record,
    mut form: Form,
) -> Result<SeriesTemplate, PageError> {
    let id = record.weather.series.id;
    let units = user.units;
    let today = app.clock.today(Tz::UTC);
    let base = format!("/weather/{id}");
    let places = user.account.places_by_series().await?;
    let looking: Vec<_> = places.iter().filter(|(series, ..)| *series == id).collect();
    let place_ids: Vec<Uuid> = looking.iter().map(|(_, place, _)| *place).collect();
    let (scheduled, controllers, stations) = match record
        .span()
        .filter(|[_, last]| (today - *last).num_days() <= FRESH_DAYS)
    {
        Some([from, to]) => scheduled(app, user, &place_ids, &mut form, Period::last_days(Period { from, to })).await?,
        None => (None, Vec::new(), Vec::new()),
    };
    if !form.has("reading_date") {
        form.set("reading_date", today.to_string());
    }
    if form.get("action").is_empty() {
        form.set("action", new_key());
    }
    let station_open = form.has("name");
    fill_station(&mut form, &record.weather.series.value, units);
    let typed = record.weather.is_typed();
    let weather = record.weather.clone();
    let looked_at = base.clone();
    let (form, mut view) = apart(move || {
        let view = RecordView::of(&record, &form, &looked_at, today, scheduled.as_ref(), units);
        (form, view)
    })
    .await?;
    if let Some(recent) = &mut view.recent {
        (recent.controllers, recent.stations) = (controllers, stations);
    }
    let row = series_rows(&[(weather.series.clone(), weather.revision.clone())], None, |_| Vec::new(), units);
    let name = weather.series.value.name.clone();
    let own_place = looking.first().map(|(_, place, _)| *place);
    Ok(SeriesTemplate {
        shell: shell(app, user, View::Weather, "weather", name.clone(), &base),
        form,
        version: weather.series.version,
        span: row.into_iter().next().map_or_else(String::new, |r| r.span),
        used_by: looking.iter().map(|(.., name)| name.clone()).collect::<Vec<_>>().join(", "),
        where_is: if typed { String::new() } else { where_is(&weather, units) },
        method: method_words(&weather.revision.method),
        method_name: weather.revision.method.clone(),
        source: weather.revision.source.clone(),
        edit_href: own_place.filter(|_| typed).map(|place| format!("/places/{place}/weather/normals")),
        import_href: own_place.filter(|_| !typed).map(|place| format!("/places/{place}/weather")),
        variants: variant_lines(&weather, units),
        depth_unit: Measure::Depth.unit(units),
        height_unit: Measure::Height.unit(units),
        station_open,
        base,
        name,
        view,
    })
}

type Chosen = (Option<Scheduled>, Vec<Choice>, Vec<Choice>);

/// What the schedule of the chosen station, or the first, gives on the days of a period; and the controllers
/// and stations to choose from.
async fn scheduled(
    app: &App,
    user: &SignedIn,
    places: &[Uuid],
    form: &mut Form,
    period: Period,
) -> Result<Chosen, PageError> {
    let filter = HeadFilter { places: Some(places.to_vec()), most: Some(MOST_CONTROLLERS), ..HeadFilter::default() };
    let heads = user.account.heads(&filter).await?.items;
    let chosen = form.get("controller").parse::<Uuid>().ok();
    let Some(head) = heads.iter().find(|h| Some(h.id) == chosen).or_else(|| heads.first()) else {
        return Ok((None, Vec::new(), Vec::new()));
    };
    form.set("controller", head.id.to_string());
    let controllers = heads.iter().map(|h| Choice::new(h.id.to_string(), &h.name)).collect();
    let context = loading::controller(&user.account, app.clock, head.id).await?;
    let c = context.controller();
    let chosen = form.get("station").parse::<u8>().ok();
    let Some(station) = c.stations.iter().find(|s| Some(s.number) == chosen).or_else(|| c.stations.first()) else {
        return Ok((None, controllers, Vec::new()));
    };
    form.set("station", station.number.to_string());
    let stations =
        c.stations.iter().map(|s| Choice::new(s.number.to_string(), format!("{} {}", s.number, s.name))).collect();
    let mm = given(&context, station.number, period);
    Ok((Some(Scheduled { station: station.name.clone(), mm }), controllers, stations))
}

/// Net depth by local day of a station under the schedule as it stands, mm.
fn given(context: &ControllerContext, station: u8, period: Period) -> BTreeMap<NaiveDate, f64> {
    let c = context.controller();
    let plan = context.plan();
    let runs = expand(c, &plan, &context.at.zone, [period.from, period.to], Level::Calendar).runs;
    let mut days = BTreeMap::new();
    if let Some(of) = plan.station(station) {
        for run in runs.iter().filter(|run| run.station == station) {
            let day = run.start().with_timezone(&context.at.zone).date_naive();
            *days.entry(day).or_default() += of.net_mm(run.length);
        }
    }
    days
}
