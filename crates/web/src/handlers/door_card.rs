use actix_web::web;
use uuid::Uuid;

use crate::assets::stylesheet;
use crate::charts::{Strip, StripInput};
use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::handlers::strips::strip_days;
use crate::loading;
use crate::pages::door_card::*;
use crate::pages::field::FieldState;
use crate::pages::stations::missing_note;
use crate::pages::water_windows;
use crate::show::{date_long, month_of};
use crate::state::App;
use crate::words::Words;

/// The card as it would be printed now.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let w = Words;
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    let now = month_of(today);
    let budget = context.budget();
    let strip = match (&budget, context.normals()) {
        (Ok(b), Ok(normals)) => {
            let days = strip_days(&user, &context.at, today).await?;
            Some(Strip::card(&StripInput { normals, group: b.groups.first(), days: &days, today, units: user.units }))
        }
        _ => None,
    };
    let c = context.controller();
    let situation = context.week_of(today);
    let plan = context.plan();
    let records = user.account.newest_records(&[*id]).await?;
    let state = FieldState::of(&records);
    let used =
        w.t2("stations-used", ("used", c.stations.len().to_string()), ("all", c.capability.stations.to_string()));
    page(&DoorCardTemplate {
        w,
        css: stylesheet(),
        back: format!("/controllers/{id}/year"),
        dial: format!("/controllers/{id}/dial-in"),
        controller: c.name.clone(),
        place: w.t2("card-place", ("place", &context.at.place.value.place.name), ("used", used)),
        issued: issued(today),
        by: user.user.name.clone(),
        company: user.user.account_name.clone(),
        card: context.controller.version.to_string(),
        strip,
        stations: budget.as_ref().map_or_else(|_| Vec::new(), |b| card_stations(c, b, &plan)),
        months: card_months(now),
        programs: budget.as_ref().map_or_else(|_| Vec::new(), |b| card_programs(c, b, now)),
        schedules: card_schedules(c, &plan, &situation),
        windows: water_windows::line(&c.windows, c.capability.clock_face),
        ends_head: ends_head(c, &plan),
        never: card_never(&context),
        sensors: card_sensors(c, user.units),
        visits: card_visits(&state, context.controller()),
        since: state.last_change().map_or_else(|| w.t("card-not-dialled"), date_long),
        percent_note: percent_note(c),
        fewer: budget.as_ref().map_or_else(|_| String::new(), |b| fewer_line(b)),
        note: missing_note(budget.err()),
    })
}
