use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::field::FieldState;
use crate::pages::round::{AdviceView, RoundLiveTemplate, advice, read};
use crate::words::Words;

/// The one next change for what was seen so far. Nothing is saved.
pub(crate) async fn look(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let records = user.account.newest_records(Some(*id)).await?;
    let last_change = FieldState::of(&records).last_change();
    let seen = read(&mut form, &desk, app.clock.today(desk.at.zone), last_change);
    let advice = advice(&desk, &seen);
    page(&RoundLiveTemplate { w: Words, advice: AdviceView::of(&desk, &seen, &advice, user.units) })
}
