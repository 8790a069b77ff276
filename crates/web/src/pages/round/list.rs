//! Rounds across places.

use chrono::NaiveDate;

use crate::context::ControllerHead;
use crate::pages::finder::Finder;
use crate::pages::shell::Shell;
use crate::show::date_short;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "rounds.html")]
pub(crate) struct RoundsTemplate {
    pub(crate) shell: Shell,
    pub(crate) rows: Vec<RoundRow>,
    pub(crate) finder: Finder,
}

/// A controller in the list of rounds.
#[derive(Debug, Clone)]
pub(crate) struct RoundRow {
    pub(crate) mark: &'static str,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) due: String,
    pub(crate) last: String,
    pub(crate) href: String,
}

impl RoundRow {
    pub(crate) fn of(head: &ControllerHead, today: NaiveDate) -> Self {
        let w = Words;
        let day = head.look_again;
        let due = match day {
            Some(d) if d <= today => w.t1("rounds-due", date_short(d)),
            Some(d) => w.t1("rounds-on", date_short(d)),
            None => w.t("rounds-never"),
        };
        Self {
            mark: match day {
                Some(d) if d <= today => "flag",
                Some(_) => "done",
                None => "todo",
            },
            controller: head.name.clone(),
            place: head.place.clone(),
            due,
            last: head.last_visit.map_or_else(|| w.t("rounds-no-visit"), |d| w.t1("rounds-last", date_short(d))),
            href: format!("/controllers/{}", head.id),
        }
    }
}
