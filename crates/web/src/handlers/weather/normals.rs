use actix_web::web;
use upland_store::{NewRevision, PlaceRecord, Record, SeriesRecord, Versioned, Write};
use uuid::Uuid;

use super::new_series_writes;
use crate::context::{Weather, WholeRecord};
use crate::error::{Page, PageError};
use crate::form::{Form, new_key};
use crate::guard::posted::Posted;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::saving::{action, apply_over, made_on};
use crate::handlers::{invalid, page};
use crate::intake::{DailyRecord, TypedNormals, revision_of_normals, revision_of_record};
use crate::loading;
use crate::pages::normals::{By, NormalsFormTemplate, airs, filled_normals, normal_fields, read_normals, warmths};
use crate::pages::shell::View;
use crate::show::Measure;
use crate::state::App;
use crate::words::Words;

/// Twelve normals to be typed, or the place's own typed ones to be changed; the address says from what they are told.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>, Query(query): Query) -> Page {
    let place = user.account.place(*place).await?;
    let mut form = Form::default();
    form.set("action", new_key());
    match typed(&user, &place).await? {
        Some(weather) => {
            form.set("name", &weather.series.value.name);
            form.set("series", weather.series.id.to_string());
            form.set("version", weather.series.version.to_string());
            if let Some(typed) = weather.typed() {
                filled_normals(&mut form, &typed, user.units);
            }
        }
        None => {
            form.set("name", Words.t1("normals-name", &place.value.place.name).chars().take(60).collect::<String>());
            form.set("version", place.version.to_string());
        }
    }
    let by = query.get("by").to_owned();
    if !by.is_empty() {
        form.set("by", by);
    }
    page(&normals_page(&app, &user, &place, form).await?)
}

/// Saves twelve normals.
pub(crate) async fn save(
    app: web::Data<App>,
    user: SignedIn,
    place: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let place = user.account.place(*place).await?;
    if form.has("work") {
        // Shown and not saved: the other fields, or what follows from what is typed so far.
        match form.get("work") {
            "out" => drop(read_normals(&mut form, place.value.place.position.latitude_deg(), user.units)),
            by => form.set("by", by.to_owned()),
        }
        return page(&normals_page(&app, &user, &place, form).await?);
    }
    let name = form.name("name");
    let latitude = place.value.place.position.latitude_deg();
    let normals = read_normals(&mut form, latitude, user.units);
    let (Some(name), Some(normals)) = (name, normals) else {
        return invalid(&normals_page(&app, &user, &place, form).await?);
    };
    let source = Words.t("normals-source");
    let address = format!("/places/{}/weather", place.id);
    let post_to = format!("{address}/normals");
    let writes = match form.get("series").parse::<Uuid>() {
        // The ones that the form was filled with. What was read by hand besides stays.
        Ok(series) => {
            let known = loading::whole_record(&user.account, series).await?;
            let revision = typed_again(&known, source, normals)?;
            let after = SeriesRecord { name, revision_id: revision.id, ..known.record.weather.series.value };
            let record = Record::Series(Some(after), Some(Box::new(revision)));
            vec![Write { id: series, made_on: made_on(&form), record }]
        }
        Err(_) => {
            let revision = revision_of_normals(&source, normals);
            let record = SeriesRecord {
                name,
                position: place.value.place.position,
                wind_height_m: 2.0,
                revision_id: revision.id,
            };
            new_series_writes(record, revision, &place, &form)
        }
    };
    let action = action(&app, &user, &form, ["why-normals", &address], writes);
    apply_over(&app, &user, form, &action, [&post_to, &address]).await
}

/// Normals that are typed again, with the days that are on record beside them.
fn typed_again(known: &WholeRecord, source: String, normals: TypedNormals) -> Result<NewRevision, PageError> {
    if known.record.days.is_empty() {
        return Ok(revision_of_normals(&source, normals));
    }
    let record = DailyRecord { source, typed: Some(normals), ..DailyRecord::of(known) };
    revision_of_record(record).map_err(|e| PageError::Ours(Box::new(e)))
}

/// The place's weather when it is typed.
async fn typed(user: &SignedIn, place: &Versioned<PlaceRecord>) -> Result<Option<Weather>, PageError> {
    let Some(id) = place.value.series_id else { return Ok(None) };
    let weather = loading::weather(&user.account, id).await?;
    Ok(weather.is_typed().then_some(weather))
}

async fn normals_page(
    app: &App,
    user: &SignedIn,
    place: &Versioned<PlaceRecord>,
    form: Form,
) -> Result<NormalsFormTemplate, PageError> {
    let w = Words;
    let back = format!("/places/{}/weather", place.id);
    let post_to = format!("{back}/normals");
    let shell = shell(app, user, View::Weather, "form", w.t("normals-title"), &post_to);
    let latitude = place.value.place.position.latitude_deg();
    Ok(NormalsFormTemplate {
        shell,
        by: By::of(&form),
        airs: airs(),
        warmths: warmths(),
        months: normal_fields(&form, latitude, user.units),
        form,
        post_to,
        back,
        et0_unit: w.t1("a-day", Measure::DepthADay.unit(user.units)),
        rain_unit: Measure::Depth.unit(user.units),
        temperature_unit: Measure::Temperature.unit(user.units),
        spine: None,
    })
}
