//! Who is signed in.

use std::future::Future;
use std::pin::Pin;

use actix_session::SessionExt;
use actix_web::dev::Payload;
use actix_web::http::{Method, StatusCode};
use actix_web::{FromRequest, HttpMessage, HttpRequest, web};
use askama::Template;
use chrono::NaiveDate;
use upland_store::{Account, ActionLine, UserRecord, Visitor};
use uuid::Uuid;

use super::access::{Access, is_from_us};
use super::pairs::{TOKEN_FIELD, read_pairs};
use super::session_state::{AsksToSignIn, owner, token};
use crate::error::PageError;
use crate::pages::sign_in::SignInTemplate;
use crate::show::Units;
use crate::state::App;

/// The day on which the session was last used: a new one puts its end off.
const USED: &str = "used";

/// The user of a request, with the part of the store that the user may see. The user's role allows what
/// the address needs.
#[derive(Debug, Clone)]
pub(crate) struct SignedIn {
    pub(crate) account: Account,
    pub(crate) user: UserRecord,
    pub(crate) units: Units,
    /// The user's last action that can be undone.
    pub(crate) last_action: Option<ActionLine>,
    /// The token that every change from a page of this session carries.
    pub(crate) token: String,
    /// Key by which this session is spoken of.
    pub(crate) session_id: Uuid,
}

impl FromRequest for SignedIn {
    type Error = PageError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, PageError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let session = request.get_session();
        let app = request.app_data::<web::Data<App>>().cloned();
        let access = request.app_data::<Access>().copied().unwrap_or(Access::Work);
        let method = request.method().clone();
        let path = request.path().to_owned();
        if owner(&session).is_none() && method == Method::POST && is_sent_by_page(request, access) {
            request.extensions_mut().insert(AsksToSignIn);
            let pairs = web::Form::<Vec<(String, String)>>::from_request(request, payload);
            return Box::pin(async move { Err(sign_in_again(path, read_pairs(pairs).await?)) });
        }
        Box::pin(async move {
            let out = || PageError::SignedOut((method == Method::GET).then(|| path.clone()));
            let app = app.ok_or(PageError::NotAForm("no application"))?;
            let owner = owner(&session).ok_or_else(out)?;
            let account = app.store.account(owner.account_id);
            let visitor = account.visitor(owner.user_id).await.map_err(|e| match PageError::from(e) {
                PageError::NotFound => out(),
                other => other,
            })?;
            let Visitor { user, last_action } = visitor;
            if access.needs(&method).is_some_and(|least| user.role < least) {
                return Err(PageError::NotAllowed);
            }
            let today = app.clock.now().date_naive();
            if session.get::<NaiveDate>(USED).ok().flatten() != Some(today) {
                session.insert(USED, today).map_err(|e| PageError::Ours(Box::new(e)))?;
            }
            let units = Units::of_word(&user.units);
            Ok(Self { account, user, units, last_action, token: token(&session)?, session_id: owner.session_id })
        })
    }
}

/// Whether what was typed is worth keeping while its user signs in again: the form of a page of ours, sent by
/// pressing its button. What scripts ask in between is asked again anyway.
fn is_sent_by_page(request: &HttpRequest, access: Access) -> bool {
    let header = |name: &str| request.headers().get(name).and_then(|v| v.to_str().ok()).unwrap_or_default();
    matches!(access, Access::Work | Access::Lead)
        && header("content-type").starts_with("application/x-www-form-urlencoded")
        && matches!(header("sec-fetch-mode"), "" | "navigate")
        && is_from_us(request)
}

/// The sign-in page, with the form that could not be saved.
fn sign_in_again(path: String, pairs: Vec<(String, String)>) -> PageError {
    let kept = pairs.into_iter().filter(|(field, _)| field != TOKEN_FIELD).collect();
    match SignInTemplate::again(path, kept).render() {
        Ok(page) => PageError::Rendered(StatusCode::UNAUTHORIZED, page),
        Err(error) => error.into(),
    }
}
