//! One's own account: password and sessions.

use chrono::{DateTime, Utc};
use uuid::Uuid;

use super::shell::Shell;
use crate::context::SessionRecord;
use crate::form::Form;
use crate::show::ago;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "account.html")]
pub(crate) struct AccountTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) email: String,
    /// What the user may do, in words.
    pub(crate) role: String,
    /// The password was changed a moment ago.
    pub(crate) is_changed: bool,
    pub(crate) sessions: Vec<SessionLine>,
}

/// A session in the list.
#[derive(Debug, Clone)]
pub(crate) struct SessionLine {
    pub(crate) id: String,
    pub(crate) mark: &'static str,
    pub(crate) device: String,
    /// Network address, when it is known.
    pub(crate) network: String,
    pub(crate) began: String,
    pub(crate) used: String,
    /// The session of this page.
    pub(crate) here: bool,
}

/// The sessions of a user, this one first.
pub(crate) fn session_lines(sessions: &[SessionRecord], here: Uuid, now: DateTime<Utc>) -> Vec<SessionLine> {
    let w = Words;
    let mut lines: Vec<SessionLine> = sessions
        .iter()
        .map(|s| SessionLine {
            id: s.session_id.to_string(),
            mark: if s.session_id == here { "here" } else { "box" },
            device: match s.device.as_str() {
                "phone" => w.t("account-phone"),
                "computer" => w.t("account-computer"),
                _ => w.t("account-device"),
            },
            network: s.network.clone(),
            began: w.t1("account-began", ago(now, s.began_at)),
            used: match (now - s.used_at).num_days() {
                ..1 => w.t("account-used-today"),
                days => w.count("account-used", usize::try_from(days).unwrap_or(1)),
            },
            here: s.session_id == here,
        })
        .collect();
    lines.sort_by_key(|line| !line.here);
    lines
}

#[cfg(test)]
mod tests {
    use chrono::TimeDelta;

    use super::*;

    #[test]
    fn the_session_of_the_page_comes_first() {
        let now = Utc::now();
        let session = |hours: i64, days: i64| SessionRecord {
            session_id: Uuid::new_v4(),
            began_at: now - TimeDelta::hours(hours),
            used_at: now - TimeDelta::days(days),
            device: "phone".into(),
            network: "192.0.2.1".into(),
        };
        let sessions = [session(0, 0), session(1, 0), session(75, 2)];
        let lines = session_lines(&sessions, sessions[2].session_id, now);
        assert_eq!(lines.iter().map(|l| l.here).collect::<Vec<_>>(), [true, false, false]);
        assert_eq!(
            lines.iter().map(|l| format!("{}. {}.", l.began, l.used)).collect::<Vec<_>>(),
            [
                "Signed in 3 days ago. Last used 2 days ago.",
                "Signed in less than an hour ago. Used within a day.",
                "Signed in 1 hour ago. Used within a day.",
            ]
        );
    }
}
