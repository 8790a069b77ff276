//! Who is signed in.

use std::future::Future;
use std::pin::Pin;

use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, web};
use chrono::NaiveDate;
use rand::Rng;
use rand::distr::Alphanumeric;
use upland_store::{Account, SessionOwner, UserRecord};
use uuid::Uuid;

use crate::error::PageError;
use crate::show::Units;
use crate::state::App;

/// Where a session's state holds its owner.
pub(super) const OWNER: &str = "owner";
const TOKEN: &str = "token";
/// The day on which the session was last used: a new one puts its end off.
const USED: &str = "used";

/// The user of a request, with the part of the store that the user may see.
#[derive(Debug, Clone)]
pub(crate) struct SignedIn {
    pub(crate) account: Account,
    pub(crate) user: UserRecord,
    pub(crate) units: Units,
    /// The token that every change from a page of this session carries.
    pub(crate) token: String,
    /// Key by which this session is spoken of.
    pub(crate) session_id: Uuid,
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
            let owner: SessionOwner = session.get(OWNER).ok().flatten().ok_or_else(out)?;
            let account = app.store.account(owner.account_id);
            let user = account.user(owner.user_id).await.map_err(|e| match PageError::from(e) {
                PageError::NotFound => out(),
                other => other,
            })?;
            let today = app.clock.now().date_naive();
            if session.get::<NaiveDate>(USED).ok().flatten() != Some(today) {
                session.insert(USED, today).map_err(|e| PageError::Ours(Box::new(e)))?;
            }
            let units = Units::of_word(&user.units);
            Ok(Self { account, user, units, token: token(&session)?, session_id: owner.session_id })
        })
    }
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

/// Begins a session under a new key, with a new token.
pub(crate) fn begin(session: &Session, owner: &SessionOwner) -> Result<(), PageError> {
    session.remove(TOKEN);
    session.insert(OWNER, owner).map_err(|e| PageError::Ours(Box::new(e)))?;
    session.renew();
    Ok(())
}

/// Gives the session a new key and a new token, whoever knew the old ones.
pub(crate) fn begin_anew(session: &Session) {
    session.remove(TOKEN);
    session.renew();
}
