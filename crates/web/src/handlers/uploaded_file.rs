//! A file that is sent by a form, with the form's token.

use std::time::Duration;

use actix_multipart::Multipart;
use actix_session::Session;
use actix_web::HttpRequest;
use actix_web::http::header::CONTENT_LENGTH;
use actix_web::rt::time::timeout;
use chrono::TimeDelta;
use futures_util::StreamExt;
use upland_store::{NewUpload, UploadsKept};
use uuid::Uuid;

use crate::error::PageError;
use crate::guard::pairs::TOKEN_FIELD;
use crate::guard::posted::check_token;
use crate::guard::session_state::token;
use crate::guard::signed_in::SignedIn;
use crate::state::App;

/// Bytes that are still read, and thrown away, past the limit: a browser shows our answer only
/// when it could send everything.
const MOST_READ: usize = 1024 * 1024 * 1024;

/// A body that sends nothing for so long is dropped.
const STANDS_STILL: Duration = Duration::from_secs(12);

/// Bytes of uploaded files that a company keeps for their previews: eight of the largest.
const KEPT_BYTES: i64 = 8 * 32 * 1024 * 1024;

/// Keeps a file for its preview, with those of a day, up to [`KEPT_BYTES`].
pub(super) async fn keep(
    app: &App,
    user: &SignedIn,
    file: &UploadedFile,
    place_id: Option<Uuid>,
) -> Result<Uuid, PageError> {
    let at = app.clock.now();
    let new = NewUpload { file_name: &file.name, content: &file.bytes, place_id, user_name: &user.user.name, at };
    let kept = UploadsKept { since: at - TimeDelta::days(1), bytes: KEPT_BYTES };
    Ok(user.account.keep_upload(new, kept).await?)
}

/// A file as it was sent.
pub(super) struct UploadedFile {
    /// Its name, without control characters.
    pub(super) name: String,
    /// Its bytes, up to the limit.
    pub(super) bytes: Vec<u8>,
    /// Whether it has more than the limit.
    pub(super) too_large: bool,
}

/// Reads the file of a form; nothing when none was chosen.
pub(super) async fn uploaded_file(
    session: &Session,
    request: &HttpRequest,
    mut parts: Multipart,
    most_bytes: usize,
) -> Result<Option<UploadedFile>, PageError> {
    let expected = token(session)?;
    // Room for the whole file at once: a buffer that grows is copied, and is there twice meanwhile.
    let sent = length_of(request);
    let (mut allowed, mut file) = (false, None);
    while let Some(part) =
        timeout(STANDS_STILL, parts.next()).await.map_err(|_| PageError::NotAForm("a body that stands still"))?
    {
        let mut part = part.map_err(|_| PageError::NotAForm("broken upload"))?;
        let disposition = part.content_disposition();
        let name = disposition.and_then(|d| d.get_name()).unwrap_or("").to_owned();
        let file_name = disposition.and_then(|d| d.get_filename()).unwrap_or("").to_owned();
        let most = if name == "file" { most_bytes } else { 4096 };
        let (mut bytes, mut read) = (Vec::with_capacity(most.min(sent)), 0usize);
        while let Some(chunk) =
            timeout(STANDS_STILL, part.next()).await.map_err(|_| PageError::NotAForm("a body that stands still"))?
        {
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
    Ok(file.filter(|(name, ..)| !name.is_empty()).map(|(name, bytes, too_large)| UploadedFile {
        name: name.chars().filter(|c| !c.is_control()).take(120).collect(),
        bytes,
        too_large,
    }))
}

/// Bytes that the body has by its header; 0 where it does not say.
fn length_of(request: &HttpRequest) -> usize {
    let length = request.headers().get(CONTENT_LENGTH).and_then(|value| value.to_str().ok());
    length.and_then(|length| length.parse().ok()).unwrap_or(0)
}
