use actix_web::web;
use uuid::Uuid;

use super::show::{effect_of, recent_et0_at};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::round::{AdviceView, RoundLiveTemplate, advice, read};
use crate::state::App;
use crate::words::Words;

/// The one next change for what was seen so far. Nothing is saved.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let records = user.account.newest_records(&[*id]).await?;
    let today = app.clock.today(context.at.zone);
    let recent = recent_et0_at(&user, &context, today).await?;
    let seen = read(&mut form, &context, today, &FieldState::of(&records), recent);
    let advice = advice(&context, &seen);
    let view = AdviceView::of(&context, &seen, &advice, user.units);
    let effect = effect_of(&user, context, &advice, today).await?;
    page(&RoundLiveTemplate { w: Words, advice: AdviceView { effect, ..view } })
}
