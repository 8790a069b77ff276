//! Golden files of charts and view models: metric in the north, US units in the south. A changed
//! figure, word or coordinate shows as a difference to be read.

mod ahead;
mod conflict;
mod controller_error;
mod dialling;
mod due;
mod effect;
mod findings;
mod first_steps;
pub(crate) mod fixture;
mod hand_card;
mod history;
pub(crate) mod html;
mod lists;
mod measure;
mod panel;
mod place_replay;
mod record;
mod rules;
mod sensor_replays;
mod soil_sensor;
mod ways;
mod weather_file;
mod whole_pages;
mod why;
mod working;

use askama::Template;
use chrono::{NaiveDate, NaiveDateTime, NaiveTime, TimeDelta};
use upland_core::controller::ProgramLetter;
use upland_core::quantity::MonthOfYear;
use upland_core::schedule::{Grouping, Level, Wish};
use upland_core::tuning::{Judgement, Seen};

use crate::charts::{DayArc, Strip, StripInput};
use crate::context::{ControllerContext, WeatherDay, budget_of};
use crate::form::Form;
use crate::pages::last_weeks::soil_this_morning;
use crate::pages::proposals::ProposalsView;
use crate::pages::replay::{Asked, Field, KnownBeside, ReplayLiveTemplate, ReplayView, ViewInput};
use crate::pages::spine::{Spine, Step};
use crate::pages::stations::{Sheet, SheetInput, StationsLiveTemplate, filled};
use crate::pages::week::{WeekInput, WeekLiveTemplate, WeekView};
use crate::pages::working::{Figure, Provenances};
use crate::pages::year::{YearInput, YearLiveTemplate, YearView};
use crate::pages::{dial, door_card, field, log, round, sensors, temporary, today};
use crate::show::Units;
use crate::words::Words;
use fixture::{Half, context, days, moment};

pub(crate) const CASES: [(&str, Half, Units); 2] =
    [("north_metric", Half::North, Units::Metric), ("south_us", Half::South, Units::Us)];

/// Runs a check for each case under its name. An action and a record have a new key each time, which says
/// nothing about the page.
fn each(what: &str, make: impl Fn(Half, Units) -> String) {
    let mut settings = insta::Settings::clone_current();
    settings.add_filter(r#"name="(action|record)" value="[0-9a-f-]{36}""#, r#"name="$1" value="a new key""#);
    settings.bind(|| {
        for (case, half, units) in CASES {
            insta::assert_snapshot!(format!("{what}__{case}"), make(half, units));
        }
    });
}

/// The worksheet with a station opened.
fn sheet(context: &ControllerContext, open: u8, units: Units) -> Sheet {
    let controller = context.controller();
    Sheet::of(SheetInput {
        form: filled(controller, 3, None, units),
        controller,
        budget: &budget_of(controller, context.normals(), &context.at.rules),
        provenance: Provenances::of(&context.at),
        units,
        open: Some(open),
    })
}

pub(crate) fn worksheet_page(context: &ControllerContext, open: u8, units: Units) -> String {
    StationsLiveTemplate { w: Words, sheet: sheet(context, open, units) }.render().unwrap()
}

#[test]
fn the_worksheet() {
    each("stations", |half, units| {
        let context = context(half);
        let cells: Vec<String> = sheet(&context, 2, units)
            .rows
            .iter()
            .filter(|row| row.used)
            .flat_map(|row| row.columns.iter().flatten())
            .map(|cell| format!("{} = {}", cell.label, cell.value))
            .collect();
        format!("{}\n\n{}", cells.join("\n"), worksheet_page(&context, 2, units))
    });
}

/// The year of a program; none where it has no budget.
pub(crate) fn year_page(
    context: &ControllerContext,
    letter: ProgramLetter,
    today: NaiveDate,
    units: Units,
) -> Option<String> {
    let month = MonthOfYear::of(today);
    let year = YearView::of(YearInput {
        context,
        controller: context.controller(),
        letter: Some(letter),
        month,
        current: month,
        today,
        figure: Figure::Percent,
        saved: None,
        units,
        form: Form::default(),
    });
    Some(YearLiveTemplate { w: Words, token: "token".into(), year: year.ok()? }.render().unwrap())
}

#[test]
fn the_year() {
    each("year", |half, units| year_page(&context(half), ProgramLetter::A, half.today(), units).unwrap());
}

pub(crate) fn week_page(context: &ControllerContext, now: NaiveDateTime, with_repairs: bool, units: Units) -> String {
    let week = WeekView::of(WeekInput {
        context,
        controller: context.controller(),
        now,
        open: Some(ProgramLetter::A),
        level: Level::Calendar,
        with_repairs,
        units,
        form: Form::default(),
    });
    WeekLiveTemplate { w: Words, token: "token".into(), week }.render().unwrap()
}

#[test]
fn the_week_with_its_findings() {
    each("week", |half, units| {
        let now = half.today().and_time(NaiveTime::from_hms_opt(7, 12, 0).unwrap());
        week_page(&context(half), now, true, units)
    });
}

#[test]
fn the_strips_and_the_sun() {
    each("strips", |half, units| {
        let context = context(half);
        let budget = context.budget().unwrap();
        let (normals, days) = (context.normals().unwrap(), days(half));
        let input = StripInput { normals, group: budget.groups.first(), days: &days, today: half.today(), units };
        let position = &context.at.place.value.place.position;
        let now = half.today().and_time(NaiveTime::from_hms_opt(7, 12, 0).unwrap());
        let arc =
            DayArc::draw([position.latitude_deg(), position.longitude_deg()], context.at.zone, &context.at.rules, now);
        format!("{:#?}\n{:#?}\n{:#?}\n{arc:#?}", Strip::wide(&input), Strip::phone(&input), Strip::card(&input))
    });
}

#[test]
fn today_and_the_steps() {
    each("today", |half, units| {
        let context = context(half);
        let state = field::FieldState::default();
        let todo = crate::pages::due::due(&context, &state, half.today());
        let contexts = [context.clone()];
        // A record that goes up to yesterday, whatever the half.
        let late = half.today() - days(half).last().unwrap().date - TimeDelta::days(1);
        let days: Vec<_> = days(half).into_iter().map(|d| WeatherDay { date: d.date + late, ..d }).collect();
        let soil = soil_this_morning(&context, &state, &days, half.today());
        let on_record =
            |_: &_| today::OnRecord { today: half.today(), state: field::FieldState::default(), soil: &soil };
        let (rows, most) = today::dial_rows(&contexts, on_record, units);
        let recent = today::RecentDays::of(&context.at, &days, half.today(), units);
        let normal = today::normal_now(&context.at, half.today(), units);
        let spine = Spine::of(&context, Step::Year);
        format!(
            "{rows:#?}\n{most}\n{recent:#?}\n{normal:#?}\n{todo:#?}\n{:#?}\n{spine:#?}",
            today::todos(&context, half.today())
        )
    });
}

#[test]
fn the_schedules_side_by_side() {
    each("proposals", |half, units| {
        let context = context(half);
        let mut view =
            ProposalsView::of(&context, &days(half), (Wish::default(), Grouping::ByNeed), half.today(), units);
        // Made anew for every page.
        view.cards.iter_mut().for_each(|card| card.action.clear());
        format!("{view:#?}")
    });
}

#[test]
fn the_door_card() {
    each("door_card", |half, units| {
        let context = context(half);
        let (c, budget) = (context.controller(), context.budget().unwrap());
        let situation = context.week_of(half.today());
        let plan = situation.plan(c);
        format!(
            "{:#?}\n{:#?}\n{:#?}\n{:#?}\n{}",
            door_card::card_stations(c, budget, &plan),
            door_card::card_programs(c, budget, half.month()),
            door_card::card_sensors(c, units),
            door_card::card_never(&context),
            door_card::fewer_line(budget),
        )
    });
}

#[test]
fn the_round_and_its_advice() {
    each("round", |half, units| {
        let context = context(half);
        let stations = vec![(1, Judgement::Right), (2, Judgement::Dry), (4, Judgement::Right)];
        let plan = context.week_of(half.today()).plan(context.controller());
        let percent = |l| plan.percent_on(context.controller(), l, half.today(), Level::Calendar);
        let percents = ProgramLetter::ALL.into_iter().filter_map(|l| Some((l, percent(l)?))).collect();
        let seen = Seen {
            on: half.today(),
            percents,
            stations,
            before: Vec::new(),
            last_change: None,
            recent_et0_mm_per_day: None,
        };
        let advice = round::advice(&context, &seen);
        let view = round::AdviceView::of(&context, &seen, &advice, units);
        format!("{view:#?}\n{:#?}", round::percents(&context, half.today(), None))
    });
}

#[test]
fn sensors_temporary_settings_and_dialling_in() {
    each("field", |half, units| {
        let context = context(half);
        let c = context.controller();
        let dial = dial::DialIn::of(&context, half.today().and_time(NaiveTime::MIN), units);
        let slots: Vec<String> = dial
            .slots
            .iter()
            .filter(|s| !s.is_clock())
            .map(|s| format!("{} {}", dial.line(s), dial.wording.note(s)))
            .collect();
        format!(
            "{:#?}\n{:#?}\n{}\n{:#?}\n{:#?}",
            sensors::lines(c, Some(1), "/sensors", half.today(), units),
            temporary::lines(c, half.today()),
            slots.join("\n"),
            dial.next(&context, moment(half)),
            log::days(&[], &[], &context, "/controllers/1", units),
        )
    });
}

/// The replay of some days as a form asks for it; none where there is nothing to replay.
pub(crate) fn replay_page(
    context: &ControllerContext,
    days: &[WeatherDay],
    mut form: Form,
    units: Units,
) -> Option<String> {
    let field = Field::of(context, days, None)?;
    let asked = Asked::read(&mut form, (&field.controller, &field.plan), days)?;
    let beside = KnownBeside::default().of("", &field, &asked, days)?;
    let view = ReplayView::of(ViewInput {
        beside: &beside,
        field: &field,
        days,
        asked: &asked,
        form,
        href: "/controllers/1/replay".into(),
        found_on: None,
        units,
    })?;
    Some(ReplayLiveTemplate { token: "token".into(), view: Box::new(view) }.render().unwrap())
}

/// What is tried in the replay: less water, on two days, with the sensor at its lowest, and what the water costs.
fn tried() -> Form {
    let mut form = Form::default();
    for (name, value) in [("scale", "70"), ("days", "2"), ("trip", "6"), ("price", "2.5")] {
        form.set(name, value);
    }
    form
}

#[test]
fn the_replay() {
    each("replay", |half, units| replay_page(&context(half), &days(half), tried(), units).unwrap());
}

#[test]
fn what_stands_beside_a_replay_is_remembered_for_its_question_alone() {
    for (_, half, _) in CASES {
        let (context, days) = (context(half), days(half));
        let field = Field::of(&context, &days, None).unwrap();
        let asked = Asked::read(&mut tried(), (&field.controller, &field.plan), &days).unwrap();
        let known = KnownBeside::default();
        let beside = known.of("", &field, &asked, &days).unwrap();
        assert!(std::sync::Arc::ptr_eq(&beside, &known.of("", &field, &asked, &days).unwrap()));
        let all = Asked { period: "1999".into(), ..asked.clone() };
        assert!(!std::sync::Arc::ptr_eq(&beside, &known.of("", &field, &all, &days).unwrap()));
    }
}
