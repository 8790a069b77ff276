use std::sync::Arc;
use std::time::Duration;

use actix_web::web;
use uuid::Uuid;

use super::Loaded;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::{go, page};
use crate::loading;
use crate::pages::replay::{Asked, Field, SearchTemplate, best_address};
use crate::pages::shell::View;
use crate::pages::spine::Step;
use crate::searches::{Outcome, Search, Searches};
use crate::state::App;

/// A search that is done by then is answered at once.
const AT_ONCE: Duration = Duration::from_secs(1);
/// The page of a search asks again after so many seconds.
const ASKS_AGAIN_S: &str = "1";

/// Searches the setting of least water that is enough, and leads to its replay, or to the page of the search while it
/// goes on.
pub(crate) async fn best(
    app: web::Data<App>,
    searches: web::Data<Searches>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let loaded = Loaded::of(&app, &user, *id).await?;
    let href = loaded.href();
    let search = searches.begin(user.user.id, *id, move |progress| {
        let field = Field::of(&loaded.context, &loaded.days, loaded.found.as_ref())?;
        let asked = Asked::read(&mut form, (&field.controller, &field.plan), &loaded.days)?;
        best_address(&field, &asked, progress)
    });
    let begun = tokio::time::Instant::now();
    while search.outcome() == Outcome::Going && begun.elapsed() < AT_ONCE {
        tokio::time::sleep(Duration::from_millis(20)).await;
    }
    match search.outcome() {
        Outcome::Going => go(&format!("{href}/best/{}", search.id)),
        outcome => ended(&searches, &search, &href, outcome),
    }
}

/// How far a search is; once it has ended, on to its replay.
pub(crate) async fn show(
    app: web::Data<App>,
    searches: web::Data<Searches>,
    user: SignedIn,
    path: web::Path<(Uuid, Uuid)>,
) -> Page {
    let (id, search) = path.into_inner();
    let context = loading::controller(&user.account, app.clock, id).await?;
    let href = format!("/controllers/{id}/replay");
    // One that is not known any more was fetched, stopped or is half an hour old.
    let Some(search) = of(&searches, &user, id, search) else { return go(&href) };
    let outcome = search.outcome();
    if outcome != Outcome::Going {
        return ended(&searches, &search, &href, outcome);
    }
    let framed = frame(&app, &user, &context, Step::Year, ["replay", "replay-title"], &href);
    let mut frame = framed.await?;
    frame.shell.stand_in(View::Replay);
    frame.spine.leave();
    let mut answer = page(&SearchTemplate::of(
        frame.shell,
        frame.spine,
        [href.clone(), format!("{href}/best/{}", search.id)],
        (search.progress.tried(), search.seconds()),
    ))?;
    // Asked again without a script.
    answer
        .headers_mut()
        .insert(actix_web::http::header::REFRESH, actix_web::http::header::HeaderValue::from_static(ASKS_AGAIN_S));
    Ok(answer)
}

/// Stops a search.
pub(crate) async fn cancel(
    app: web::Data<App>,
    searches: web::Data<Searches>,
    user: SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    _: Posted,
) -> Page {
    let (id, search) = path.into_inner();
    loading::controller(&user.account, app.clock, id).await?;
    if let Some(search) = of(&searches, &user, id, search) {
        searches.forget(search.id);
    }
    go(&format!("/controllers/{id}/replay"))
}

fn of(searches: &Searches, user: &SignedIn, controller: Uuid, id: Uuid) -> Option<Arc<Search>> {
    searches.of_user(user.user.id, id).filter(|search| search.controller == controller)
}

fn ended(searches: &Searches, search: &Search, href: &str, outcome: Outcome) -> Page {
    searches.forget(search.id);
    match outcome {
        Outcome::Found(query) => go(&format!("{href}?{query}")),
        // Nothing to search, or a second press took this one's place.
        Outcome::Going | Outcome::Nothing => go(href),
    }
}
