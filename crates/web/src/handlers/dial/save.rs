use actix_web::web;
use chrono::TimeDelta;
use upland_core::dial_in::Slot;
use upland_core::tuning::LOOK_AGAIN_DAYS;
use upland_formats::site::{DialledDoc, FieldDoc, PanelNextDoc};
use uuid::Uuid;

use super::show::dial_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::invalid;
use crate::handlers::saving::{action, apply_over, controller_write, field_record, made_on};
use crate::loading;
use crate::pages::dial::DialIn;
use crate::pages::field::FieldState;
use crate::state::App;
use crate::words::Words;

/// Dialled on: what the panel holds since, with date and name.
pub(crate) async fn save(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    if made_on(&form) != context.controller.version {
        form.fail("marks", Words.t("dial-changed"));
    }
    if form.is("agrees", "other") && form.get("panel_next").is_empty() {
        form.fail("panel_next", Words.t("dial-what-says"));
    }
    if form.get("panel_next").chars().count() > 60 {
        form.fail("panel_next", Words.t("field-name"));
    }
    if !form.is_sound() {
        return invalid(&dial_page(&app, &user, &context, form).await?);
    }
    let now = app.clock.local(context.at.zone);
    let dial = DialIn::of(&context, now, user.units);
    let marks = dial.marks(&form, &FieldState::default());
    let set = || dial.slots.iter().zip(&marks).filter(|(_, m)| m.stands()).map(|(slot, _)| slot);
    let stands: Vec<String> = set().map(Slot::key).collect();
    let put_back: Vec<u16> = set().filter_map(Slot::puts_back).collect();
    let our_next = dial.next(&context, app.clock.moment(context.at.zone));
    // What was over and is off the panel now is off the record too, in the same action.
    let mut writes = Vec::new();
    if !put_back.is_empty() {
        let mut changed = context.controller().clone();
        changed.temporaries.retain(|t| !put_back.contains(&t.id));
        writes.push(controller_write(&context.controller, &form, changed));
    }
    let document = FieldDoc::Dialled(DialledDoc {
        on: now.date(),
        version: context.controller.version + i32::from(!writes.is_empty()),
        values: dial.values().into_iter().filter(|(key, _)| stands.contains(key)).collect(),
        not_set: dial.slots.iter().map(Slot::key).filter(|key| !stands.contains(key)).collect(),
        panel_next: match (form.get("agrees"), form.get("panel_next")) {
            ("same", _) => PanelNextDoc::Same,
            ("other", words) => PanelNextDoc::Words(words.to_owned()),
            _ => PanelNextDoc::NotSeen,
        },
        our_next,
        look_again: now.date() + TimeDelta::days(LOOK_AGAIN_DAYS),
    });
    let [post_to, to] = ["dial-in", "door-card"].map(|page| format!("/controllers/{id}/{page}"));
    let mut action = action(&app, &user, &form, ["why-dialled", &to], writes);
    action.records.push(field_record(&action, &form, context.controller.id, document));
    apply_over(&app, &user, form, &action, [&post_to, &to]).await
}
