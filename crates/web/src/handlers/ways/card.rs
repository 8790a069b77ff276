use actix_web::web;
use uuid::Uuid;

use crate::assets::stylesheet;
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::by_hand::{ByHandTemplate, HandCard};
use crate::pages::last_weeks::LastWeeks;
use crate::show::date_long;
use crate::state::App;
use crate::words::Words;

/// The card of this week as it would be printed now.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    let days = days_on_record(&user, &context).await?;
    let weeks = LastWeeks::of(&context, context.controller().clone(), &days, today);
    let used = weeks.map_or_else(Vec::new, |weeks| weeks.used_in_a_week());
    page(&ByHandTemplate {
        w: Words,
        css: stylesheet(),
        back: format!("/controllers/{id}/ways"),
        controller: context.controller().name.clone(),
        place: context.at.place.value.place.name.clone(),
        issued: date_long(today),
        by: user.user.name.clone(),
        company: user.user.account_name.clone(),
        card: HandCard::of(&context, &used, today, user.units),
    })
}
