use actix_web::web;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::round::{RoundRow, RoundsTemplate};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Rounds across places: what is due first stands first.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn) -> Page {
    let (_, contexts) = loading::everything(&user.account).await?;
    let records = user.account.newest_records(None).await?;
    let mut rows: Vec<RoundRow> = contexts
        .iter()
        .map(|context| {
            let own = records.iter().filter(|r| r.controller_id == context.controller.id);
            RoundRow::of(context, &FieldState::of(own), app.clock.today(context.at.zone))
        })
        .collect();
    // Never dialled stands last: there is nothing yet to look at again.
    rows.sort_by_key(|r| (r.day.is_none(), r.day, r.place.clone(), r.controller.clone()));
    let shell = shell(&app, &user, View::Rounds, "rounds", Words.t("nav-rounds"), "/rounds");
    page(&RoundsTemplate { shell, rows })
}
