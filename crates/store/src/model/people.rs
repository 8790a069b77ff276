//! People, and the sessions they have open.

use chrono::{DateTime, Utc};
use uuid::Uuid;

use super::action::ActionLine;

/// What a person may do, from the least to the most.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Role {
    /// Sees everything of the company and changes nothing of it.
    Reader,
    /// Changes what the work is about: places, controllers, weather, rounds.
    Technician,
    /// Looks after the people and the company's settings too.
    Lead,
}

impl Role {
    /// All of them, the one that may most first.
    pub const ALL: [Self; 3] = [Self::Lead, Self::Technician, Self::Reader];

    /// The word by which it is stored and posted.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Reader => "reader",
            Self::Technician => "technician",
            Self::Lead => "lead",
        }
    }

    /// The role of a word.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|role| role.word() == word)
    }
}

/// A user who signs in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct UserRecord {
    /// The company's key.
    pub account_id: Uuid,
    /// The company's name.
    pub account_name: String,
    /// The user's key.
    pub id: Uuid,
    /// What the user signs in with.
    pub email: String,
    /// The user's name.
    pub name: String,
    /// The Argon2 hash of the password.
    pub password_hash: String,
    /// `metric` or `us`.
    pub units: String,
    /// What the user may do.
    pub role: Role,
}

/// Who asks for a page: the user, and the last action to be undone.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Visitor {
    /// The user.
    pub user: UserRecord,
    /// The user's last action that can be undone.
    pub last_action: Option<ActionLine>,
}

/// A person of the company, as its leads see them.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Person {
    /// Key.
    pub id: Uuid,
    /// Name.
    pub name: String,
    /// What the person signs in with.
    pub email: String,
    /// What the person may do.
    pub role: Role,
    /// When a session of theirs was last used, to within a day; none when there is no session.
    pub used_at: Option<DateTime<Utc>>,
    /// Until when a link to set a password is open.
    pub link_until: Option<DateTime<Utc>>,
}

/// Whose session it is, and from where it was begun.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
pub struct SessionOwner {
    /// The company.
    pub account_id: Uuid,
    /// The user.
    pub user_id: Uuid,
    /// Key by which the session is spoken of: it opens nothing, and stays when the cookie's key changes.
    pub session_id: Uuid,
    /// When the user signed in.
    pub began_at: DateTime<Utc>,
    /// `phone` or `computer`; empty when not known.
    pub device: String,
    /// Network address, up to 64 characters; empty when not known.
    pub network: String,
}

/// A session as its user sees it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SessionRecord {
    /// Key by which it is ended.
    pub session_id: Uuid,
    /// When the user signed in.
    pub began_at: DateTime<Utc>,
    /// When it was last used, to within a day.
    pub used_at: DateTime<Utc>,
    /// `phone` or `computer`; empty when not known.
    pub device: String,
    /// Network address; empty when not known.
    pub network: String,
}
