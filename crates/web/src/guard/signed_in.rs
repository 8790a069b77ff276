//! Who is signed in.

use std::future::Future;
use std::pin::Pin;

use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, web};
use rand::Rng;
use rand::distr::Alphanumeric;
use upland_store::{Account, UserRecord};
use uuid::Uuid;

use crate::error::PageError;
use crate::show::Units;
use crate::state::App;

const ACCOUNT: &str = "account";
const USER: &str = "user";
const TOKEN: &str = "token";

/// The user of a request, with the part of the store that the user may see.
#[derive(Debug, Clone)]
pub(crate) struct SignedIn {
    pub(crate) account: Account,
    pub(crate) user: UserRecord,
    pub(crate) units: Units,
    /// The token that every change from a page of this session carries.
    pub(crate) token: String,
}

impl FromRequest for SignedIn {
    type Error = PageError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, PageError>>>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let session = request.get_session();
        let app = request.app_data::<web::Data<App>>().cloned();
        let next = (request.method() == actix_web::http::Method::GET).then(|| request.path().to_owned());
        Box::pin(async move {
            let out = || PageError::SignedOut(next.clone());
            let app = app.ok_or(PageError::NotAForm("no application"))?;
            let account: Uuid = read(&session, ACCOUNT).ok_or_else(out)?;
            let user: Uuid = read(&session, USER).ok_or_else(out)?;
            let account = app.store.account(account);
            let user = account.user(user).await.map_err(|e| match PageError::from(e) {
                PageError::NotFound => out(),
                other => other,
            })?;
            let units = Units::of_word(&user.units);
            Ok(Self { account, user, units, token: token(&session)? })
        })
    }
}

fn read(session: &Session, key: &str) -> Option<Uuid> {
    session.get::<Uuid>(key).ok().flatten()
}

/// The session's token, made when there is none yet.
pub(crate) fn token(session: &Session) -> Result<String, PageError> {
    if let Ok(Some(token)) = session.get::<String>(TOKEN) {
        return Ok(token);
    }
    let token: String = rand::rng().sample_iter(Alphanumeric).take(32).map(char::from).collect();
    session.insert(TOKEN, &token).map_err(|e| PageError::Ours(Box::new(e)))?;
    Ok(token)
}

/// Begins a session for a user under a new key.
pub(crate) fn begin(session: &Session, user: &UserRecord) -> Result<(), PageError> {
    session.renew();
    session.insert(ACCOUNT, user.account_id).map_err(|e| PageError::Ours(Box::new(e)))?;
    session.insert(USER, user.id).map_err(|e| PageError::Ours(Box::new(e)))
}
