use actix_web::web;
use upland_formats::site::{Answer, ChangeDoc, FieldDoc, RoundDoc};
use uuid::Uuid;

use super::show::{recent_et0_at, round_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{action, apply_over, controller_write, field_record};
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::round::{AdviceView, advice, applied, read};
use crate::state::App;
use crate::words::Words;

/// Keeps a round with its answer: an accepted change becomes a new version of the controller in
/// the same transaction, and so something to dial.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let today = app.clock.today(context.at.zone);
    let records = user.account.newest_records(&[*id]).await?;
    let recent = recent_et0_at(&user, &context, today).await?;
    let seen = read(&mut form, &context, today, &FieldState::of(&records), recent);
    let advice = advice(&context, &seen);
    let view = AdviceView::of(&context, &seen, &advice, user.units);
    let answer = match form.get("answer") {
        _ if advice.change.is_none() => Answer::Nothing,
        "accept" => Answer::Accepted,
        _ => Answer::Rejected,
    };
    let reason = form.get("reason").to_owned();
    if answer == Answer::Rejected && !upland_core::controller::name_is_valid(&reason) {
        form.fail("reason", Words.t("round-needs-reason"));
    }
    if answer == Answer::Accepted && !form.is("offered", &view.offer) {
        // What was accepted is not what follows from what was seen: without script, or changed since.
        form.fail("offered", Words.t("round-other-offer"));
    }
    if !form.is_sound() {
        return invalid(&round_page(&app, &user, &context, form, recent).await?);
    }
    let changed = if answer == Answer::Accepted { applied(&context, &advice, today) } else { None };
    let write = changed.map(|controller| controller_write(&context.controller, &form, controller));
    let to_dial = answer == Answer::Accepted;
    let to = format!("/controllers/{id}/{}", if to_dial { "dial-in?only=changed" } else { "log" });
    let mut action = action(&app, &user, &form, ["why-round", &to], write.into_iter().collect());
    let document = FieldDoc::Round(RoundDoc {
        on: today,
        percents: seen.percents.iter().map(|(l, p)| (l.get(), p.get())).collect(),
        stations: seen.stations.iter().map(|(n, j)| (*n, (*j).into())).collect(),
        change: advice.change.map(ChangeDoc::from),
        answer,
        reason: if answer == Answer::Rejected { reason } else { String::new() },
        look_again: advice.look_again,
        note: form.get("note").to_owned(),
    });
    action.records.push(field_record(&action, &form, context.controller.id, document));
    let address = format!("/controllers/{id}/round");
    apply_over(&app, &user, form, &action, [&address, &address]).await
}
