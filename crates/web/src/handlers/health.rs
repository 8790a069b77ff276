use std::time::Duration;

use actix_web::rt::time::timeout;
use actix_web::{HttpRequest, HttpResponse, web};

use crate::error::{Page, PageError};
use crate::handlers::go;
use crate::state::App;

/// The process answers.
pub(crate) async fn healthz() -> HttpResponse {
    HttpResponse::Ok().content_type("text/plain").body("ok\n")
}

/// How long the database may take to answer.
const READY_WITHIN: Duration = Duration::from_millis(2500);

/// The process and its database answer.
pub(crate) async fn readyz(app: web::Data<App>) -> HttpResponse {
    if !app.is_migrated() {
        return not_ready("the database is not at the newest version\n");
    }
    // A frozen database takes the connection and never answers.
    match timeout(READY_WITHIN, app.store.ping()).await {
        Ok(Ok(())) => HttpResponse::Ok().content_type("text/plain").body("ready\n"),
        Ok(Err(_)) | Err(_) => not_ready("the database is away\n"),
    }
}

fn not_ready(why: &'static str) -> HttpResponse {
    HttpResponse::ServiceUnavailable().content_type("text/plain").body(why)
}

/// Any address that is not in the URL map.
pub(crate) async fn not_found() -> Page {
    Err(PageError::NotFound)
}

/// A form's address opened as a page: on to the page that the form stands on.
pub(crate) async fn page_of_form(request: HttpRequest) -> Page {
    let parent = request.path().trim_end_matches('/').rsplit_once('/').map_or("", |(parent, _)| parent);
    // Controllers are listed with their place, not at an address of their own.
    let page = parent.strip_suffix("/files").unwrap_or(parent);
    go(if page.is_empty() { "/" } else { page })
}
