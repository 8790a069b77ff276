//! Programs whose runs a person starts: the panel has no start for them, and nothing asks for one.

use chrono::Weekday::{Mon, Thu};
use upland_core::budget::year_budget;
use upland_core::controller::*;
use upland_core::dial_in::{Section, Value, slots};
use upland_core::found::{Part, adopt, differences};
use upland_core::in_force::{SetBy, in_force};
use upland_core::quantity::Percent;
use upland_core::schedule::*;
use upland_core::tuning::{Because, Judgement, Seen, advise};

use crate::builders::*;
use crate::panels::{known, panel};

const A: ProgramLetter = ProgramLetter::ALL[0];
const B: ProgramLetter = ProgramLetter::ALL[1];

/// Two stations a program; A is watered by hand, B by the panel.
fn half_by_hand() -> Controller {
    let mut c = controller(vec![station(1, A, 40), station(2, A, 40), station(3, B, 40), station(4, B, 40)]);
    for program in [A, B] {
        set(&mut c, program, DayMode::Weekdays(Days::of([Mon, Thu])), &["04:30"]);
    }
    c.program_mut(A).unwrap().hand_over();
    c.stations.iter_mut().for_each(|s| s.minutes = None);
    c.check().unwrap();
    c
}

fn around() -> Surroundings {
    Surroundings { normals: Some(normals()), ..Surroundings::open() }
}

#[test]
fn it_has_no_start_and_one_that_gets_a_start_is_given_back_to_the_panel() {
    let mut c = half_by_hand();
    let own = c.program_mut(A).unwrap();
    assert!(own.by_hand && own.schedule == Schedule::default() && own.is_scheduled());
    own.schedule.starts = vec![time("05:00")];
    assert_eq!(c.check(), Err(ControllerError::Schedule { letter: A, what: ScheduleError::ByHand }));
    let own = c.program_mut(A).unwrap();
    own.take_schedule(Schedule { starts: vec![time("05:00")], ..Schedule::default() });
    assert!(!own.by_hand);
    c.check().unwrap();
}

#[test]
fn it_lacks_nothing_and_a_proposal_leaves_it_to_its_person() {
    let c = half_by_hand();
    let found = around().check(&c);
    assert!(!found.iter().any(|f| f.letter == Some(A)), "{found:#?}");
    for grouping in [Grouping::Keep, Grouping::ByNeed] {
        let proposed = propose(&around().situation(), &c, grouping).controller;
        assert_eq!(proposed.program(A), c.program(A));
        assert!(!proposed.program(B).unwrap().schedule.is_idle());
        assert!([1, 2].iter().all(|n| proposed.station(*n).unwrap().program == A));
    }
    // One that is nobody's is not scheduled.
    let mut nobodys = c;
    nobodys.program_mut(A).unwrap().by_hand = false;
    assert!(codes(&around().check(&nobodys)).contains(&Code::NotScheduled));
}

/// Four starts of A off, no percent of A; the week's need in one watering.
#[test]
fn its_starts_are_off_on_the_panel_and_nobody_dials_its_percent() {
    let c = half_by_hand();
    let plan = around().situation().plan(&c);
    let of_a: Vec<Value> =
        slots(&c, &plan, monday()).iter().filter(|s| s.section == Section::Program(A)).map(|s| s.value).collect();
    assert_eq!(of_a, vec![Value::StartOff; usize::from(c.capability.starts)]);
    let now = in_force(&c, &plan, None, monday());
    assert_eq!((&now.program(A).unwrap().by, &now.program(B).unwrap().by), (&SetBy::ByHand, &SetBy::Month));
    let budget = year_budget(&c, &normals()).unwrap();
    let waterings = |n: u8| {
        let mut own = budget.groups.iter().flat_map(|g| &g.stations).filter(|s| s.number == n);
        own.next().unwrap().waterings
    };
    assert_eq!((waterings(1), waterings(3)), (1.0, 2.0));
}

/// Both stations of A are dry: neither minutes nor percent of the panel are to blame.
#[test]
fn a_round_changes_nothing_on_the_panel_for_it() {
    let c = half_by_hand();
    let budget = year_budget(&c, &normals()).unwrap();
    let seen = |stations: &[(u8, Judgement)]| Seen {
        on: monday(),
        percents: vec![(A, Percent::new(40).unwrap())],
        stations: stations.to_vec(),
        before: Vec::new(),
        last_change: None,
        recent_et0_mm_per_day: None,
    };
    let advice = |stations: &[(u8, Judgement)]| advise(&around().situation(), &c, Some(&budget), &seen(stations));
    let dry = advice(&[(1, Judgement::Dry), (2, Judgement::Dry)]);
    assert_eq!((dry.change, dry.because), (None, Because::NothingSeen));
    let both = advice(&[(1, Judgement::Dry), (3, Judgement::Dry), (4, Judgement::Dry)]);
    assert_eq!(both.change.and_then(|c| c.letter()), Some(B));
}

#[test]
fn a_panel_that_still_runs_it_differs_and_its_starts_can_be_taken_back() {
    let mut c = known();
    c.program_mut(A).unwrap().hand_over();
    let mut panel = panel();
    let plan = around().situation().plan(&c);
    let open = differences(&panel, &c, &plan);
    assert!(open.iter().any(|d| d.part == Part::Starts(A) && d.can_adopt), "{open:?}");
    assert!(!panel.as_controller(&c).is_by_hand(A), "as it stands the panel waters");
    let taken = adopt(&panel, &c, &[Part::Starts(A)]);
    assert!(!taken.is_by_hand(A));
    taken.check().unwrap();
    panel.programs[0].starts.clear();
    assert!(panel.as_controller(&c).is_by_hand(A));
}
