use actix_web::web;
use uuid::Uuid;

use super::Loaded;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::pages::replay::ReplayTemplate;
use crate::pages::shell::View;
use crate::pages::spine::Step;
use crate::searches::Searches;
use crate::state::App;
use crate::words::Words;

/// The replay of a controller; the address says the program, the station, the period and what is tried.
pub(crate) async fn show(
    app: web::Data<App>,
    searches: web::Data<Searches>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Query(query): Query,
) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let (loaded, view) = loaded.view_apart(query, user.units).await?;
    let mut frame = frame(&app, &user, &loaded.context, Step::Year, ["replay", "replay-title"], &loaded.href()).await?;
    frame.shell.stand_in(View::Replay);
    frame.spine.leave();
    let w = Words;
    let (note, go, href) = if loaded.days.is_empty() {
        ("replay-missing-days", "replay-missing-days-go", format!("/places/{}/weather", loaded.context.at.place.id))
    } else {
        ("replay-missing-stations", "replay-missing-stations-go", format!("/controllers/{id}/stations"))
    };
    page(&ReplayTemplate {
        shell: frame.shell,
        spine: frame.spine,
        view: view.map(Box::new),
        missing: [w.t(note), w.t(go), href],
        search: searches
            .of_controller(user.user.id, *id)
            .map_or_else(String::new, |search| format!("{}/best/{}", loaded.href(), search.id)),
    })
}
