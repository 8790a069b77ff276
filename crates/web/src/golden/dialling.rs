//! A panel dialled in, value after value, by the links that a person presses.

use upland_formats::site::{DialledValueDoc, FieldDoc};

use super::due::{dialled, record};
use super::each;
use super::fixture::{Half, context, moment, shell};
use super::whole_pages::main_of;
use crate::context::ControllerContext;
use crate::form::Form;
use crate::pages::dial::{DialPage, DialTemplate, InHand};
use crate::pages::field::FieldState;
use crate::pages::frame::Frame;
use crate::pages::spine::{Spine, Step};
use crate::show::Units;
use crate::words::Words;

/// The page of a form or an address, a little before half past nine.
fn page_of(context: &ControllerContext, state: &FieldState, query: Form, half: Half, units: Units) -> DialTemplate {
    DialPage {
        frame: Frame { shell: shell(units), spine: Spine::of(context, Step::DoorCard), strip: None },
        context,
        state,
        query,
        now: half.today().and_hms_opt(9, 26, 0).unwrap(),
        at: moment(half),
        user: "Oda",
        units,
    }
    .template()
}

/// The query of a link.
fn query(href: &str) -> Form {
    let pairs = href.split_once('?').map_or("", |(_, query)| query).split('&').filter_map(|pair| pair.split_once('='));
    Form::from_pairs(pairs.map(|(name, value)| (name.to_owned(), value.to_owned())))
}

/// Presses a link in the page of each value until the panel is read back, and tells of each value.
fn walk(
    context: &ControllerContext,
    half: Half,
    units: Units,
    press: impl Fn(&InHand) -> String,
) -> (Vec<InHand>, DialTemplate) {
    let state = FieldState::default();
    let (mut hands, mut href) = (Vec::new(), String::new());
    // More values than any panel of the fixture has.
    for _ in 0..200 {
        let page = page_of(context, &state, query(&href), half, units);
        let Some(hand) = page.hand.clone() else { return (hands, page) };
        href = press(&hand);
        hands.push(hand);
    }
    panic!("the walk does not end: {href}");
}

fn lines(hands: &[InHand]) -> String {
    let line = |h: &InHand| {
        let more = [&h.how, &h.stays].into_iter().filter(|text| !text.is_empty()).map(String::as_str);
        let more = more.collect::<Vec<_>>().join(" | ");
        format!("{} {} · {}: {} {} [{}]\n    {more}", h.count, h.section, h.which, h.value, h.unit, h.size)
    };
    hands.iter().map(line).collect::<Vec<_>>().join("\n")
}

#[test]
fn a_walk_from_the_first_value_to_the_last() {
    each("dialling_walk", |half, units| {
        let context = context(half);
        let (hands, end) = walk(&context, half, units, |hand| hand.done.clone());
        let counts: Vec<usize> = hands.iter().map(|hand| hand.count.parse().unwrap()).collect();
        assert_eq!(counts, (1..=hands.len()).collect::<Vec<_>>(), "each value once, in the order of the panel");
        let read_back = end.read_back.unwrap();
        assert_eq!(read_back.left, "");
        assert!(read_back.rows.iter().all(|row| row.mark == "done"), "{:#?}", read_back.rows);
        // What is read back is what was in hand.
        let values = |hand: &InHand| hand.value.clone();
        assert_eq!(read_back.rows.len(), hands.len());
        for (row, value) in read_back.rows.iter().zip(hands.iter().map(values)) {
            assert!(row.value.starts_with(&value), "{} {value}", row.value);
        }
        format!("{}\n\n{}\n{}", lines(&hands), read_back.title, end.next)
    });
}

#[test]
fn what_the_panel_does_not_take_is_never_called_done() {
    let context = context(Half::North);
    let press = |hand: &InHand| match hand.count.as_str() {
        "2" => hand.cannot.clone(),
        "3" => hand.skip.clone(),
        _ => hand.done.clone(),
    };
    let (hands, end) = walk(&context, Half::North, Units::Metric, press);
    let read_back = end.read_back.unwrap();
    assert_eq!(read_back.left, Words.count("dial-left", 2));
    let marks: Vec<(usize, &str, &str)> = (1..)
        .zip(&read_back.rows)
        .filter(|(_, row)| row.mark != "done")
        .map(|(n, row)| (n, row.mark, row.note.as_str()))
        .collect();
    let [cannot, skipped] = ["dial-cannot-short", "dial-skipped"].map(|key| Words.t(key));
    assert_eq!(marks, [(2, "fault", cannot.as_str()), (3, "fault", skipped.as_str())]);
    // Its row leads back to the value, and pressing there reads the panel back again with one less.
    let state = FieldState::default();
    let again = page_of(&context, &state, query(&read_back.rows[1].href), Half::North, Units::Metric);
    let hand = again.hand.unwrap();
    assert_eq!([&hand.count, &hand.value], [&hands[1].count, &hands[1].value]);
    let done = page_of(&context, &state, query(&hand.done), Half::North, Units::Metric);
    assert_eq!(done.read_back.unwrap().left, Words.count("dial-left", 1));
}

#[test]
fn one_step_back_keeps_what_is_done() {
    let context = context(Half::North);
    let state = FieldState::default();
    let page = |href: &str| page_of(&context, &state, query(href), Half::North, Units::Metric);
    let first = page("").hand.unwrap();
    let second = page(&first.done).hand.unwrap();
    let back = page(&second.back).hand.unwrap();
    assert_eq!(back.count, "1");
    // Done once more, it goes on to the value after it.
    assert_eq!(page(&back.done).hand.unwrap().count, "2");
    // The first has nothing before it.
    assert_eq!(page(&first.back).hand.unwrap().count, "1");
}

#[test]
fn marks_of_another_panel_do_no_harm() {
    let context = context(Half::North);
    let state = FieldState::default();
    for href in [
        "?marks=dddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddd",
        "?marks=xyé&at=2",
    ] {
        let page = page_of(&context, &state, query(href), Half::North, Units::Metric);
        assert_eq!(page.hand.is_none(), page.read_back.is_some());
    }
    let beyond = page_of(&context, &state, query("?marks=d&at=999999"), Half::North, Units::Metric);
    assert_eq!(beyond.hand.unwrap().count, "2", "a value that is not there is the first that is open");
}

#[test]
fn after_a_change_only_what_differs_is_asked_for() {
    let half = Half::North;
    let context = context(half);
    let FieldDoc::Dialled(mut doc) = dialled(&context, half, true) else { panic!("dialled") };
    // The first start was a quarter of an hour earlier on the panel.
    let start = doc.values.iter_mut().find(|(_, value)| matches!(value, DialledValueDoc::Start(_))).unwrap();
    start.1 = DialledValueDoc::Start("04:15".into());
    let state = FieldState::of(&[record(half, -4, FieldDoc::Dialled(doc))]);
    let whole = page_of(&context, &state, Form::default(), half, Units::Metric);
    let (href, words) = whole.only.expect("most of it stands");
    assert_eq!(words, Words.count("dial-only", 1));
    // Date and time are set on every visit; then the one value, with what the panel shows now beside it; then all is
    // read back.
    let hand_of = |href: &str| page_of(&context, &state, query(href), half, Units::Metric).hand.unwrap();
    let hand = hand_of(&hand_of(&hand_of(&href).done).done);
    assert_eq!([hand.value.as_str(), hand.shows.as_str()], ["04:30", "04:15"]);
    let end = page_of(&context, &state, query(&hand.done), half, Units::Metric);
    assert_eq!(end.read_back.unwrap().left, "");
}

#[test]
fn the_page_of_a_value_and_of_the_reading_back() {
    each("dialling", |half, units| {
        let context = context(half);
        let state = FieldState::default();
        let first = main_of(&page_of(&context, &state, Form::default(), half, units));
        let (_, end) = walk(&context, half, units, |hand| hand.done.clone());
        let mut form = query(&format!("?marks={}", end.read_back.unwrap().marks));
        form.set("agrees", "other");
        form.fail("panel_next", Words.t("dial-what-says"));
        let last = main_of(&page_of(&context, &state, form, half, units));
        format!("{first}\n\n{last}")
    });
}
