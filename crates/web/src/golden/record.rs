//! The chart, the months and the last days of a weather record.

use chrono::{Days, NaiveDate};
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::hourly::HourlyWeather;
use upland_store::DayHours;
use uuid::Uuid;

use super::fixture::{Half, context};
use super::{CASES, each};
use crate::context::{HoursOnRecord, Record, RecordDay};
use crate::form::Form;
use crate::pages::series::{HoursView, RecordView, Scheduled};
use crate::show::Units;

/// Fourteen months up to yesterday, with a gap, a lost sign and a day of too much sun.
fn record(half: Half) -> Record {
    let last = half.today().pred_opt().unwrap();
    let first = last - Days::new(430);
    let days = first
        .iter_days()
        .take_while(|d| *d <= last)
        .zip(0_u32..)
        .filter(|(_, n)| !(200..204).contains(n))
        .map(|(date, n)| {
            let wave = f64::from(n % 7);
            let t_min = if n == 420 { -9.8 } else { 4.0 + wave / 2.0 };
            RecordDay {
                weather: DailyWeather {
                    t_max: Some(16.0 + wave),
                    t_min: Some(t_min),
                    rain: Some(if n % 6 == 0 { 4.5 } else { 0.0 }),
                    solar: Some(if n == 425 { 48.0 } else { 1.5 + wave / 4.0 }),
                    ..DailyWeather::empty(date)
                },
                et0_mm: Some(2.0 + wave / 5.0),
                has_hours: n >= 420,
            }
        })
        .collect();
    Record { weather: context(half).at.weather.unwrap(), days, decisions: Vec::new() }
}

fn view(half: Half, units: Units, period: &[(&str, String)]) -> RecordView {
    let mut form = Form::default();
    for (field, value) in period {
        form.set(field, value.clone());
    }
    let mm = [(half.today() - Days::new(3), 9.5)].into_iter().collect();
    let scheduled = Scheduled { station: "Reading lawn".into(), mm };
    RecordView::of(&record(half), &form, "/weather/x", half.today(), Some(&scheduled), units)
}

#[test]
fn the_record() {
    each("record", |half, units| {
        let from: NaiveDate = half.today() - Days::new(21);
        let period = [("from", from.to_string()), ("to", half.today().to_string())];
        let view = view(half, units, &period);
        let recent = view.recent.as_ref().unwrap();
        let days: Vec<String> = recent
            .rows
            .iter()
            .take(8)
            .map(|r| {
                format!(
                    "{} {} | {} | {} | {} | {} | {} | {:?}",
                    r.day, r.date, r.high, r.low, r.rain, r.et0, r.scheduled, r.flags
                )
            })
            .collect();
        let flags: Vec<String> =
            view.flags.iter().map(|f| format!("{} {}: {} [{}]", f.number, f.title, f.fact, f.value)).collect();
        format!(
            "{}\n{:#?}\n{:#?}\n{}\n{}\n{}\n{:?}\n{:#?}",
            view.shown,
            view.steps,
            view.plate,
            days.join("\n"),
            flags.join("\n"),
            [&recent.rain, &recent.et0].map(String::as_str).join(" "),
            recent.scheduled,
            view.months.lines,
        )
    });
}

#[test]
fn a_long_period_is_drawn_in_means_and_every_flag_keeps_its_mark() {
    for (_, half, units) in CASES {
        let all = [("from", "1900-01-01".to_owned()), ("to", "2100-01-01".to_owned())];
        let view = view(half, units, &all);
        let plate = view.plate.unwrap();
        assert_eq!(plate.bin, 2, "431 days are too many strokes");
        assert_eq!(plate.flags.len(), 2);
        assert!(plate.frost_note.is_none(), "the mean of two days has no frost of a date");
        assert_eq!(view.months.years.iter().map(|y| y.missing.as_str()).filter(|m| *m == "−4").count(), 1);
    }
}

/// A day by its hours: fog until ten, wind and a shower in the afternoon; nobody measured the wind of the night.
fn hours(half: Half) -> HoursOnRecord {
    let date = half.today() - Days::new(1);
    let site = record(half).site().unwrap();
    let hour = |hour: u32| {
        let start = date.and_hms_opt(hour, 0, 0).unwrap().and_utc().fixed_offset();
        let at = f64::from(hour);
        HourlyWeather {
            t: Some(14.0 - 6.0 * ((at - 3.0) / 12.0 * std::f64::consts::PI).cos()),
            rh: Some(if hour < 10 { 98.0 } else { 60.0 }),
            wind: (hour > 5).then_some(if hour > 12 { 3.4 } else { 0.8 }),
            solar: Some(site.clear_sky_hour(start.to_utc()) * if hour < 10 { 0.2 } else { 0.7 }),
            rain: Some(if hour == 16 { 2.6 } else { 0.0 }),
            ..HourlyWeather::empty(start)
        }
    };
    let brought_by = Some(Uuid::from_u128(7));
    HoursOnRecord::from([(date, DayHours { brought_by, hours: (0..24).map(hour).collect() })])
}

#[test]
fn the_hours_of_a_day() {
    each("hours", |half, units| {
        let (record, date) = (record(half), half.today() - Days::new(1));
        let view = HoursView::of(&record, &hours(half), date, units);
        let rows: Vec<String> = view
            .rows
            .iter()
            .map(|r| {
                [&r.time, &r.air, &r.humidity, &r.wind, &r.sun, &r.rain, &r.et0, &r.note]
                    .map(String::as_str)
                    .join(" | ")
            })
            .collect();
        format!(
            "{} {} {}\n{:#?}\n{}\n{:?} {:?}\n{:#?}\n{}",
            view.date,
            view.figure,
            view.figure_unit,
            view.ways,
            view.why,
            view.earlier,
            view.later,
            view.plate,
            rows.join("\n")
        )
    });
}
