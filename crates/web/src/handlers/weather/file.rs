use std::collections::BTreeMap;

use actix_web::web;
use upland_formats::weather::Table;
use upland_store::{PlaceRecord, StoreError, Upload, Versioned};
use uuid::Uuid;

use crate::apart::apart;
use crate::context::{Weather, WholeRecord};
use crate::error::{Page, PageError};
use crate::form::{Form, new_key};
use crate::guard::pairs::TOKEN_FIELD;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::loading;
use crate::pages::Choice;
use crate::pages::shell::View;
use crate::pages::waiting::file_size;
use crate::pages::weather_file::{
    FilePreview, Importable, WeatherFileTemplate, amendments, column_rows, days_of, goes_on, guess, is_part_of_a_year,
    layout_words, preview, roles, take_proposals,
};
use crate::show::Measure;
use crate::state::App;
use crate::words::Words;

/// The preview of an uploaded file.
pub(super) struct Sent {
    pub(super) name: String,
    /// Bytes of the file as it is kept.
    pub(super) size: usize,
    pub(super) table: Table,
    /// The fields of the preview as somebody left them; empty the first time.
    typed: BTreeMap<String, String>,
}

/// The fields of a preview that belong to one showing of its page.
const OF_ONE_PAGE: [&str; 4] = [TOKEN_FIELD, "action", "version", "propose"];

/// Keeps what a preview's form holds, so that who leaves it finds it again.
pub(super) async fn keep_typed(user: &SignedIn, id: Uuid, form: &Form) -> Result<(), PageError> {
    let of_file = form.pairs().filter(|(field, _)| !OF_ONE_PAGE.contains(&field.as_str()));
    let typed = of_file.map(|(field, value)| (field.clone(), value.clone())).collect();
    Ok(user.account.keep_typed(id, &typed).await?)
}

pub(super) async fn sent(user: &SignedIn, id: Uuid) -> Result<Sent, PageError> {
    let Upload { file_name, content, typed } = user.account.upload(id).await?;
    let size = content.len();
    let table = apart(move || Table::parse(content)).await?.map_err(|e| PageError::Ours(Box::new(e)))?;
    Ok(Sent { name: file_name, size, table, typed })
}

/// The page as it was left; the first time with columns read by their names, and the place's position for the
/// station's.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, path: web::Path<(Uuid, Uuid)>) -> Page {
    let (place, file) = path.into_inner();
    let place = user.account.place(place).await?;
    let sent = sent(&user, file).await?;
    let mut form = if sent.typed.is_empty() {
        as_proposed(&user, &place.value, &sent)
    } else {
        Form::from_pairs(sent.typed.clone())
    };
    form.set("action", new_key());
    form.set("version", place.version.to_string());
    let looked = look(&user, &place, sent, form, true).await?;
    page(&file_page(&app, &user, &place, file, looked).await?)
}

/// The form of a file that nobody looked at yet.
fn as_proposed(user: &SignedIn, place: &PlaceRecord, sent: &Sent) -> Form {
    let mut form = Form::default();
    form.set("name", sent.name.rsplit_once('.').map_or(sent.name.as_str(), |(n, _)| n).replace(['_', '-'], " "));
    // What the file tells of its station, else the place.
    let (p, head) = (&place.place.position, sent.table.head());
    if let Some(name) = &head.name {
        form.set("name", name);
    }
    form.set("latitude", head.latitude.unwrap_or(p.latitude_deg()).to_string());
    form.set("longitude", head.longitude.unwrap_or(p.longitude_deg()).to_string());
    form.set("elevation", Measure::Height.typed(head.elevation_m.unwrap_or(p.elevation_m()), user.units));
    form.set("wind_height", Measure::Height.typed(head.wind_height_m.unwrap_or(2.0), user.units));
    guess(&mut form, &sent.table);
    form
}

/// The page after columns or units were chosen by hand, or the proposed ones taken.
pub(crate) async fn review(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    Posted(mut form): Posted,
) -> Page {
    let (place, file) = path.into_inner();
    let place = user.account.place(place).await?;
    let sent = sent(&user, file).await?;
    if form.is("propose", "all") {
        take_proposals(&mut form, &sent.table);
    }
    keep_typed(&user, file, &form).await?;
    let looked = look(&user, &place, sent, form, true).await?;
    page(&file_page(&app, &user, &place, file, looked).await?)
}

/// A file that was looked at through its form.
pub(super) struct Looked {
    pub(super) sent: Sent,
    pub(super) form: Form,
    pub(super) view: FilePreview,
    pub(super) importable: Option<Importable>,
    /// The record that it goes on with.
    pub(super) known: Option<WholeRecord>,
}

/// Looks at a file. On a page whether it goes on with a record that the place looks at is told from its values, until
/// a person says so; at the import it is as the page said.
pub(super) async fn look(
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
    sent: Sent,
    mut form: Form,
    tell: bool,
) -> Result<Looked, PageError> {
    let units = user.units;
    let mut own = Vec::new();
    if tell && !form.has("into") {
        for id in place.value.series_id.into_iter().chain(place.value.further.all()) {
            match loading::whole_record(&user.account, id).await {
                Ok(whole) => own.push(whole),
                // What was imported and undone since.
                Err(StoreError::NotFound) => {}
                Err(other) => return Err(other.into()),
            }
        }
        // Typed normals come last: any file could give them months.
        own.sort_by_key(|whole| whole.record.weather.is_typed());
    }
    let stated = match form.get("into").parse::<Uuid>() {
        Ok(id) => Some(loading::whole_record(&user.account, id).await?),
        Err(_) => None,
    };
    let first = place.value.series_id;
    let looked = apart(move || {
        let mut sent = sent;
        sent.table = sent.table.amended(amendments(&form));
        let mut known = stated;
        if !own.is_empty()
            && let Some(days) = days_of(&form, &sent.table)
        {
            let is_of_place = sent.table.head().latitude.is_none();
            let measures = |typed: &Weather| typed.is_typed() && is_of_place && is_part_of_a_year(&days);
            known = own.into_iter().find(|w| goes_on(&w.record, &days) || measures(&w.record.weather));
            form.set("into", known.as_ref().map_or_else(String::new, |k| k.record.weather.series.id.to_string()));
        }
        // What is already first, or becomes it, must give normals.
        let beside = first.is_some_and(|id| known.as_ref().is_none_or(|k| k.record.weather.series.id != id));
        let (view, importable) = preview(&mut form, &sent.table, known.as_ref(), beside, units);
        Looked { sent, form, view, importable, known }
    });
    looked.await
}

pub(super) async fn file_page(
    app: &App,
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
    file: Uuid,
    looked: Looked,
) -> Result<WeatherFileTemplate, PageError> {
    let w = Words;
    let Looked { sent, form, view, .. } = looked;
    let post_to = format!("/places/{}/weather/files/{file}", place.id);
    let shell = shell(app, user, View::Weather, "import", w.t("file-title"), &post_to);
    let mut records = vec![Choice::new("", w.t("join-new"))];
    let series = user.account.all_series().await?;
    let (typed, measured): (Vec<_>, Vec<_>) = series.iter().partition(|(_, revision)| revision.is_typed());
    let with_days = measured.into_iter().filter(|(_, revision)| revision.day_count > 0);
    records.extend(with_days.map(|(s, _)| Choice::new(s.id.to_string(), w.t1("join-known", &s.value.name))));
    let own = typed.into_iter().filter(|(s, _)| place.value.series_id == Some(s.id));
    records.extend(own.map(|(s, _)| Choice::new(s.id.to_string(), w.t1("join-typed", &s.value.name))));
    Ok(WeatherFileTemplate {
        shell,
        columns: column_rows(&form, &sent.table),
        form,
        post_to,
        station_from: w.t(if sent.table.head().latitude.is_some() { "file-station-told" } else { "file-station-sub" }),
        file_name: sent.name.clone(),
        file_size: file_size(sent.size),
        layout: layout_words(&sent.table),
        records,
        roles: roles(),
        height_unit: Measure::Height.unit(user.units),
        view,
    })
}
