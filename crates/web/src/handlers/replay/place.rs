use actix_web::web;
use upland_store::HeadFilter;
use uuid::Uuid;

use crate::apart::apart;
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::replay::{Member, PlaceReplay, PlaceReplayTemplate};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// The controllers of a place together, replayed under each strategy; the address says the period.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Query(query): Query) -> Page {
    let place = user.account.place(*id).await?;
    let heads = user.account.heads(&HeadFilter::of_place(*id)).await?.items;
    let contexts = loading::contexts(&user.account, app.clock, &heads.iter().collect::<Vec<_>>()).await?;
    let ids: Vec<Uuid> = contexts.iter().map(|context| context.controller.id).collect();
    let records = user.account.newest_records(&ids).await?;
    let days = match contexts.first() {
        Some(context) => days_on_record(&user, context).await?,
        None => Vec::new(),
    };
    let members: Vec<Member> = contexts
        .into_iter()
        .map(|context| {
            let own = records.iter().filter(|r| r.controller_id == context.controller.id);
            let panel = FieldState::of(own).panel_still_found().cloned();
            (context, panel)
        })
        .collect();
    let href = format!("/places/{id}/replay");
    let (form, units, at) = (query, user.units, href.clone());
    let view = apart(move || PlaceReplay::of(&members, &days, form, at, units)).await?;
    page(&PlaceReplayTemplate {
        shell: shell(&app, &user, View::Replay, "replay", Words.t("replay-title"), &href),
        place: place.value.place.name,
        view,
        weather: format!("/places/{id}/weather"),
    })
}
