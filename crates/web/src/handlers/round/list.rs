use actix_web::web;

use crate::app::App;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::desk::all_desks;
use crate::pages::field::FieldState;
use crate::pages::round::{RoundRow, RoundsTemplate};
use crate::pages::shell::{Shell, View};
use crate::words::Words;

/// Rounds across places: what is due first stands first.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn) -> Page {
    let (_, desks) = all_desks(&user.account).await?;
    let records = user.account.newest_records(None).await?;
    let mut rows: Vec<RoundRow> = desks
        .iter()
        .map(|desk| {
            let own = records.iter().filter(|r| r.controller_id == desk.controller.id);
            RoundRow::of(desk, &FieldState::of(own), app.clock.today(desk.at.zone))
        })
        .collect();
    // Never dialled stands last: there is nothing yet to look at again.
    rows.sort_by_key(|r| (r.day.is_none(), r.day, r.place.clone(), r.controller.clone()));
    let shell = Shell::of(&app, &user, View::Rounds, "rounds", Words.t("nav-rounds"), "/rounds").await?;
    page(&RoundsTemplate { shell, rows })
}
