//! Replay: the weather on record run again under another setting.

mod asked;
mod rows;
mod saving;
mod seasons;
mod tabs;
mod view;

pub(crate) use asked::Asked;
pub(crate) use rows::daily_csv;
pub(crate) use seasons::Field;
pub(crate) use view::{ReplayView, ViewInput, best_address};

use crate::context::{ControllerContext, PlaceContext};
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
}

/// The live answer to a setting that is tried: the pieces that are swapped in.
#[derive(askama::Template)]
#[template(path = "replay_live.html")]
pub(crate) struct ReplayLiveTemplate {
    pub(crate) token: String,
    pub(crate) view: Box<ReplayView>,
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
    pub(crate) name: String,
    pub(crate) controllers: Vec<ReplayLink>,
}

/// The controllers of a company, to choose one whose season is replayed.
#[derive(askama::Template)]
#[template(path = "replays.html")]
pub(crate) struct ReplaysTemplate {
    pub(crate) shell: Shell,
    pub(crate) places: Vec<ReplayPlace>,
}

impl ReplaysTemplate {
    /// The controllers that have stations, by place.
    pub(crate) fn of(shell: Shell, places: &[PlaceContext], controllers: &[ControllerContext]) -> Self {
        let own = |place: &PlaceContext| -> Vec<ReplayLink> {
            let mut own: Vec<ReplayLink> = controllers
                .iter()
                .filter(|c| c.at.place.id == place.place.id && !c.controller().stations.is_empty())
                .map(|c| ReplayLink {
                    href: format!("/controllers/{}/replay", c.controller.id),
                    name: c.controller().name.clone(),
                    what: Words.count("replays-what", c.controller().stations.len()),
                })
                .collect();
            own.sort_by(|a, b| a.name.cmp(&b.name));
            own
        };
        let mut list: Vec<ReplayPlace> = places
            .iter()
            .map(|p| ReplayPlace { name: p.place.value.name.clone(), controllers: own(p) })
            .filter(|p| !p.controllers.is_empty())
            .collect();
        list.sort_by(|a, b| a.name.cmp(&b.name));
        Self { shell, places: list }
    }
}
