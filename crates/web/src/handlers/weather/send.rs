use actix_multipart::Multipart;
use actix_session::Session;
use actix_web::web;
use chrono::TimeDelta;
use futures_util::StreamExt;
use upland_formats::weather::{FileError, MAX_BYTES, Table};
use uuid::Uuid;

use super::of_place::show_with_error;
use crate::app::App;
use crate::error::{Page, PageError};
use crate::guard::posted::{TOKEN_FIELD, check_token};
use crate::guard::signed_in::{SignedIn, token};
use crate::handlers::go;
use crate::pages::weather_file::file_error;

/// Bytes that are still read, and thrown away, past the limit: a browser shows our answer only
/// when it could send everything.
const MOST_READ: usize = 1024 * 1024 * 1024;

/// Takes a file to be looked at. Nothing of it counts before it is taken in.
pub(crate) async fn send(
    app: web::Data<App>,
    user: SignedIn,
    session: Session,
    place: web::Path<Uuid>,
    mut parts: Multipart,
) -> Page {
    let place = place.into_inner();
    let expected = token(&session)?;
    let (mut allowed, mut file) = (false, None);
    while let Some(part) = parts.next().await {
        let mut part = part.map_err(|_| PageError::NotAForm("broken upload"))?;
        let disposition = part.content_disposition();
        let name = disposition.and_then(|d| d.get_name()).unwrap_or("").to_owned();
        let file_name = disposition.and_then(|d| d.get_filename()).unwrap_or("").to_owned();
        let most = if name == "file" { MAX_BYTES } else { 4096 };
        let (mut bytes, mut read) = (Vec::new(), 0usize);
        while let Some(chunk) = part.next().await {
            let chunk = chunk.map_err(|_| PageError::NotAForm("broken upload"))?;
            read += chunk.len();
            if read > MOST_READ {
                return Err(PageError::TooLarge);
            }
            if read <= most {
                bytes.extend_from_slice(&chunk);
            }
        }
        match name.as_str() {
            TOKEN_FIELD => {
                check_token(&expected, std::str::from_utf8(&bytes).unwrap_or(""))?;
                allowed = true;
            }
            "file" => file = Some((file_name, bytes, read > most)),
            _ => {}
        }
    }
    if !allowed {
        return Err(PageError::Forged);
    }
    let Some((name, bytes, too_large)) = file.filter(|(name, ..)| !name.is_empty()) else {
        return show_with_error(&app, &user, place, file_error(&FileError::Empty)).await;
    };
    // The place must be the company's before anything is kept for it.
    user.account.place(place).await?;
    let refused = if too_large { Some(FileError::TooLarge) } else { Table::parse(&bytes).err() };
    if let Some(error) = refused {
        return show_with_error(&app, &user, place, file_error(&error)).await;
    }
    let now = app.clock.now();
    let short: String = name.chars().filter(|c| !c.is_control()).take(120).collect();
    let id = user.account.keep_upload(&short, &bytes, now, now - TimeDelta::days(1)).await?;
    go(&format!("/places/{place}/weather/files/{id}"))
}
