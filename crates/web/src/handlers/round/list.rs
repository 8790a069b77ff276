use actix_web::web;
use chrono_tz::Tz;
use upland_store::HeadFilter;

use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::finder::{Finder, Search};
use crate::pages::round::{RoundRow, RoundsTemplate};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Controllers on a page.
const SIZE: usize = 50;

/// Rounds across places: what is due first stands first; never dialled stands last, as there is nothing yet
/// to look at again.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn, Query(query): Query) -> Page {
    let asked = Search::of(&query, "page");
    let filter = HeadFilter {
        text: asked.text.clone(),
        by_look_again: true,
        skip: asked.skip(SIZE),
        most: Some(SIZE as i64),
        ..HeadFilter::default()
    };
    let part = user.account.heads(&filter).await?;
    let rows =
        part.items.iter().map(|head| RoundRow::of(head, app.clock.today(head.time_zone.parse().unwrap_or(Tz::UTC))));
    page(&RoundsTemplate {
        shell: shell(&app, &user, View::Rounds, "rounds", Words.t("nav-rounds"), "/rounds"),
        rows: rows.collect(),
        finder: Finder::of("/rounds", &asked, [part.total, SIZE], "page", &[]),
    })
}
