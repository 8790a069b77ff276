//! What no handler answered still gives a designed page: a panic, or an error from below them, as
//! when the session cannot be read because the database is away.

use std::future::Future;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::pin::Pin;
use std::task::{Context, Poll};

use actix_web::body::{BoxBody, EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::middleware::Next;
use actix_web::{Error, ResponseError, web};

use crate::app::App;
use crate::error::{AWAY, OURS, PageError, error_page};

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

/// Turns panics and errors that carry no page of their own into the designed pages.
pub(crate) async fn designed_errors<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B, BoxBody>>, Error> {
    let kept = request.request().clone();
    let app = request.app_data::<web::Data<App>>().cloned();
    let error = match Caught(Box::pin(next.call(request))).await {
        Ok(Ok(answer)) => return Ok(answer.map_into_left_body()),
        Ok(Err(error)) if error.as_error::<PageError>().is_some() => return Err(error),
        Ok(Err(error)) => Some(error),
        Err(()) => None,
    };
    let page = match &error {
        Some(error) if error.as_response_error().status_code().is_client_error() => {
            tracing::info!(cause = %error, "refused");
            PageError::NotAForm("refused below the handlers").error_response()
        }
        Some(error) => {
            tracing::error!(cause = %error, "an error below the handlers");
            let away = match &app {
                Some(app) => app.store.ping().await.is_err(),
                None => false,
            };
            if away {
                error_page(StatusCode::SERVICE_UNAVAILABLE, AWAY)
            } else {
                error_page(StatusCode::INTERNAL_SERVER_ERROR, OURS)
            }
        }
        None => {
            tracing::error!("a handler panicked");
            error_page(StatusCode::INTERNAL_SERVER_ERROR, OURS)
        }
    };
    Ok(ServiceResponse::new(kept, page).map_into_right_body())
}
