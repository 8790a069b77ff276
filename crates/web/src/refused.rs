//! What no form accepts: the error stands beside its field, and nothing is read.

use std::fmt::Debug;

use chrono::NaiveDate;
use upland_core::sensor::{Sensor, SensorKind};

use crate::form::Form;
use crate::golden::fixture::{Half, context};
use crate::pages::{controller_form, later, normals, place_form, rules_form, sensors, stations, temporary, week};
use crate::show::Units;

/// A form with one field typed otherwise.
fn with(mut form: Form, typed: &[(&str, &str)]) -> Form {
    for (field, value) in typed {
        form.set(field, *value);
    }
    form
}

/// Types a value into a field of a form that is sound without it, and sees its error at the field `at`.
fn refused_at<T: Debug>(form: Form, typed: &[(&str, &str)], at: &str, read: impl Fn(&mut Form) -> Option<T>) {
    let mut untouched = form.clone();
    assert!(read(&mut untouched).is_some(), "sound without {typed:?}: {untouched:?}");
    let mut form = with(form, typed);
    let read = read(&mut form);
    assert!(!form.error(at).is_empty(), "{typed:?} at {at}: {form:?}");
    assert!(read.is_none(), "{typed:?} was read as {read:?}");
    for (field, value) in typed {
        assert_eq!(form.as_typed(field), *value, "what was typed stays");
    }
}

/// The same for a value that is wrong at its own field.
fn refused<T: Debug>(form: &Form, field: &str, values: &[&str], read: impl Fn(&mut Form) -> Option<T>) {
    for value in values {
        refused_at(form.clone(), &[(field, value)], field, &read);
    }
}

#[test]
fn places() {
    let place = context(Half::North).at.place.value;
    let form = place_form::filled(&place, 3, Units::Metric);
    let read = |form: &mut Form| place_form::read(form, Units::Metric, Some(&place));
    refused(&form, "name", &["", "   ", &"x".repeat(61), "a\u{0}b", "line\nbreak"], read);
    refused(&form, "latitude", &["", "91", "-90.5", "north", "NaN", "inf"], read);
    refused(&form, "longitude", &["", "181", "12,2,1", "1e999"], read);
    refused(&form, "elevation", &["", "9000", "-500", "high"], read);
    refused(&form, "time_zone", &["Middle/Earth", "CEST+2"], read);
    refused(&form, "house_number", &[&"1".repeat(40), "1\u{7}4"], read);
}

#[test]
fn rules() {
    let place = context(Half::North).at.place.value;
    let form = rules_form::filled(&place, 3);
    let read = |form: &mut Form| rules_form::read(form, "14");
    refused(&form, "by", &["", "moon"], read);
    refused(&form, "h0from", &["25:00", "soon"], read);
    refused(&form, "done_by", &["24:30", "7"], read);
    refused(&form, "dated", &["yesterday", "1850-01-01", "262142-01-01"], read);
    refused(&form, "authority", &[&"x".repeat(200)], read);
    refused_at(form.clone(), &[("ban_from", "2026-07-01")], "ban_to", read);
    refused_at(form.clone(), &[("ban_from", "2026-07-02"), ("ban_to", "2026-07-01")], "ban_to", read);
    refused_at(form.clone(), &[("ban_hour_from", "08:00"), ("ban_hour_to", "10:00")], "ban_from", read);
    refused_at(form.clone(), &[("closed0from", "2026-07-02"), ("closed0to", "2026-07-01")], "closed0to", read);
    refused_at(form.clone(), &[("closed0why", "the market")], "closed0from", read);
    refused_at(form.clone(), &[("s0from_month", "2"), ("s0from_day", "30")], "s0from_day", read);
    // No day is left on which anybody could water.
    refused_at(form.clone(), &[("by", "weekdays")], "by", read);
    // A house without a number is neither odd nor even.
    let read = |form: &mut Form| rules_form::read(form, "");
    refused_at(form, &[("by", "date"), ("with_31st", "yes")], "by", read);
}

#[test]
fn controllers() {
    let c = context(Half::North).controller().clone();
    let form = controller_form::filled(&c, 3);
    let read = |form: &mut Form| controller_form::read(form, &c);
    refused(&form, "name", &["", &"x".repeat(61), "a\u{0}b"], read);
    refused(&form, "stations", &["", "0", "500", "3.5", "many"], read);
    refused(&form, "base_month", &["13", "0", "june"], read);
    refused(&form, "station_delay", &["", "-1", "a while", "1e9"], read);
    refused(&form, "run_max", &["", "0", "100000", "long"], read);
    refused(&form, "clock_face", &["36"], read);
    refused(&form, "percent_min", &["", "-10", "5 %"], read);
    // What stands on the panel already could no longer be dialled.
    refused_at(form.clone(), &[("stations", "3")], "stations", read);
    refused_at(form.clone(), &[("programs", "1")], "programs", read);
    refused_at(form.clone(), &[("starts", "1")], "starts", read);
    refused_at(form.clone(), &[("cycle_soak", "no")], "cycle_soak", read);
    refused_at(form.clone(), &[("sensor_inputs", "0")], "sensor_inputs", read);
    refused_at(form.clone(), &[("percent_min", "150"), ("percent_max", "120")], "percent_max", read);
    refused_at(form, &[("window0from", "25:00"), ("window0to", "06:00")], "window0from", read);
}

#[test]
fn stations_of_the_worksheet() {
    let c = context(Half::North).controller().clone();
    for units in [Units::Metric, Units::Us] {
        let form = stations::filled(&c, 3, None, units);
        // A faulty cell keeps what was saved, so that its row still has figures: the form says that it is not sound.
        let read = |form: &mut Form| {
            let read = stations::read(form, &c, units);
            form.is_sound().then_some(read)
        };
        refused(&form, "s1_name", &[&"x".repeat(61), "a\u{0}b"], read);
        refused(&form, "s1_area_m2", &["0", "-5", "wide", "1e99"], read);
        refused(&form, "s1_rate_mm_h", &["0", "5000", "fast"], read);
        refused(&form, "s1_trim_pct", &["31", "-31", "a bit"], read);
        refused(&form, "s1_plant", &["baobab"], read);
        refused(&form, "s1_soil", &["moon dust"], read);
        refused(&form, "s1_uniformity", &["0", "1.5"], read);
    }
}

#[test]
fn each_kind_of_sensor() {
    let c = context(Half::North).controller().clone();
    let of = |word: &str| {
        let sensor =
            Sensor { jumper_removed: true, ..Sensor::proposed(SensorKind::of_word(word).unwrap(), "Shed", &c) };
        (with(sensors::filled(&sensor, Units::Metric), &[("etA", "1")]), sensor)
    };
    let (form, rain) = of("rain");
    let read = |form: &mut Form| sensors::read(form, &c, &rain, Units::Metric);
    refused(&form, "threshold", &["", "4.9", "wet"], read);
    refused(&form, "settings", &["3; wet", "-3"], read);
    refused(&form, "delay", &["", "-1", "400"], read);
    refused(&form, "vent", &["ajar"], read);
    refused(&form, "release", &["", "0", "150"], read);
    refused(&form, "input", &["", "0", "9"], read);
    refused(&form, "battery_on", &["last spring", "1066-10-14"], read);
    refused(&form, "place", &[&"x".repeat(200), "a\u{0}b"], read);
    refused_at(form, &[("proven_on", "2026-06-01")], "proven_how", read);
    let (form, freeze) = of("freeze");
    let read = |form: &mut Form| sensors::read(form, &c, &freeze, Units::Metric);
    refused(&form, "threshold", &["", "40", "cold"], read);
    let (form, soil) = of("soil_moisture");
    let read = |form: &mut Form| sensors::read(form, &c, &soil, Units::Metric);
    refused_at(form.clone(), &[("r0at", "2026-05-04 08:00")], "r0pct", read);
    refused_at(form.clone(), &[("r0at", "at noon"), ("r0pct", "30")], "r0at", read);
    refused_at(form, &[("r0at", "2026-05-04 08:00"), ("r0pct", "130")], "r0pct", read);
    let (form, et) = of("et");
    let read = |form: &mut Form| sensors::read(form, &c, &et, Units::Metric);
    refused(&form, "climate", &["", "K"], read);
    refused(&form, "offset", &["", "+9"], read);
    refused(&form, "offset_step", &["", "0", "90"], read);
    refused(&form, "step0from", &["", "50", "dry"], read);
    refused(&form, "neutral", &["Z"], read);
}

#[test]
fn the_schedule_of_a_program() {
    let c = context(Half::North).controller().clone();
    let letter = c.programs[0].letter;
    let form = week::filled(&c, letter);
    let schedule = |form: &mut Form| week::read_program(form, &c.capability);
    refused(&form, "mode", &["", "weekends"], schedule);
    refused(&form, "start0", &["24:00", "dawn", "04:30:30"], schedule);
    refused(&form, "split", &["0", "99", "two"], schedule);
    refused_at(form.clone(), &[("start1", "04:30")], "start1", schedule);
    refused_at(form.clone(), &[("mode", "every"), ("every", "99"), ("next", "2026-06-12")], "every", schedule);
    refused_at(form.clone(), &[("mode", "every"), ("every", "3"), ("next", "soon")], "next", schedule);
    let minutes = |form: &mut Form| {
        let mut read = c.clone();
        week::read_stations(form, &mut read, letter);
        form.is_sound().then_some(read)
    };
    refused(&form, "m1", &["-1", "9999", "long", "10.33"], minutes);
    refused(&form, "c2", &["-1", "9999"], minutes);
    refused(&form, "k2", &["-1", "99999"], minutes);
}

#[test]
fn what_is_set_for_a_while() {
    let c = context(Half::North).controller().clone();
    let today = Half::North.today();
    let sound = with(temporary::empty(today), &[("percent", "60"), ("program", "A"), ("reason", "wet week")]);
    let read = |form: &mut Form| temporary::read(form, &c, "Oda");
    refused(&sound, "kind", &["", "holiday"], read);
    refused(&sound, "percent", &["", "63", "500", "half"], read);
    refused(&sound, "program", &["Z"], read);
    refused(&sound, "reason", &["", &"x".repeat(500)], read);
    refused(&sound, "since", &["", "today", "3000-01-01"], read);
    refused(&sound, "until", &["", "2026-06-01"], read);
    let delay = with(sound.clone(), &[("kind", "rain_delay"), ("until", "2026-06-11")]);
    refused(&delay, "until", &["2026-12-24"], read);
    let weaning = with(sound.clone(), &[("kind", "weaning")]);
    refused(&weaning, "step", &["", "0", "90"], read);
    let grow_in = with(sound.clone(), &[("kind", "grow_in")]);
    refused(&grow_in, "starts", &["", "0", "30"], read);
    refused_at(grow_in.clone(), &[("program", "")], "program", read);
    refused_at(grow_in, &[("from", "14:00"), ("to", "06:00")], "to", read);
    let bypass = with(sound, &[("kind", "bypass"), ("sensor", "1")]);
    refused(&bypass, "sensor", &["", "77"], read);
}

#[test]
fn a_job_that_is_put_off() {
    let today = NaiveDate::from_ymd_opt(2026, 6, 11).unwrap();
    let mut form = with(Form::default(), &[("reason", "the key is lost")]);
    later::fill(&mut form, today);
    let read = |form: &mut Form| later::read(form, today);
    refused(&form, "until", &["", "2026-06-11", "2026-06-01", "2028-01-01", "never"], read);
    refused(&form, "reason", &["", &"x".repeat(500), "a\u{0}b"], read);
}

#[test]
fn normals_that_are_typed() {
    let mut form = Form::default();
    for month in 1..=12 {
        form.set(&format!("et0_{month}"), "3.5");
        form.set(&format!("rain_{month}"), "40");
    }
    let read = |form: &mut Form| normals::read_normals(form, 47.5, Units::Metric);
    refused(&form, "et0_6", &["", "-1", "35", "much"], read);
    refused(&form, "rain_6", &["", "-1", "90000"], read);
}
