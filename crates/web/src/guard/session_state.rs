//! What a session holds: its owner, and the token of its forms.

use actix_session::Session;
use rand::Rng;
use rand::distr::Alphanumeric;
use upland_store::SessionOwner;

use crate::error::PageError;

/// Where a session's state holds its owner.
pub(super) const OWNER: &str = "owner";
const TOKEN: &str = "token";

/// A mark on a request whose form goes into the sign-in page: nobody else reads it, or answers first.
#[derive(Debug, Clone, Copy)]
pub(super) struct AsksToSignIn;

/// Whose session it is; nobody's before the sign-in.
pub(super) fn owner(session: &Session) -> Option<SessionOwner> {
    session.get(OWNER).ok().flatten()
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
