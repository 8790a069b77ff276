use actix_web::web;
use chrono::TimeDelta;
use uuid::Uuid;

use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::last_weeks::BALANCE_DAYS;
use crate::pages::spine::Step;
use crate::pages::temporary::{TemporaryTemplate, empty, kinds, lines, programs, sensors, week_proposals};
use crate::state::App;

/// What is set for a while, and a percent for this week out of the rain since the last visit.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    page(&temporary_page(&app, &user, &context, empty(today)).await?)
}

/// Days that are looked back when nobody was there before.
const LOOK_BACK_DAYS: i64 = 7;
/// And at most.
const LOOK_BACK_MOST_DAYS: i64 = 31;

pub(super) async fn temporary_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    form: Form,
) -> Result<TemporaryTemplate, PageError> {
    let href = format!("/controllers/{}/temporary", context.controller.id);
    let frame = frame(app, user, context, Step::Week, ["temporary", "temp-title"], &href).await?;
    let today = app.clock.today(context.at.zone);
    let records = user.account.newest_records(&[context.controller.id]).await?;
    let last = FieldState::of(&records).last_visit().filter(|d| *d < today);
    let since =
        last.unwrap_or(today - TimeDelta::days(LOOK_BACK_DAYS)).max(today - TimeDelta::days(LOOK_BACK_MOST_DAYS));
    let days = match &context.at.weather {
        Some(weather) if weather.has_days() => {
            let from = today - TimeDelta::days(BALANCE_DAYS);
            loading::days_between(&user.account, weather, [from, today]).await?
        }
        _ => Vec::new(),
    };
    let c = context.controller();
    Ok(TemporaryTemplate {
        version: context.controller.version,
        kinds: kinds(c),
        programs: programs(c),
        sensors: sensors(c),
        lines: lines(c, today),
        gauge: context.at.weather.as_ref().map(|w| format!("/weather/{}#reading-h", w.rain_series())),
        weeks: week_proposals(context, &days, since, today, user.units),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        form,
        href,
    })
}
