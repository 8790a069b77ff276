//! One line a request, with an id that the answer carries too.

use std::time::Instant;

use actix_web::Error;
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header::{HeaderName, HeaderValue};
use actix_web::middleware::Next;
use tracing::Instrument;
use uuid::Uuid;

const REQUEST_ID: HeaderName = HeaderName::from_static("x-request-id");

pub(crate) async fn log_requests<B: MessageBody>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, Error> {
    let id = Uuid::new_v4();
    let (method, path) = (request.method().clone(), request.path().to_owned());
    let started = Instant::now();
    let span = tracing::info_span!("request", %id, %method, path);
    let mut response = match next.call(request).instrument(span.clone()).await {
        Ok(response) => response,
        Err(error) => {
            let status = error.as_response_error().status_code().as_u16();
            span.in_scope(|| tracing::warn!(status, "answered with an error"));
            return Err(error);
        }
    };
    if let Ok(value) = HeaderValue::from_str(&id.to_string()) {
        response.headers_mut().insert(REQUEST_ID, value);
    }
    let (status, micros) = (response.status().as_u16(), started.elapsed().as_micros());
    span.in_scope(|| tracing::info!(status, micros, "answered"));
    Ok(response)
}
