use actix_web::http::StatusCode;
use actix_web::web;
use upland_store::{Record, SeriesRecord, Write};
use uuid::Uuid;

use super::file::{file_page, keep_typed, look, sent};
use super::{looking_at, new_series_writes};
use crate::apart::apart;
use crate::error::{Page, PageError};
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{action, apply_over, place_write};
use crate::intake::{DailyRecord, revision_of_record};
use crate::state::App;
use crate::words::Words;

/// Imports a file: all its days, or nothing while a unit is missing or a line has an error.
pub(crate) async fn import(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    Posted(form): Posted,
) -> Page {
    let (place, file) = path.into_inner();
    let place = user.account.place(place).await?;
    let sent = sent(&user, file).await?;
    keep_typed(&user, file, &form).await?;
    let mut looked = look(&user, &place, sent, form, false).await?;
    let Some(t) = looked.importable.take() else {
        return invalid(&file_page(&app, &user, &place, file, looked).await?);
    };
    let form = looked.form;
    let (position, wind_height_m) = (t.record.position, t.record.wind_height_m);
    let mut source = looked.sent.name;
    let mended = looked.sent.table.amendments().lines().len();
    if mended > 0 {
        source = Words.t2("file-mended-source", ("source", source), ("mended", Words.count("file-mended", mended)));
    }
    if let Some(known) = &looked.known {
        source = joined_source(&known.record.weather.revision.source, &source);
    }
    let made = apart(move || revision_of_record(DailyRecord { source, ..t.record })).await?;
    let revision = made.map_err(|e| PageError::Ours(Box::new(e)))?;
    let record = SeriesRecord { name: t.name, position, wind_height_m, revision_id: revision.id };
    let writes = match &looked.known {
        Some(known) => {
            let id = known.record.weather.series.id;
            // The file was joined to the record as it stands now, whatever the page had shown.
            let made_on = known.record.weather.series.version;
            let mut writes = Vec::new();
            if place.value.series_id != Some(id) && !place.value.further.all().any(|known| known == id) {
                let looking = looking_at(&place.value, id, &revision);
                writes.push(place_write(&place, &form, looking));
            }
            // The revision goes in with its series, which comes first.
            writes.insert(0, Write { id, made_on, record: Record::Series(Some(record), Some(Box::new(revision))) });
            writes
        }
        None => new_series_writes(record, revision, &place, &form),
    };
    let to = format!("/places/{}/weather", place.id);
    let post_to = format!("{to}/files/{file}/import");
    let action = action(&app, &user, &form, ["why-weather-file", &to], writes);
    let answer = apply_over(&app, &user, form, &action, [&post_to, &to]).await?;
    if answer.status() != StatusCode::CONFLICT {
        user.account.forget_upload(file).await?;
    }
    Ok(answer)
}

/// The sources of a record and of what joins it; a long list keeps its end.
fn joined_source(known: &str, new: &str) -> String {
    if known.split(", ").any(|part| part == new) {
        return known.to_owned();
    }
    let all = format!("{known}, {new}");
    let skip = all.chars().count().saturating_sub(MOST_SOURCE);
    all.chars().skip(skip).collect()
}

/// Characters of a source.
const MOST_SOURCE: usize = 200;
