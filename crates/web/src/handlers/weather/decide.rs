use actix_web::web;
use chrono::{Days, NaiveDate};
use upland_core::climate::element::Element;
use upland_core::climate::quality::DayIssue;
use upland_core::climate::review::{Decision, Verdict, decide as decide_in};
use upland_core::quantity::limit;
use upland_store::{Record as Stored, SeriesRecord, Write};
use uuid::Uuid;

use super::record::series_page;
use crate::context::Record;
use crate::error::Page;
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::{made_on, save_over};
use crate::handlers::{go, invalid};
use crate::intake::{DailyRecord, revision_of_record};
use crate::loading;
use crate::pages::days_form::read_date;
use crate::pages::series::measure;
use crate::pages::weather_file::no_normals;
use crate::show::Units;
use crate::state::App;
use crate::words::Words;

/// Accepts, excludes or corrects values of a record, takes a decision back, or enters what was read by hand.
/// All that follows from the values is worked out anew and written with the decision.
pub(crate) async fn decide(app: web::Data<App>, user: SignedIn, id: web::Path<Uuid>, Posted(mut form): Posted) -> Page {
    let whole = loading::whole_record(&user.account, *id).await?;
    let record = &whole.record;
    let today = app.clock.today(chrono_tz::Tz::UTC);
    let Some(decisions) = read(&mut form, record, today, user.units) else {
        return invalid(&series_page(&app, &user, whole.record, form).await?);
    };
    let series = &record.weather.series;
    let to = format!("/weather/{}", series.id);
    if decisions == record.decisions {
        return go(&to);
    }
    let revision = revision_of_record(DailyRecord { decisions, ..DailyRecord::of(&whole) });
    let revision = match revision {
        Ok(revision) => revision,
        Err(error) => {
            // Such as the only day of a month excluded: the record would have no normals.
            form.fail("value", Words.t1("decision-too-much", no_normals(&error)));
            return invalid(&series_page(&app, &user, whole.record, form).await?);
        }
    };
    let after = SeriesRecord { revision_id: revision.id, ..series.value.clone() };
    let write =
        Write { id: series.id, made_on: made_on(&form), record: Stored::Series(Some(after), Some(Box::new(revision))) };
    let post_to = format!("{to}/decide");
    save_over(&app, &user, form, "why-weather-value", write, [&post_to, &to]).await
}

/// The decisions that would stand; errors are put beside their fields.
fn read(form: &mut Form, record: &Record, today: NaiveDate, units: Units) -> Option<Vec<Decision>> {
    let by_hand = form.has("reading_date");
    let element = if by_hand { Some(Element::Rain) } else { Element::of_word(form.get("element")) };
    let element = element.or_else(|| {
        form.fail("value", Words.t("field-choice"));
        None
    })?;
    let days = days(form, record, today, by_hand, element)?;
    let value_field = if by_hand { "reading" } else { "value" };
    let verdict = match form.get("verdict") {
        "accept" => Some(Verdict::Accepted),
        "exclude" => Some(Verdict::Excluded),
        "back" => None,
        _ => Some(Verdict::Corrected(form.needed(value_field, measure(element), element.range(), units)?)),
    };
    let reason = form.get("reason").trim().to_owned();
    if reason.chars().count() > limit::NAME {
        form.fail("reason", Words.t1("decision-reason-long", limit::NAME.to_string()));
        return None;
    }
    let reason = if by_hand && reason.is_empty() { Words.t("reading-reason") } else { reason };
    match decide_in(&record.read(), &record.decisions, days, element, verdict, &reason) {
        Ok(decisions) => Some(decisions),
        Err(issue) => {
            form.fail(value_field, impossible(&issue));
            None
        }
    }
}

/// The days that a form is about.
fn days(form: &mut Form, record: &Record, today: NaiveDate, by_hand: bool, element: Element) -> Option<Vec<NaiveDate>> {
    if by_hand {
        let date = read_date(form, "reading_date")?;
        // East of Greenwich it may be tomorrow already.
        let last = today + Days::new(1);
        if date > last || record.span().is_some_and(|[first, _]| date < first) {
            form.fail("reading_date", Words.t("reading-date-range"));
            return None;
        }
        return Some(vec![date]);
    }
    let kind = form.get("all").to_owned();
    if !kind.is_empty() {
        let open = record.open_flags();
        let of_it = open.iter().filter(|flag| flag.doubt.word() == kind && flag.element == element);
        return Some(of_it.flat_map(upland_core::climate::flags::Flag::days).collect());
    }
    let date = |field: &str| form.get(field).parse::<NaiveDate>().ok();
    let (from, to) = (date("from")?, date("to")?);
    let [first, last] = record.span()?;
    let days: Vec<NaiveDate> =
        from.iter_days().take_while(|d| *d <= to).filter(|d| *d >= first && *d <= last).collect();
    (to >= from && !days.is_empty()).then_some(days)
}

fn impossible(issue: &DayIssue) -> String {
    Words.t(match issue {
        DayIssue::TminAboveTmax { .. } => "decision-low-above-high",
        DayIssue::RhMinAboveMax => "decision-humidity-crossed",
        _ => "decision-impossible",
    })
}
