use actix_multipart::Multipart;
use actix_session::Session;
use actix_web::{HttpRequest, web};
use chrono_tz::Tz;
use upland_formats::weather::{FileError, MAX_BYTES, Table, to_days};
use uuid::Uuid;

use super::of_place::show_with_error;
use crate::apart::apart;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::made;
use crate::handlers::uploaded_file::{UploadedFile, keep, uploaded_file};
use crate::pages::weather_file::file_error;
use crate::state::App;

/// Uploads a file for a preview. Nothing of it is saved before it is imported.
pub(crate) async fn upload(
    app: web::Data<App>,
    user: SignedIn,
    session: Session,
    request: HttpRequest,
    place: web::Path<Uuid>,
    parts: Multipart,
) -> Page {
    let place = place.into_inner();
    let Some(file) = uploaded_file(&session, &request, parts, MAX_BYTES).await? else {
        return show_with_error(&app, &user, place, file_error(&FileError::Empty)).await;
    };
    // The place must be the company's before anything is kept for it.
    let zone = user.account.place(place).await?.value.place.zone;
    let looked_at = apart(move || {
        if file.too_large {
            return Err(FileError::TooLarge);
        }
        Ok(UploadedFile { bytes: as_days(file.bytes, zone)?, ..file })
    });
    let file = match looked_at.await? {
        Ok(file) => file,
        Err(error) => return show_with_error(&app, &user, place, file_error(&error)).await,
    };
    let id = keep(&app, &user, &file, Some(place)).await?;
    made(&request, &format!("/places/{place}/weather/files/{id}"))
}

/// A file as the preview reads it: hours and other layouts joined to days.
fn as_days(bytes: Vec<u8>, zone: Tz) -> Result<Vec<u8>, FileError> {
    Table::parse(to_days(bytes, zone)?.into_bytes()).map(Table::into_bytes)
}
