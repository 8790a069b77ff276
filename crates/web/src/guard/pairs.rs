//! The fields of a form, as they were sent.

use std::future::Future;

use actix_web::{Error, web};

use crate::error::PageError;

/// Longest form: 48 stations with a dozen fields each stay far under it.
pub(crate) const FORM_BYTES: usize = 256 * 1024;

/// Name of the field that carries the token.
pub(crate) const TOKEN_FIELD: &str = "token";

/// Fields in their order.
pub(super) type Pairs = Vec<(String, String)>;

/// The fields of a form, or why it is none.
pub(super) async fn read_pairs(
    pairs: impl Future<Output = Result<web::Form<Pairs>, Error>>,
) -> Result<Pairs, PageError> {
    pairs.await.map(web::Form::into_inner).map_err(|error| match error.as_response_error().status_code().as_u16() {
        413 => PageError::TooLarge,
        _ => PageError::NotAForm("not urlencoded"),
    })
}
