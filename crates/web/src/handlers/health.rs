use actix_web::{HttpResponse, web};

use crate::error::{Page, PageError};
use crate::state::App;

/// The process answers.
pub(crate) async fn healthz() -> HttpResponse {
    HttpResponse::Ok().content_type("text/plain").body("ok\n")
}

/// The process and its database answer.
pub(crate) async fn readyz(app: web::Data<App>) -> HttpResponse {
    match app.store.ping().await {
        Ok(()) => HttpResponse::Ok().content_type("text/plain").body("ready\n"),
        Err(_) => HttpResponse::ServiceUnavailable().content_type("text/plain").body("the database is away\n"),
    }
}

/// Any address that is not in the URL map.
pub(crate) async fn not_found() -> Page {
    Err(PageError::NotFound)
}
