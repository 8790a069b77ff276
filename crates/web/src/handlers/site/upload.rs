use actix_multipart::Multipart;
use actix_session::Session;
use actix_web::{HttpRequest, web};
use upland_formats::site::{SITE_BYTES, read_site};

use super::choose::refused;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::handlers::uploaded_file::{keep, uploaded_file};
use crate::state::App;
use crate::words::Words;

/// Uploads a site file for a preview. Nothing of it is saved before it is imported.
pub(crate) async fn upload(
    app: web::Data<App>,
    user: SignedIn,
    session: Session,
    request: HttpRequest,
    parts: Multipart,
) -> Page {
    let w = Words;
    let Some(file) = uploaded_file(&session, &request, parts, SITE_BYTES).await? else {
        return refused(&app, &user, w.t("site-no-file")).await;
    };
    if file.too_large {
        return refused(&app, &user, w.t1("site-too-large", (SITE_BYTES / 1024 / 1024).to_string())).await;
    }
    if let Err(error) = read_site(&file.bytes) {
        return refused(&app, &user, w.t2("site-refused", ("file", &file.name), ("error", error.to_string()))).await;
    }
    let id = keep(&app, &user, &file, None).await?;
    go(&format!("/places/import/{id}"))
}
