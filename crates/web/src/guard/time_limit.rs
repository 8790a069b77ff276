//! No request takes for ever: a frozen database or a body that never ends gives the page of what is away.

use std::time::Duration;

use actix_web::Error;
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::http::header::CONTENT_TYPE;
use actix_web::middleware::Next;
use actix_web::rt::time::timeout;

use crate::error::PageError;

/// A page that is read.
const READ: Duration = Duration::from_secs(8);
/// A form: its body has to come, and its change to be made.
const FORM: Duration = Duration::from_secs(15);
/// A file. A body that stands still ends sooner, in the reader of files.
const FILE: Duration = Duration::from_secs(180);

fn limit(request: &ServiceRequest) -> Duration {
    let is_file = request.headers().get(CONTENT_TYPE).is_some_and(|t| t.as_bytes().starts_with(b"multipart/"));
    match *request.method() {
        Method::GET | Method::HEAD => READ,
        _ if is_file => FILE,
        _ => FORM,
    }
}

/// Ends a request that takes longer than its kind may.
pub(crate) async fn time_limit<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, Error> {
    match timeout(limit(&request), next.call(request)).await {
        Ok(answer) => answer,
        Err(late) => Err(PageError::Away(Box::new(late)).into()),
    }
}
