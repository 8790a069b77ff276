use actix_web::web;
use upland_store::{PlaceRecord, Record, SeriesRecord, Versioned, Write};
use uuid::Uuid;

use super::new_series_writes;
use crate::context::Weather;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::saving::{action, made_on, save_over};
use crate::handlers::{go, invalid, page};
use crate::intake::revision_of_normals;
use crate::loading;
use crate::pages::shell::View;
use crate::pages::weather::{NormalsFormTemplate, filled_normals, normal_fields, read_normals};
use crate::show::Measure;
use crate::state::App;
use crate::words::Words;

/// Twelve normals to be typed, or the place's own typed ones to be changed.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, place: web::Path<Uuid>) -> Page {
    let place = user.account.place(*place).await?;
    let mut form = Form::default();
    form.set("action", Uuid::new_v4().to_string());
    match typed(&user, &place).await? {
        Some(weather) => {
            form.set("name", &weather.series.value.name);
            form.set("version", weather.series.version.to_string());
            if let Some(normals) = weather.normals() {
                filled_normals(&mut form, normals, user.units);
            }
        }
        None => {
            form.set("name", Words.t1("normals-name", &place.value.name).chars().take(60).collect::<String>());
            form.set("version", "0");
        }
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
    let name = form.name("name");
    let normals = read_normals(&mut form, user.units);
    let (Some(name), Some(normals)) = (name, normals) else {
        return invalid(&normals_page(&app, &user, &place, form).await?);
    };
    let revision = revision_of_normals(&Words.t("normals-source"), normals);
    let address = format!("/places/{}/weather", place.id);
    let Some(weather) = typed(&user, &place).await? else {
        let (_, writes) = new_series_writes(name, place.value.position, 2.0, revision, Some(&place));
        user.account.apply(&action(&app, &user, &form, "why-normals", writes)).await?;
        return go(&address);
    };
    let after = SeriesRecord { name, revision_id: revision.id, ..weather.series.value.clone() };
    let record = Record::Series(Some(after), Some(Box::new(revision)));
    let write = Write { id: weather.series.id, made_on: made_on(&form), record };
    let post_to = format!("{address}/normals");
    if let Some(choice) = save_over(&app, &user, form, "why-normals", write, [&post_to, &post_to]).await? {
        return Ok(choice);
    }
    go(&address)
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
    let shell = shell(app, user, View::Weather, "form", w.t("normals-title"), &post_to).await?;
    Ok(NormalsFormTemplate {
        shell,
        form,
        post_to,
        back,
        months: normal_fields(),
        et0_unit: w.t1("a-day", Measure::DepthADay.unit(user.units)),
        rain_unit: Measure::Depth.unit(user.units),
        spine: None,
    })
}
