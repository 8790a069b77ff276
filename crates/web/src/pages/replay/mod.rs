//! Replay: the weather on record run again under another setting.

mod account;
mod asked;
mod beside;
mod place;
mod rows;
mod saving;
mod seasons;
mod tabs;
mod view;

pub(crate) use asked::{Asked, ENOUGH, last_year};
pub(crate) use beside::KnownBeside;
pub(crate) use place::{Member, PlaceReplay, PlaceReplayTemplate};
pub(crate) use rows::daily_csv;
pub(crate) use seasons::Field;
pub(crate) use view::{ReplayView, ViewInput, best_address};

use uuid::Uuid;

use crate::charts::SeasonPlate;
use crate::context::ControllerHead;
use crate::pages::finder::Finder;
use crate::pages::shell::Shell;
use crate::pages::spine::Spine;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "replay.html")]
pub(crate) struct ReplayTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) view: Option<Box<ReplayView>>,
    /// What is missing before there is a replay, what to do, and where.
    pub(crate) missing: [String; 3],
    /// The address of a search that goes on, or whose answer waits; empty without one.
    pub(crate) search: String,
}

/// A search of the best setting that goes on.
#[derive(askama::Template)]
#[template(path = "replay_search.html")]
pub(crate) struct SearchTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) href: String,
    pub(crate) cancel: String,
    pub(crate) tried: String,
}

impl SearchTemplate {
    /// A search that tried so many settings in so many seconds, at its address.
    pub(crate) fn of(shell: Shell, spine: Spine, [href, search]: [String; 2], (tried, seconds): (u32, u64)) -> Self {
        let tried = usize::try_from(tried).unwrap_or(0);
        Self {
            tried: Words.t2(
                "replay-search-tried",
                ("tried", Words.count("replay-search-settings", tried)),
                ("seconds", seconds.to_string()),
            ),
            cancel: search,
            href,
            shell,
            spine,
        }
    }
}

/// The live answer to a setting that is tried: the pieces that are swapped in.
#[derive(askama::Template)]
#[template(path = "replay_live.html")]
pub(crate) struct ReplayLiveTemplate {
    pub(crate) token: String,
    pub(crate) view: Box<ReplayView>,
}

/// The season of a station as a drawing of its own: ink and paper are in it, as nothing else comes with the file.
#[derive(askama::Template)]
#[template(path = "season.svg", escape = "html")]
pub(crate) struct SeasonSvg<'a> {
    w: Words,
    view: &'a ReplayView,
    plate: &'a SeasonPlate,
}

impl<'a> SeasonSvg<'a> {
    /// Nothing where there is no season to draw.
    pub(crate) fn of(view: &'a ReplayView) -> Option<Self> {
        Some(Self { w: Words, view, plate: view.plate.as_deref()? })
    }
}

/// A controller whose season can be replayed.
#[derive(Debug, Clone)]
pub(crate) struct ReplayLink {
    pub(crate) href: String,
    pub(crate) name: String,
    pub(crate) what: String,
}

/// A place with its controllers.
#[derive(Debug, Clone)]
pub(crate) struct ReplayPlace {
    id: Uuid,
    pub(crate) href: String,
    pub(crate) name: String,
    pub(crate) controllers: Vec<ReplayLink>,
}

/// The controllers of a company, to choose one whose season is replayed.
#[derive(askama::Template)]
#[template(path = "replays.html")]
pub(crate) struct ReplaysTemplate {
    pub(crate) shell: Shell,
    pub(crate) places: Vec<ReplayPlace>,
    pub(crate) finder: Finder,
}

impl ReplaysTemplate {
    /// The controllers of a page of the list, by place; those without stations have nothing to replay.
    pub(crate) fn of(shell: Shell, heads: &[ControllerHead], finder: Finder) -> Self {
        let mut places: Vec<ReplayPlace> = Vec::new();
        for head in heads {
            let stations = usize::try_from(head.stations).unwrap_or(0);
            if stations == 0 {
                continue;
            }
            let link = ReplayLink {
                href: format!("/controllers/{}/replay", head.id),
                name: head.name.clone(),
                what: Words.count("replays-what", stations),
            };
            match places.last_mut().filter(|last| last.id == head.place_id) {
                Some(last) => last.controllers.push(link),
                None => places.push(ReplayPlace {
                    id: head.place_id,
                    href: format!("/places/{}/replay", head.place_id),
                    name: head.place.clone(),
                    controllers: vec![link],
                }),
            }
        }
        Self { shell, places, finder }
    }
}
