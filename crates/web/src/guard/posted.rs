//! A posted form that carries the token of its own page.

use std::future::Future;
use std::pin::Pin;

use actix_session::SessionExt;
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, web};

use super::signed_in::token;
use crate::error::PageError;
use crate::form::Form;

/// Longest form: 48 stations with a dozen fields each stay far under it.
pub(crate) const FORM_BYTES: usize = 256 * 1024;

/// Name of the field that carries the token.
pub(crate) const TOKEN_FIELD: &str = "token";

/// The form of a change. There is no other way for a handler to read one.
#[derive(Debug)]
pub(crate) struct Posted(pub(crate) Form);

impl FromRequest for Posted {
    type Error = PageError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, PageError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let session = request.get_session();
        let pairs = web::Form::<Vec<(String, String)>>::from_request(request, payload);
        Box::pin(async move {
            let pairs = pairs.await.map_err(|error| match error.as_response_error().status_code().as_u16() {
                413 => PageError::TooLarge,
                _ => PageError::NotAForm("not urlencoded"),
            })?;
            let form = Form::from_pairs(pairs.into_inner());
            check_token(&token(&session)?, form.get(TOKEN_FIELD))?;
            Ok(Self(form))
        })
    }
}

/// Compares tokens in the same time whatever they hold.
pub(crate) fn check_token(expected: &str, given: &str) -> Result<(), PageError> {
    let (expected, given) = (expected.as_bytes(), given.as_bytes());
    let differs = expected.iter().zip(given).fold(0u8, |d, (a, b)| d | (a ^ b));
    if expected.len() == given.len() && differs == 0 { Ok(()) } else { Err(PageError::Forged) }
}
