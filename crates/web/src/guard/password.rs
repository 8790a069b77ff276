//! Passwords: Argon2id, never kept in the clear.

use argon2::password_hash::rand_core::OsRng;
use argon2::password_hash::{PasswordHash, SaltString};
use argon2::{Argon2, PasswordHasher, PasswordVerifier};
use thiserror::Error;
use tokio::sync::Semaphore;

/// Why a password cannot be taken.
#[derive(Debug, Error)]
pub enum PasswordError {
    /// Shorter than ten characters, or longer than two hundred.
    #[error("a password has 10 to 200 characters")]
    Length,
    /// The hash cannot be made.
    #[error("the password cannot be hashed: {0}")]
    Hash(argon2::password_hash::Error),
}

/// The hash of a new password.
///
/// # Errors
/// [`PasswordError`] for a password of the wrong length.
pub fn hash_password(password: &str) -> Result<String, PasswordError> {
    if !(10..=200).contains(&password.chars().count()) {
        return Err(PasswordError::Length);
    }
    let salt = SaltString::generate(&mut OsRng);
    let hash = Argon2::default().hash_password(password.as_bytes(), &salt).map_err(PasswordError::Hash)?;
    Ok(hash.to_string())
}

/// A hash that no password has: compared with when there is no such user, so that both take as long.
const NOBODY: &str = "$argon2id$v=19$m=19456,t=2,p=1$bm9ib2R5bm9ib2R5$Yc0gPzwVBN1bHcN7s0jCq3m0QpQ7c2k0bF1bJmYw3xA";

/// Whether a password fits a hash; never for nobody's.
pub(crate) fn verify_password(password: &str, hash: Option<&str>) -> bool {
    let fits = PasswordHash::new(hash.unwrap_or(NOBODY))
        .is_ok_and(|parsed| Argon2::default().verify_password(password.as_bytes(), &parsed).is_ok());
    fits && hash.is_some()
}

/// Hashes at once: each takes 19 MB and a core for tens of milliseconds.
static TURNS: Semaphore = Semaphore::const_new(2);

/// [`verify_password`] in its turn, away from the threads that answer requests.
pub(crate) async fn verify_in_turn(
    password: String,
    hash: Option<String>,
) -> Result<bool, Box<dyn std::error::Error + Send + Sync>> {
    let _turn = TURNS.acquire().await?;
    Ok(actix_web::web::block(move || verify_password(&password, hash.as_deref())).await?)
}

/// [`hash_password`] in its turn, away from the threads that answer requests.
pub(crate) async fn hash_in_turn(
    password: String,
) -> Result<Result<String, PasswordError>, Box<dyn std::error::Error + Send + Sync>> {
    let _turn = TURNS.acquire().await?;
    Ok(actix_web::web::block(move || hash_password(&password)).await?)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_the_right_password_fits() {
        let hash = hash_password("a long password").unwrap();
        assert!(verify_password("a long password", Some(&hash)));
        assert!(!verify_password("another password", Some(&hash)));
        assert!(!verify_password("a long password", None));
        assert!(matches!(hash_password("short"), Err(PasswordError::Length)));
    }

    #[test]
    fn nobody_has_a_sound_hash_so_that_looking_takes_as_long() {
        assert!(PasswordHash::new(NOBODY).is_ok());
    }
}
