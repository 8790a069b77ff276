//! Why a station got no water, in words.

use chrono::{NaiveDate, TimeDelta};
use upland_core::controller::{Controller, Temporary, TemporaryKind};
use upland_core::schedule::{Known, Stood, why_dry};

use super::fixture::{Half, context};
use crate::pages::why::{Judged, WhyAnswer, WhyLine, WhyView};

fn day(d: u32) -> NaiveDate {
    NaiveDate::from_ymd_opt(2026, 6, d).unwrap()
}

fn set(kind: TemporaryKind, from: u32, to: u32) -> Temporary {
    Temporary {
        id: 0,
        kind,
        since: day(from),
        until: day(to),
        reason: "a burst pipe".into(),
        by: "Oda".into(),
        left_standing: false,
    }
}

fn add(c: &mut Controller, temporary: Temporary) {
    c.add_temporary(temporary);
}

/// Its last day has passed, and nobody put the panel back.
fn forget(c: &mut Controller, temporary: Temporary) {
    let id = c.add_temporary(temporary);
    c.temporaries.iter_mut().filter(|t| t.id == id).for_each(|t| t.left_standing = true);
}

/// The answer for a station on a day, after something was changed or came to be known.
fn asked(change: impl Fn(&mut Controller, &mut Known), station: u8, on: u32) -> WhyView {
    let mut context = context(Half::North);
    let mut known = Known::default();
    change(&mut context.controller.value.controller, &mut known);
    let plan = context.situation(day(on)).plan(context.controller());
    let why = why_dry(context.controller(), &plan, &context.at.zone, &known, station, day(on));
    let view = WhyView::of(&why, context.controller(), station, None, day(on));
    // The list of all stations names the same first cause as the station's own page.
    let line = WhyLine::of(&why, context.controller(), station, None, day(on));
    assert_eq!(view.obstacles.first().map(|o| &o.0), Some(&line.cause).filter(|_| line.dry));
    view
}

#[test]
fn every_cause_in_words() {
    type Case = (&'static str, fn(&mut Controller, &mut Known), u8, u32);
    let cases: [Case; 10] = [
        ("nothing stood in its way", |_, _| {}, 1, 10),
        ("not its day", |_, _| {}, 1, 11),
        ("switched off", |c, _| add(c, set(TemporaryKind::Off, 8, 12)), 1, 10),
        ("switched off and forgotten", |c, _| forget(c, set(TemporaryKind::Off, 2, 5)), 1, 10),
        ("a rain delay", |c, _| add(c, set(TemporaryKind::RainDelay, 9, 11)), 1, 10),
        ("found off", |_, known| known.found_off = Some(day(9)), 1, 10),
        ("a sensor held", |c, known| known.held = vec![(c.sensors[0].id, Some(true))], 1, 10),
        ("the clock was wrong", |_, known| known.clock_wrong = true, 1, 10),
        ("no minutes", |c, _| c.stations[0].minutes = Some(upland_core::quantity::RunTime::ZERO), 1, 10),
        ("started by a person", |c, _| (c.programs[1].by_hand, c.programs[1].schedule.starts) = (true, vec![]), 4, 9),
    ];
    let told = cases.map(|(name, change, station, on)| format!("{name}\n{:#?}", asked(change, station, on)));
    insta::assert_snapshot!("why", told.join("\n\n"));
}

#[test]
fn a_station_that_is_not_there_is_said_to_be_none() {
    let view = asked(|_, _| {}, 30, 10);
    assert_eq!(view.obstacles.len(), 1, "{view:#?}");
    assert!(view.due.is_empty());
}

#[test]
fn the_answer_says_by_what_it_judges() {
    let judged = |judged| WhyAnswer::new(None, Vec::new(), judged, day(10)).judged;
    let told = [
        judged(Judged::By(Stood::Planned)),
        judged(Judged::By(Stood::Dialled { on: day(4) })),
        judged(Judged::By(Stood::Found { on: day(8) })),
        judged(Judged::OldestPlan),
    ];
    assert!(told[1].contains("4 June") || told[1].contains("4 Jun"), "{}", told[1]);
    assert!(told[2].contains("8 Jun"), "{}", told[2]);
    let different: std::collections::BTreeSet<_> = told.iter().collect();
    assert_eq!(different.len(), told.len(), "{told:?}");
}

#[test]
fn a_hold_that_is_not_known_is_never_called_one() {
    let held = |held| asked(|c, known| known.held = vec![(c.sensors[0].id, held)], 1, 10);
    assert!(held(Some(false)).obstacles.is_empty());
    let unknown = held(None);
    assert!(unknown.obstacles.is_empty());
    assert!(!unknown.unknown.is_empty(), "{unknown:#?}");
    // Over a week nothing changes by itself.
    assert_eq!(asked(|_, _| {}, 1, 10 + 7).obstacles, asked(|_, _| {}, 1, 10).obstacles);
    assert_eq!(day(10) + TimeDelta::days(7), day(17));
}
