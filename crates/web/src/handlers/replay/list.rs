use actix_web::web;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::loading;
use crate::pages::replay::ReplaysTemplate;
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// The controllers whose season can be replayed, by place.
pub(crate) async fn list(app: web::Data<App>, user: SignedIn) -> Page {
    let (places, controllers) = loading::everything(&user.account).await?;
    let shell = shell(&app, &user, View::Replay, "replays", Words.t("replay-title"), "/replay");
    page(&ReplaysTemplate::of(shell, &places, &controllers))
}
