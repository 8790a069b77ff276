//! What goes wrong in front of a person: one error, one page.

use actix_web::http::StatusCode;
use actix_web::http::header::LOCATION;
use actix_web::{HttpResponse, ResponseError};
use askama::Template;
use thiserror::Error;
use upland_store::StoreError;

use crate::headers::SECURE_HEADERS;
use crate::words::Words;

/// An answer of a handler.
pub(crate) type Page = Result<HttpResponse, PageError>;

/// Why a page cannot be shown. Causes are logged and never shown.
#[derive(Debug, Error)]
pub(crate) enum PageError {
    /// Nothing is at this address, for this company at least.
    #[error("not found")]
    NotFound,
    /// Nobody is signed in; the address is where to go afterwards.
    #[error("nobody is signed in")]
    SignedOut(Option<String>),
    /// The user's role does not allow it.
    #[error("the user's role does not allow it")]
    NotAllowed,
    /// What was sent again was done already, and led to this address.
    #[error("done already")]
    DoneAlready(String),
    /// A page that was made for this case.
    #[error("answered with a page of its own")]
    Rendered(StatusCode, String),
    /// A change without the token of its own page.
    #[error("a change without its token")]
    Forged,
    /// What was sent is not what a form sends.
    #[error("not a form of ours: {0}")]
    NotAForm(&'static str),
    /// More was sent than is taken.
    #[error("too large")]
    TooLarge,
    /// The database is away.
    #[error("the database is away")]
    Away(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// A fault of the application.
    #[error("a fault of the application")]
    Ours(#[source] Box<dyn std::error::Error + Send + Sync>),
}

impl From<StoreError> for PageError {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::NotFound => Self::NotFound,
            StoreError::Away(cause) => Self::Away(cause),
            // The layer of `guard::once` shows what was sent, to be sent as an action of its own.
            StoreError::OtherContent => Self::NotAForm("something else was done under its id"),
            other => Self::Ours(Box::new(other)),
        }
    }
}

impl From<askama::Error> for PageError {
    fn from(error: askama::Error) -> Self {
        Self::Ours(Box::new(error))
    }
}

#[derive(Template)]
#[template(path = "error.html")]
struct ErrorTemplate {
    w: Words,
    css: String,
    title: String,
    text: String,
    code: u16,
}

/// Keys of a title and a text.
pub(crate) type Keys = [&'static str; 2];

/// The page of a fault of the application.
const OURS: Keys = ["error-ours-title", "error-ours-text"];
/// The page of a database that is away.
const AWAY: Keys = ["error-away-title", "error-away-text"];

/// The designed page of an error.
pub(crate) fn error_page(status: StatusCode, [title, text]: Keys) -> HttpResponse {
    let w = Words;
    let template = ErrorTemplate {
        w,
        css: crate::assets::stylesheet(),
        title: w.t(title),
        text: w.t(text),
        code: status.as_u16(),
    };
    html(status, template.render().unwrap_or_else(|_| template.title.clone()))
}

fn html(status: StatusCode, body: String) -> HttpResponse {
    let mut response = HttpResponse::build(status);
    // An error from below the handlers passes by the layer that sets these on every other answer.
    for (name, value) in SECURE_HEADERS {
        response.insert_header((name, value));
    }
    response.content_type("text/html; charset=utf-8").body(body)
}

/// A page that says why something could not be done, with the way back.
pub(crate) fn notice_page(keys: Keys) -> HttpResponse {
    error_page(StatusCode::CONFLICT, keys)
}

impl ResponseError for PageError {
    fn status_code(&self) -> StatusCode {
        match self {
            Self::NotFound => StatusCode::NOT_FOUND,
            Self::SignedOut(_) | Self::DoneAlready(_) => StatusCode::SEE_OTHER,
            Self::Rendered(status, _) => *status,
            Self::NotAllowed | Self::Forged => StatusCode::FORBIDDEN,
            Self::NotAForm(_) => StatusCode::BAD_REQUEST,
            Self::TooLarge => StatusCode::PAYLOAD_TOO_LARGE,
            Self::Away(_) => StatusCode::SERVICE_UNAVAILABLE,
            Self::Ours(_) => StatusCode::INTERNAL_SERVER_ERROR,
        }
    }

    fn error_response(&self) -> HttpResponse {
        let keys = match self {
            Self::SignedOut(next) => {
                let to = next.as_deref().map_or_else(|| "/sign-in".to_owned(), |n| format!("/sign-in?next={n}"));
                return HttpResponse::SeeOther().insert_header((LOCATION, to)).finish();
            }
            Self::DoneAlready(to) => {
                return HttpResponse::SeeOther().insert_header((LOCATION, to.as_str())).finish();
            }
            Self::Rendered(status, page) => return html(*status, page.clone()),
            Self::NotFound => ["error-not-found-title", "error-not-found-text"],
            Self::NotAllowed => ["error-not-allowed-title", "error-not-allowed-text"],
            Self::Forged => ["error-forged-title", "error-forged-text"],
            Self::NotAForm(_) => ["error-not-a-form-title", "error-not-a-form-text"],
            Self::TooLarge => ["error-too-large-title", "error-too-large-text"],
            Self::Away(cause) => {
                tracing::error!(cause = %cause, "the database is away");
                AWAY
            }
            Self::Ours(cause) => {
                tracing::error!(cause = ?cause, "a fault of the application");
                OURS
            }
        };
        error_page(self.status_code(), keys)
    }
}
