use actix_web::web;
use uuid::Uuid;

use crate::app::App;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::pages::desk::Desk;
use crate::pages::field::FieldState;
use crate::pages::round::{AdviceView, RoundTemplate, advice, empty, grounds, percents, read};
use crate::pages::spine::Step;
use crate::words::Words;

/// A round of one controller.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>) -> Page {
    let desk = Desk::load(&user.account, *id).await?;
    let form = empty(&desk, app.clock.today(desk.at.zone));
    page(&round_page(&app, &user, &desk, form).await?)
}

pub(super) async fn round_page(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    form: Form,
) -> Result<RoundTemplate, PageError> {
    let w = Words;
    let href = format!("/controllers/{}/round", desk.controller.id);
    let frame = frame(app, user, desk, Step::Week, ["round", "round-title"], &href).await?;
    let now = app.clock.local(desk.at.zone);
    let records = user.account.newest_records(Some(desk.controller.id)).await?;
    let state = FieldState::of(&records);
    let seen = read(&mut form.clone(), desk, now.date(), state.last_change());
    let advice = advice(desk, &seen);
    Ok(RoundTemplate {
        sub: w.with(
            "round-sub",
            &[
                ("controller", &desk.controller().name),
                ("date", &crate::show::date_short(now.date())),
                ("time", &now.format("%H:%M").to_string()),
            ],
        ),
        back: format!("/controllers/{}/week", desk.controller.id),
        version: desk.controller.version,
        percents: percents(desk, now.date()),
        grounds: grounds(desk.controller()),
        advice: AdviceView::of(desk, &seen, &advice, user.units),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        form,
        href,
    })
}
