//! What is drawn of any controller stays on its sheet: no figure that is no number, nothing outside its drawing, no
//! bar of less than nothing, no name given to two elements of a page.

use std::collections::HashSet;

use askama::Template;
use chrono::{NaiveDate, NaiveDateTime, TimeDelta};
use proptest::prelude::*;
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::{Controller, ProgramLetter};
use upland_core::place::Rules;
use upland_core::quantity::MonthOfYear;
use upland_core::schedule::Level;
use upland_core::testing::{any_controller, any_rules};

use crate::charts::DayArc;
use crate::context::{ControllerContext, PlaceContext, budget_of};
use crate::form::Form;
use crate::golden::CASES;
use crate::golden::fixture::{self, Half};
use crate::pages::stations::{Sheet, SheetInput, StationsLiveTemplate, filled};
use crate::pages::week::{WeekInput, WeekLiveTemplate, WeekView};
use crate::pages::working::{Figure, Provenances};
use crate::pages::year::{YearInput, YearLiveTemplate, YearView};
use crate::show::Units;
use crate::words::Words;

/// An element of a page, with its attributes.
struct Element<'a> {
    name: &'a str,
    attributes: Vec<(&'a str, &'a str)>,
}

impl<'a> Element<'a> {
    fn get(&self, name: &str) -> Option<&'a str> {
        self.attributes.iter().find(|(n, _)| *n == name).map(|(_, value)| *value)
    }

    fn number(&self, name: &str) -> Option<f64> {
        let value = self.get(name)?;
        Some(value.parse().unwrap_or_else(|_| panic!("{name}={value:?} of a {} is no number", self.name)))
    }
}

/// The start tags of a page, in order; end tags as elements whose name begins with a stroke.
fn elements(html: &str) -> Vec<Element<'_>> {
    let tag = |text: &'_ str| -> Option<(usize, usize)> {
        let first = text.bytes().next()?;
        (first.is_ascii_alphabetic() || first == b'/').then_some(())?;
        let mut quoted = false;
        let end = text.bytes().position(|b| {
            quoted ^= b == b'"';
            b == b'>' && !quoted
        })?;
        let name = text.find(|c: char| c.is_whitespace() || c == '>' || c == '/' && !text.starts_with('/'));
        Some((name.unwrap_or(end).min(end), end))
    };
    let attributes = |mut text| {
        let mut found = Vec::new();
        while let Some((name, rest)) = str::split_once(text, "=\"") {
            let Some((value, rest)) = rest.split_once('"') else { break };
            let name = name.rsplit(char::is_whitespace).next().unwrap_or(name);
            found.push((name, value));
            text = rest;
        }
        found
    };
    let texts = html.split('<').skip(1);
    texts
        .filter_map(|text| {
            let (name, end) = tag(text)?;
            Some(Element { name: &text[..name], attributes: attributes(&text[name..end]) })
        })
        .collect()
}

/// Half a stroke may stand over the edge.
const EDGE: f64 = 1.0;

/// Checks a page; how many elements of drawings it has.
fn check(html: &str) -> usize {
    let mut drawn = 0;
    let elements = elements(html);
    let ids: Vec<&str> = elements.iter().filter_map(|e| e.get("id")).collect();
    let mut seen = HashSet::new();
    let twice: Vec<_> = ids.iter().filter(|id| !seen.insert(**id)).collect();
    assert!(twice.is_empty(), "ids given twice: {twice:?}");
    for element in &elements {
        for (name, value) in &element.attributes {
            let is_no_number = |word: &str| matches!(word, "NaN" | "inf" | "-inf");
            let words = value.split(|c: char| !(c.is_ascii_alphanumeric() || "-.".contains(c)));
            assert!(!words.clone().any(is_no_number), "{name}={value:?} of a {}", element.name);
        }
    }
    let mut sheet: Option<[f64; 2]> = None;
    for element in &elements {
        match element.name {
            "svg" => {
                let size = element.get("viewBox").map(|b| b.split(' ').skip(2).map(|n| n.parse().unwrap()).collect());
                let size: Vec<f64> =
                    size.unwrap_or_else(|| ["width", "height"].map(|n| element.number(n).unwrap()).to_vec());
                sheet = Some([size[0], size[1]]);
            }
            "/svg" => sheet = None,
            // What is drawn once to be used elsewhere has a sheet of its own.
            "symbol" | "pattern" | "clipPath" | "marker" => sheet = None,
            _ => {}
        }
        let Some(sheet) = sheet else { continue };
        drawn += 1;
        for (along, length, ways) in
            [(["x", "x1", "x2", "cx"], "width", sheet[0]), (["y", "y1", "y2", "cy"], "height", sheet[1])]
        {
            // A sheet may stand anywhere on its page.
            if element.name == "svg" {
                continue;
            }
            let length = element.number(length).unwrap_or_default();
            assert!(length >= 0.0, "{} of {length}", element.name);
            for at in along.iter().filter_map(|name| element.number(name)) {
                let is_inside = (-EDGE..=ways + EDGE).contains(&at) && at + length <= ways + EDGE;
                assert!(is_inside, "a {} at {at}, {length} long, on a sheet of {ways}", element.name);
            }
        }
        assert!(element.number("r").unwrap_or_default() >= 0.0);
    }
    drawn
}

/// The days at which a drawing is most easily wrong, and any other.
fn moments() -> impl Strategy<Value = NaiveDateTime> {
    let edge = [
        (2026, 1, 1),
        (2026, 12, 31),
        (2028, 2, 29),
        // The clocks go forward and back.
        (2026, 3, 29),
        (2026, 10, 25),
    ];
    let day = |(y, m, d)| NaiveDate::from_ymd_opt(y, m, d).unwrap();
    let any_day = (0i64..1500).prop_map(move |n| day((2025, 1, 1)) + TimeDelta::days(n));
    let days = prop_oneof![prop::sample::select(edge.map(day).to_vec()), any_day];
    let minutes = prop_oneof![Just(0), Just(1439), 0i64..1440];
    (days, minutes).prop_map(|(day, minutes)| day.and_hms_opt(0, 0, 0).unwrap() + TimeDelta::minutes(minutes))
}

/// From a desert to a polar winter; months may lack their rain.
fn any_normals() -> impl Strategy<Value = Normals> {
    let et0 = prop_oneof![Just(0.0), 0.0f64..15.0];
    let rain = proptest::option::of(prop_oneof![Just(0.0), 0.0f64..900.0]);
    proptest::array::uniform12((et0, rain))
        .prop_map(|months| months.map(|(et0_mm_per_day, rain_mm)| MonthNormal { et0_mm_per_day, rain_mm }))
}

/// The controller at the place of a half, under rules and in a climate of its own, or without weather.
fn at(half: Half, controller: &Controller, rules: &Rules, normals: Option<&Normals>) -> ControllerContext {
    let fixed = fixture::context(half).at;
    let (mut place, mut weather) = (fixed.place.clone(), fixed.weather.clone());
    place.value.rules = rules.clone();
    match (normals, &mut weather) {
        (Some(normals), Some(weather)) => weather.variants.iter_mut().for_each(|v| v.normals = *normals),
        _ => weather = None,
    }
    fixture::with_controller(controller.clone(), PlaceContext::new(place, weather))
}

/// The year of each program.
fn years(context: &ControllerContext, today: NaiveDate, units: Units) -> Vec<String> {
    let (w, token) = (Words, String::from("token"));
    let letters = context.controller().programs.iter().map(|p| p.letter);
    let year = |letter: ProgramLetter| {
        context.normals().ok()?;
        let input = YearInput {
            context,
            controller: context.controller(),
            letter: Some(letter),
            month: MonthOfYear::of(today),
            current: MonthOfYear::of(today),
            today,
            figure: Figure::Percent,
            saved: None,
            units,
            form: Form::default(),
        };
        Some(YearLiveTemplate { w, token: token.clone(), year: YearView::of(input).unwrap() }.render().unwrap())
    };
    letters.filter_map(year).collect()
}

fn week(context: &ControllerContext, now: NaiveDateTime, units: Units) -> String {
    let input = WeekInput {
        context,
        controller: context.controller(),
        now,
        open: Some(ProgramLetter::A),
        level: Level::Calendar,
        with_repairs: false,
        units,
        form: Form::default(),
    };
    WeekLiveTemplate { w: Words, token: "token".into(), week: WeekView::of(input) }.render().unwrap()
}

fn worksheet(context: &ControllerContext, open: u8, units: Units) -> String {
    let controller = context.controller();
    let sheet = Sheet::of(SheetInput {
        form: filled(controller, 3, None, units),
        controller,
        budget: &budget_of(controller, context.normals(), &context.at.rules),
        provenance: Provenances::of(&context.at),
        units,
        open: Some(open),
    });
    StationsLiveTemplate { w: Words, sheet }.render().unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn the_year_the_week_and_the_worksheet_of_any_controller(
        controller in any_controller("Gate"), rules in any_rules(), now in moments(),
        normals in proptest::option::weighted(0.9, any_normals())
    ) {
        for (_, half, units) in CASES {
            let context = at(half, &controller, &rules, normals.as_ref());
            for html in years(&context, now.date(), units) {
                prop_assert!(check(&html) > 50, "the plate of the year is on no sheet");
            }
            check(&week(&context, now, units));
            controller.stations.iter().for_each(|s| _ = check(&worksheet(&context, s.number, units)));
        }
    }

    /// From pole to pole, in the polar night as in the polar day.
    #[test]
    fn the_sun_of_any_place(latitude in -90.0f64..=90.0, longitude in -180.0f64..=180.0, rules in any_rules(),
        zone in prop::sample::select(&chrono_tz::TZ_VARIANTS[..]), now in moments()) {
        let arc = format!("{:?}", DayArc::draw([latitude, longitude], zone, &rules.bind("14"), now));
        prop_assert!(!arc.contains("NaN") && !arc.contains("inf"), "{}", arc);
    }
}

#[test]
fn the_check_sees_what_is_wrong() {
    let fails = |html: &str| std::panic::catch_unwind(|| check(html)).is_err();
    let sheet = |inside: &str| format!(r#"<p id="a">1 > 0</p><svg width="40" height="20">{inside}</svg>"#);
    check(&sheet(r#"<rect x="0" y="2" width="40" height="18"/><path d="M1 2"/><p id="b" title="a > b">x</p>"#));
    for wrong in [
        r#"<rect x="1" y="2" width="40.5" height="1"/>"#,
        r#"<rect x="1" y="2" width="-1" height="1"/>"#,
        r#"<path d="M1 NaN"/>"#,
        r#"<line x1="1" y1="inf" x2="2" y2="2"/>"#,
        r#"<text x="41.5" y="2">x</text>"#,
        r#"<p id="a">x</p>"#,
    ] {
        assert!(fails(&sheet(wrong)), "{wrong}");
    }
}
