//! What is written down in the field is read back as it was written, whatever it is.

use chrono::NaiveDate;
use proptest::prelude::*;
use serde_json::{Value as Json, json};
use upland_core::controller::Controller;
use upland_core::dial_in::slots;
use upland_core::landscape::{CanTest, Measurement};
use upland_core::schedule::Plan;
use upland_core::testing::{any_controller, any_panel};
use upland_core::tuning::Judgement;
use upland_formats::site::{
    Answer, ChangeDoc, DialledDoc, FieldDoc, GroundDoc, MeasuredDoc, MeasurementDoc, NextDoc, PanelDoc, PanelNextDoc,
    RoundDoc,
};

fn day() -> impl Strategy<Value = NaiveDate> {
    (0i64..60_000).prop_map(|n| NaiveDate::from_ymd_opt(2000, 1, 1).unwrap() + chrono::TimeDelta::days(n))
}

fn answer() -> impl Strategy<Value = Answer> {
    prop_oneof![Just(Answer::Accepted), Just(Answer::Rejected), Just(Answer::Nothing)]
}

fn ground() -> impl Strategy<Value = GroundDoc> {
    prop_oneof![Just(GroundDoc::Dry), Just(GroundDoc::Right), Just(GroundDoc::Wet)]
}

fn change() -> impl Strategy<Value = ChangeDoc> {
    prop_oneof![
        (0u16..300, 0u16..300).prop_map(|(from, to)| ChangeDoc::Percent { program: 'B', from, to }),
        (0u16..300, 0u16..300).prop_map(|(from, to)| ChangeDoc::PutBack { program: 'A', from, to }),
        (1u8..48, -30i8..30, -30i8..30, 0u32..9000).prop_map(|(station, from_pct, to_pct, from_s)| {
            ChangeDoc::Trim { station, from_pct, to_pct, from_s, to_s: from_s / 2 }
        }),
    ]
}

fn round() -> impl Strategy<Value = FieldDoc> {
    let stations = proptest::collection::vec((1u8..48, ground()), 0..9);
    (day(), stations, proptest::option::of(change()), answer(), "[ -~é]{0,80}", day()).prop_map(
        |(on, stations, change, answer, note, look_again)| {
            FieldDoc::Round(RoundDoc {
                on,
                percents: vec![('A', 80), ('B', 0)],
                stations,
                change,
                answer,
                reason: note.clone(),
                look_again,
                note,
            })
        },
    )
}

fn measured() -> impl Strategy<Value = FieldDoc> {
    let catches = proptest::collection::vec(proptest::option::of(0.1f64..40.0), 16);
    let by = prop_oneof![
        (catches, 1.0f64..90.0).prop_map(|(catches_mm, minutes)| MeasurementDoc::Cans {
            columns: 4,
            catches_mm,
            minutes
        }),
        (1.0f64..9e4, 1.0f64..90.0).prop_map(|(litres, minutes)| MeasurementDoc::Meter {
            litres,
            minutes,
            area_m2: 310.5
        }),
        (0.5f64..900.0).prop_map(|litres_per_minute| MeasurementDoc::Flow { litres_per_minute, area_m2: 42.0 }),
    ];
    (day(), 1u8..48, by, 0.5f64..200.0, proptest::option::of(0.2f64..1.0), "[ -~]{0,40}").prop_map(
        |(on, station, by, rate_mm_h, uniformity, note)| {
            FieldDoc::Measured(MeasuredDoc { on, station, by, rate_mm_h, uniformity, note })
        },
    )
}

/// A panel dialled in, every slot of a controller with the value that it asks for.
fn dialled(controller: &Controller, on: NaiveDate) -> FieldDoc {
    let all = slots(controller, &Plan::of(controller, None), on);
    FieldDoc::Dialled(DialledDoc {
        on,
        version: 7,
        values: DialledDoc::values_of(&all),
        not_set: all.iter().take(2).map(|slot| slot.key()).collect(),
        panel_next: PanelNextDoc::Words("Wed 4:30".into()),
        our_next: Some(NextDoc { at: on.and_hms_opt(4, 30, 0).unwrap(), program: 'A' }),
        look_again: on,
    })
}

fn read_back(document: &FieldDoc) -> FieldDoc {
    // As it is stored: through its text.
    let text = serde_json::to_string(&document.to_json()).unwrap();
    FieldDoc::from_json(serde_json::from_str(&text).unwrap()).unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(100))]

    #[test]
    fn rounds_and_measurements(record in prop_oneof![round(), measured()]) {
        prop_assert_eq!(read_back(&record), record);
    }

    #[test]
    fn panels(panel in any_panel()) {
        let record = FieldDoc::Found(PanelDoc::from(&panel));
        let FieldDoc::Found(back) = read_back(&record) else { panic!("a panel is one") };
        prop_assert_eq!(upland_core::found::Panel::try_from(&back), Ok(panel));
    }

    #[test]
    fn every_value_that_a_panel_can_be_dialled_to(controller in any_controller("Gate"), on in day()) {
        let record = dialled(&controller, on);
        prop_assert_eq!(read_back(&record), record);
    }
}

/// A round with a member more, or of a version that is not known yet.
#[test]
fn what_nobody_wrote_is_refused() {
    let sound = json!({
        "on": "2026-06-15", "percents": [["A", 80]], "stations": [[2, "dry"]], "change": null, "answer": "nothing",
        "reason": "", "look_again": "2026-06-22", "note": "", "record": "round"
    });
    let read = |edit: &dyn Fn(&mut Json)| {
        let mut document = sound.clone();
        edit(&mut document);
        FieldDoc::from_json(document)
    };
    assert!(read(&|_| {}).is_ok());
    assert!(read(&|d| d["colour"] = "blue".into()).is_err());
    assert!(read(&|d| d["version"] = 99.into()).is_err());
    assert!(read(&|d| d["record"] = "holiday".into()).is_err());
    assert!(read(&|d| d["answer"] = "perhaps".into()).is_err());
    assert!(read(&|d| d["stations"] = json!([[2, "muddy"]])).is_err());
    assert!(read(&|d| d["on"] = "15 June".into()).is_err());
    assert!(read(&|d| drop(d.as_object_mut().unwrap().remove("look_again"))).is_err());
    assert!(FieldDoc::from_json(json!([])).is_err());
}

#[test]
fn a_judgement_is_the_same_in_the_core_and_in_a_file() {
    for judgement in [Judgement::Dry, Judgement::Right, Judgement::Wet] {
        assert_eq!(Judgement::from(GroundDoc::from(judgement)), judgement);
    }
}

#[test]
fn a_measurement_on_record_gives_the_rate_again() {
    let catches: Vec<Option<f64>> = (0..16).map(|n| Some(4.0 + f64::from(n % 4))).collect();
    let measurements = [
        Measurement::Cans(CanTest::new(catches, 4, 20.0).unwrap()),
        Measurement::Meter { litres: 750.0, minutes: 12.0, area_m2: 310.0 },
        Measurement::Flow { litres_per_minute: 62.0, area_m2: 310.0 },
        Measurement::Emitters { litres_per_hour: 2.3, spacing_m: 0.33, rows_m: 0.4 },
    ];
    for measurement in measurements {
        let doc = MeasurementDoc::from(&measurement);
        let text = serde_json::to_string(&doc).unwrap();
        assert_eq!(serde_json::from_str::<MeasurementDoc>(&text).unwrap(), doc);
        assert!(measurement.rate().unwrap().get() > 0.0);
    }
}
