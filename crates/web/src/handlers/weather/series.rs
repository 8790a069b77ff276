use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::loading;
use crate::pages::shell::View;
use crate::pages::weather::{SeriesTemplate, method_words, normal_cells, series_rows, variant_lines};
use crate::show::Measure;
use crate::state::App;

/// A series: its normals, its method, and what its guesses would change.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let weather = loading::weather(&user.account, *id).await?;
    let places = user.account.places_by_series().await?;
    let looking: Vec<_> = places.iter().filter(|(series, ..)| *series == *id).collect();
    let rows = series_rows(&[(weather.series.clone(), weather.revision.clone())], None, |_| Vec::new(), user.units);
    let (cells, year_et0, year_rain) = weather.normals().map(|n| normal_cells(n, user.units)).unwrap_or_default();
    let name = weather.series.value.name.clone();
    let path = format!("/weather/{id}");
    let shell = shell(&app, &user, View::Weather, "weather", name.clone(), &path);
    page(&SeriesTemplate {
        shell,
        name,
        span: rows.first().map_or_else(String::new, |r| r.span.clone()),
        source: weather.revision.source.clone(),
        method: method_words(&weather.revision.method),
        method_name: weather.revision.method.clone(),
        cells,
        et0_unit: Measure::DepthADay.unit(user.units),
        rain_unit: Measure::Depth.unit(user.units),
        year_et0,
        year_rain,
        edit_href: looking
            .first()
            .filter(|_| weather.is_typed())
            .map(|(_, place, _)| format!("/places/{place}/weather/normals")),
        used_by: looking.iter().map(|(.., name)| name.clone()).collect::<Vec<_>>().join(", "),
        variants: variant_lines(&weather, user.units),
    })
}
