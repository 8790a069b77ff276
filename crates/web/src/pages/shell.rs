//! What stands round every page: masthead, views, undo, keyboard help.

use chrono::NaiveDateTime;

use crate::assets;
use crate::context::{ActionLine, Role};
use crate::form::new_key;
use crate::show::Units;
use crate::words::Words;

/// The views across places, in the order of the masthead.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum View {
    Today,
    Places,
    Rounds,
    Replay,
    Weather,
    Reference,
}

impl View {
    const ALL: [Self; 6] = [Self::Today, Self::Places, Self::Rounds, Self::Replay, Self::Weather, Self::Reference];

    const fn parts(self) -> (&'static str, &'static str, &'static str) {
        match self {
            Self::Today => ("/", "nav-today", "t"),
            Self::Places => ("/places", "nav-places", "p"),
            Self::Rounds => ("/rounds", "nav-rounds", "o"),
            Self::Replay => ("/replay", "nav-replay", "y"),
            Self::Weather => ("/weather", "nav-weather", "w"),
            Self::Reference => ("/reference", "nav-reference", "r"),
        }
    }
}

#[derive(Debug, Clone)]
pub(crate) struct ViewLink {
    pub(crate) href: &'static str,
    pub(crate) label: String,
    pub(crate) key: &'static str,
    pub(crate) current: bool,
}

/// The last action, which can be undone.
#[derive(Debug, Clone)]
pub(crate) struct UndoLine {
    /// Key of the action of undoing, so that pressing twice is harmless.
    pub(crate) action: String,
    /// The action that it takes back.
    pub(crate) undoes: String,
    pub(crate) saved: String,
    pub(crate) what: String,
}

/// The sun and the month at the place of the page.
#[derive(Debug, Clone)]
pub(crate) struct Ephemeris {
    pub(crate) sunrise: String,
    pub(crate) sunset: String,
    pub(crate) period: String,
    pub(crate) et0: String,
}

#[derive(Debug, Clone)]
pub(crate) struct Shell {
    pub(crate) w: Words,
    pub(crate) css: String,
    pub(crate) js: [String; 2],
    pub(crate) title: String,
    pub(crate) body_class: &'static str,
    pub(crate) views: Vec<ViewLink>,
    pub(crate) user_name: String,
    pub(crate) company: String,
    pub(crate) token: String,
    pub(crate) other_units: &'static str,
    pub(crate) units_label: String,
    pub(crate) path: String,
    /// The user sees everything and changes nothing.
    pub(crate) only_reads: bool,
    /// The user looks after the company's people.
    pub(crate) leads: bool,
    pub(crate) undo: Option<UndoLine>,
    pub(crate) ephemeris: Option<Ephemeris>,
    pub(crate) keys: Vec<(String, String)>,
}

/// What a shell is made from.
#[derive(Debug)]
pub(crate) struct ShellInput<'a> {
    /// The view that the page belongs to.
    pub(crate) view: View,
    /// Class of the page's body.
    pub(crate) body_class: &'static str,
    /// Shown in the window's title.
    pub(crate) title: String,
    /// The page's address, to come back to after an undo.
    pub(crate) path: &'a str,
    pub(crate) user_name: &'a str,
    pub(crate) company: &'a str,
    pub(crate) token: &'a str,
    pub(crate) units: Units,
    /// What the user may do.
    pub(crate) role: Role,
    /// The user's last action that can be undone, for the undo line.
    pub(crate) last_action: Option<&'a ActionLine>,
    /// Now, UTC.
    pub(crate) now: NaiveDateTime,
}

impl Shell {
    /// The page belongs to another view than the one it was made for.
    pub(crate) fn stand_in(&mut self, view: View) {
        self.views = View::ALL.map(|v| view_link(v, v == view)).to_vec();
    }

    /// The page belongs to none of the views.
    pub(crate) fn stand_apart(&mut self) {
        for view in &mut self.views {
            view.current = false;
        }
    }

    /// The shell of a page.
    pub(crate) fn of(input: ShellInput<'_>) -> Self {
        let w = Words;
        let units = input.units;
        Self {
            w,
            css: assets::stylesheet(),
            js: assets::scripts(),
            title: input.title,
            body_class: input.body_class,
            views: View::ALL.map(|v| view_link(v, v == input.view)).to_vec(),
            user_name: input.user_name.to_owned(),
            company: input.company.to_owned(),
            token: input.token.to_owned(),
            other_units: units.other().word(),
            units_label: match units.other() {
                crate::show::Units::Us => w.t("units-to-us"),
                crate::show::Units::Metric => w.t("units-to-metric"),
            },
            path: input.path.to_owned(),
            only_reads: input.role == Role::Reader,
            leads: input.role == Role::Lead,
            undo: undo_line(input.last_action, input.now),
            ephemeris: None,
            keys: [
                ("?", "keys-help"),
                ("g t", "keys-today"),
                ("g p", "keys-places"),
                ("g o", "keys-rounds"),
                ("g w", "keys-weather"),
                ("g r", "keys-reference"),
                ("j / k", "keys-stations"),
                ("Ctrl Z", "keys-undo"),
                ("Esc", "keys-escape"),
            ]
            .map(|(k, t)| (k.to_owned(), w.t(t)))
            .to_vec(),
        }
    }
}

fn view_link(view: View, current: bool) -> ViewLink {
    let (href, label, key) = view.parts();
    ViewLink { href, label: Words.t(label), key, current }
}

fn undo_line(last: Option<&ActionLine>, now: NaiveDateTime) -> Option<UndoLine> {
    let last = last?;
    let at = last.at.naive_utc();
    let ago = (now - at).num_minutes();
    let w = Words;
    let saved = match ago {
        i64::MIN..1 => w.t("saved-now"),
        1..60 => w.count("saved-minutes", usize::try_from(ago).unwrap_or(1)),
        60..1440 => w.count("saved-hours", usize::try_from(ago / 60).unwrap_or(1)),
        _ => w.t1("saved-on", crate::show::date_short(at.date())),
    };
    Some(UndoLine { action: new_key(), undoes: last.id.to_string(), saved, what: w.t(&last.why) })
}
