use actix_web::web;
use chrono::{NaiveDate, TimeDelta};
use upland_core::sensor::{ET_MEAN_DAYS, recent_et0};
use upland_core::tuning::Advice;
use uuid::Uuid;

use crate::apart::apart;
use crate::context::ControllerContext;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::effect::effect;
use crate::pages::field::FieldState;
use crate::pages::round::{AdviceView, RoundTemplate, advice, empty, grounds, percents, read};
use crate::pages::spine::Step;
use crate::show::clock;
use crate::state::App;
use crate::words::Words;

/// A round of one controller.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    let recent = recent_et0_at(&user, &context, today).await?;
    let form = empty(&context, today, recent);
    page(&round_page(&app, &user, &context, form, recent).await?)
}

/// What a change would have done in the weather on record; empty where nothing changes.
pub(super) async fn effect_of(
    user: &SignedIn,
    context: ControllerContext,
    advice: &Advice,
    today: NaiveDate,
) -> Result<String, PageError> {
    let Some(change) = advice.change else { return Ok(String::new()) };
    let days = days_on_record(user, &context).await?;
    apart(move || effect(&context, &days, change, today)).await
}

/// Mean reference ET of the last days, mm a day, where an ET sensor sets a program and the weather is on record.
pub(super) async fn recent_et0_at(
    user: &SignedIn,
    context: &ControllerContext,
    today: NaiveDate,
) -> Result<Option<f64>, PageError> {
    let c = context.controller();
    let Some(weather) =
        context.at.weather.as_ref().filter(|_| c.programs.iter().any(|p| c.percent_by_sensor(p.letter)))
    else {
        return Ok(None);
    };
    let week = [today - TimeDelta::days(ET_MEAN_DAYS as i64), today];
    Ok(recent_et0(&loading::days_between(&user.account, weather, week).await?, today))
}

pub(super) async fn round_page(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    form: Form,
    recent_et0: Option<f64>,
) -> Result<RoundTemplate, PageError> {
    let w = Words;
    let href = format!("/controllers/{}/round", context.controller.id);
    let frame = frame(app, user, context, Step::Week, ["round", "round-title"], &href).await?;
    let now = app.clock.local(context.at.zone);
    let records = user.account.newest_records(&[context.controller.id]).await?;
    let state = FieldState::of(&records);
    let seen = read(&mut form.clone(), context, now.date(), &state, recent_et0);
    let advice = advice(context, &seen);
    Ok(RoundTemplate {
        sub: w.with(
            "round-sub",
            &[
                ("controller", &context.controller().name),
                ("date", &crate::show::date_short(now.date())),
                ("time", &clock(now)),
            ],
        ),
        back: format!("/controllers/{}/week", context.controller.id),
        version: context.controller.version,
        percents: percents(context, now.date(), recent_et0),
        grounds: grounds(context.controller()),
        advice: AdviceView {
            effect: effect_of(user, context.clone(), &advice, now.date()).await?,
            ..AdviceView::of(context, &seen, &advice, user.units)
        },
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        form,
        href,
    })
}
