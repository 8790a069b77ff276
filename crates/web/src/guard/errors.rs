//! What no handler answered still gives a designed page: a panic, or an error from below them, as
//! when the session cannot be read because the database is away.

use std::future::Future;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::pin::Pin;
use std::task::{Context, Poll};

use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::middleware::Next;
use actix_web::{Error, web};

use crate::error::PageError;
use crate::state::App;

/// Polls a future and turns a panic of it into `Err`.
struct Caught<F>(Pin<Box<F>>);

impl<F: Future> Future for Caught<F> {
    type Output = Result<F::Output, ()>;

    fn poll(mut self: Pin<&mut Self>, context: &mut Context<'_>) -> Poll<Self::Output> {
        match catch_unwind(AssertUnwindSafe(|| self.0.as_mut().poll(context))) {
            Ok(Poll::Ready(output)) => Poll::Ready(Ok(output)),
            Ok(Poll::Pending) => Poll::Pending,
            // The panic itself was reported by the hook already.
            Err(_) => Poll::Ready(Err(())),
        }
    }
}

/// Turns panics and errors that carry no page of their own into the designed pages. The request
/// must not be held on to while it is routed, so the page travels as an error.
pub(crate) async fn designed_errors<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, Error> {
    let app = request.app_data::<web::Data<App>>().cloned();
    let needs_database = !["/healthz", "/readyz"].contains(&request.path()) && !request.path().starts_with("/assets/");
    if needs_database && app.as_ref().is_some_and(|app| !app.is_migrated()) {
        return Err(PageError::Away("the database is not at the newest version".into()).into());
    }
    let error = match Caught(Box::pin(next.call(request))).await {
        Ok(Ok(answer)) => return Ok(answer),
        Ok(Err(error)) => error,
        Err(()) => return Err(PageError::Ours("a handler panicked".into()).into()),
    };
    if error.as_error::<PageError>().is_some() {
        return Err(error);
    }
    if error.as_response_error().status_code().is_client_error() {
        tracing::info!(cause = %error, "refused below the handlers");
        return Err(PageError::NotAForm("refused below the handlers").into());
    }
    let away = match &app {
        Some(app) => app.store.ping().await.err(),
        None => None,
    };
    Err(match away {
        Some(away) => PageError::from(away).into(),
        None => PageError::Ours(error.to_string().into()).into(),
    })
}
