use actix_web::web;
use upland_formats::weather::Table;
use upland_store::{PlaceRecord, Versioned};
use uuid::Uuid;

use crate::apart::apart;
use crate::error::{Page, PageError};
use crate::form::{Form, new_key};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::shell::View;
use crate::pages::weather_file::{FilePreview, WeatherFileTemplate, column_rows, guess, preview, roles};
use crate::show::{Measure, number};
use crate::state::App;
use crate::words::Words;

/// The preview of an uploaded file.
pub(super) struct Sent {
    pub(super) name: String,
    pub(super) bytes: Vec<u8>,
    pub(super) table: Table,
}

pub(super) async fn sent(user: &SignedIn, id: Uuid) -> Result<Sent, PageError> {
    let (name, bytes) = user.account.upload(id).await?;
    let parsed = apart(move || Table::parse(&bytes).map(|table| (bytes, table))).await?;
    let (bytes, table) = parsed.map_err(|e| PageError::Ours(Box::new(e)))?;
    Ok(Sent { name, bytes, table })
}

/// The page with columns read by their names, and the place's position for the station's.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, path: web::Path<(Uuid, Uuid)>) -> Page {
    let (place, file) = path.into_inner();
    let place = user.account.place(place).await?;
    let sent = sent(&user, file).await?;
    let mut form = Form::default();
    form.set("action", new_key());
    form.set("version", place.version.to_string());
    form.set("name", sent.name.rsplit_once('.').map_or(sent.name.as_str(), |(n, _)| n).replace(['_', '-'], " "));
    let p = &place.value.position;
    form.set("latitude", p.latitude_deg().to_string());
    form.set("longitude", p.longitude_deg().to_string());
    form.set("elevation", Measure::Height.typed(p.elevation_m(), user.units));
    form.set("wind_height", Measure::Height.typed(2.0, user.units));
    guess(&mut form, &sent.table);
    let (view, _) = preview(&mut form, &sent.table, user.units);
    page(&file_page(&app, &user, &place, file, &sent, form, view).await?)
}

/// The page after columns or units were chosen by hand.
pub(crate) async fn review(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    Posted(mut form): Posted,
) -> Page {
    let (place, file) = path.into_inner();
    let place = user.account.place(place).await?;
    let sent = sent(&user, file).await?;
    let (view, _) = preview(&mut form, &sent.table, user.units);
    page(&file_page(&app, &user, &place, file, &sent, form, view).await?)
}

pub(super) async fn file_page(
    app: &App,
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
    file: Uuid,
    sent: &Sent,
    form: Form,
    view: FilePreview,
) -> Result<WeatherFileTemplate, PageError> {
    let post_to = format!("/places/{}/weather/files/{file}", place.id);
    let shell = shell(app, user, View::Weather, "import", Words.t("file-title"), &post_to);
    Ok(WeatherFileTemplate {
        shell,
        columns: column_rows(&form, &sent.table),
        form,
        post_to,
        file_name: sent.name.clone(),
        file_size: format!("{}\u{a0}KB", number(sent.bytes.len() as f64 / 1024.0, 0)),
        roles: roles(),
        height_unit: Measure::Height.unit(user.units),
        view,
    })
}
