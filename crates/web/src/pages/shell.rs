//! What stands round every page: masthead, views, undo, keyboard help.

use chrono::NaiveDateTime;
use upland_store::ChangeEntry;

use crate::app::App;
use crate::assets;
use crate::error::PageError;
use crate::guard::signed_in::SignedIn;
use crate::words::Words;

/// The views across places, in the order of the masthead.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum View {
    Today,
    Places,
    Rounds,
    Weather,
    Reference,
}

impl View {
    const ALL: [Self; 5] = [Self::Today, Self::Places, Self::Rounds, Self::Weather, Self::Reference];

    const fn parts(self) -> (&'static str, &'static str, &'static str) {
        match self {
            Self::Today => ("/", "nav-today", "t"),
            Self::Places => ("/places", "nav-places", "p"),
            Self::Rounds => ("/rounds", "nav-rounds", "o"),
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

/// The last thing done, which can be taken back.
#[derive(Debug, Clone)]
pub(crate) struct UndoLine {
    /// Key of the action of undoing, so that pressing twice is harmless.
    pub(crate) action: String,
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
    pub(crate) css: [String; 2],
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
    pub(crate) undo: Option<UndoLine>,
    pub(crate) ephemeris: Option<Ephemeris>,
    pub(crate) keys: Vec<(String, String)>,
}

pub(crate) fn stylesheets() -> [String; 2] {
    [assets::path("bulma.min.css"), assets::path("almanac.css")]
}

fn scripts() -> [String; 2] {
    [assets::path("almanac.js"), assets::path("alpine-csp.min.js")]
}

impl Shell {
    /// The shell of a page of a view; `title` is shown in the window's title.
    pub(crate) async fn of(
        app: &App,
        user: &SignedIn,
        view: View,
        body_class: &'static str,
        title: String,
        path: &str,
    ) -> Result<Self, PageError> {
        let last = user.account.last_action(user.user.id).await?;
        let w = Words;
        Ok(Self {
            w,
            css: stylesheets(),
            js: scripts(),
            title,
            body_class,
            views: View::ALL.map(|v| view_link(v, v == view)).to_vec(),
            user_name: user.user.name.clone(),
            company: user.user.account_name.clone(),
            token: user.token.clone(),
            other_units: user.units.other().word(),
            units_label: match user.units.other() {
                crate::show::Units::Us => w.t("units-to-us"),
                crate::show::Units::Metric => w.t("units-to-metric"),
            },
            path: path.to_owned(),
            undo: undo_line(&last, app.clock.now().naive_utc()),
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
        })
    }
}

fn view_link(view: View, current: bool) -> ViewLink {
    let (href, label, key) = view.parts();
    ViewLink { href, label: Words.t(label), key, current }
}

fn undo_line(last: &[ChangeEntry], now: NaiveDateTime) -> Option<UndoLine> {
    let first = last.first()?;
    let at = first.at.naive_utc();
    let ago = (now - at).num_minutes();
    let w = Words;
    let saved = match ago {
        i64::MIN..1 => w.t("saved-now"),
        1..60 => w.count("saved-minutes", usize::try_from(ago).unwrap_or(1)),
        60..1440 => w.count("saved-hours", usize::try_from(ago / 60).unwrap_or(1)),
        _ => w.t1("saved-on", crate::show::date_short(at.date())),
    };
    Some(UndoLine { action: uuid::Uuid::new_v4().to_string(), saved, what: w.t(&first.why) })
}
