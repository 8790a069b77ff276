use actix_web::web;
use upland_store::HeadFilter;

use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::finder::{Finder, Search};
use crate::pages::replay::ReplaysTemplate;
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Controllers on a page.
const SIZE: usize = 60;

/// The controllers whose season can be replayed, by place.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn, Query(query): Query) -> Page {
    let asked = Search::of(&query, "page");
    let filter = HeadFilter {
        text: asked.text.clone(),
        skip: asked.skip(SIZE),
        most: Some(SIZE as i64),
        ..HeadFilter::default()
    };
    let part = user.account.heads(&filter).await?;
    let finder = Finder::of("/replay", &asked, [part.total, SIZE], "page", &[]);
    let shell = shell(&app, &user, View::Replay, "replays", Words.t("replay-title"), "/replay");
    page(&ReplaysTemplate::of(shell, &part.items, finder))
}
