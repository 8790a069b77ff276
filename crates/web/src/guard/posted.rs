//! A posted form that carries the token of its own page.

use std::future::Future;
use std::pin::Pin;

use actix_session::SessionExt;
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpMessage, HttpRequest, web};
use uuid::Uuid;

use super::access::is_from_us;
use super::pairs::{Pairs, TOKEN_FIELD, read_pairs};
use super::session_state::{AsksToSignIn, owner, token};
use crate::error::PageError;
use crate::form::Form;

/// The form of a change. There is no other way for a handler of a signed-in user to read one.
#[derive(Debug)]
pub(crate) struct Posted(pub(crate) Form);

/// The form of somebody who is not signed in: it has no token, and must come from a page of ours.
#[derive(Debug)]
pub(crate) struct FromOutside(pub(crate) Form);

/// A form that does an action under an id of its own, as [`super::once`] looks for it.
#[derive(Debug, Clone)]
pub(crate) struct SentAction {
    pub(crate) account: Uuid,
    pub(crate) id: Uuid,
    pub(crate) form: Form,
}

impl FromRequest for Posted {
    type Error = PageError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, PageError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        if request.extensions().get::<AsksToSignIn>().is_some() {
            return Box::pin(std::future::pending());
        }
        let request = request.clone();
        let pairs = web::Form::<Pairs>::from_request(&request, payload);
        Box::pin(async move {
            if !is_from_us(&request) {
                return Err(PageError::Forged);
            }
            let session = request.get_session();
            // Nobody signed in has no token to compare with.
            let owner = owner(&session).ok_or(PageError::SignedOut(None))?;
            let form = Form::sent(read_pairs(pairs).await?, TOKEN_FIELD);
            check_token(&token(&session)?, form.get(TOKEN_FIELD))?;
            if let Ok(id) = form.get("action").parse() {
                let sent = SentAction { account: owner.account_id, id, form: form.clone() };
                request.extensions_mut().insert(sent);
            }
            Ok(Self(form))
        })
    }
}

impl FromRequest for FromOutside {
    type Error = PageError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, PageError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let ours = is_from_us(request);
        let pairs = web::Form::<Pairs>::from_request(request, payload);
        Box::pin(async move {
            if !ours {
                return Err(PageError::Forged);
            }
            Ok(Self(Form::from_pairs(read_pairs(pairs).await?)))
        })
    }
}

/// Compares tokens in the same time whatever they hold.
pub(crate) fn check_token(expected: &str, given: &str) -> Result<(), PageError> {
    let (expected, given) = (expected.as_bytes(), given.as_bytes());
    let differs = expected.iter().zip(given).fold(0u8, |d, (a, b)| d | (a ^ b));
    if expected.len() == given.len() && differs == 0 { Ok(()) } else { Err(PageError::Forged) }
}
