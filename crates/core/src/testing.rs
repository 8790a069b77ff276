//! Any controller, rules or panel as a record could hold them, for tests that hold for all of them.
//!
//! Everything made here passes the checks of this crate. Behind the feature `testing`: the crates above use it too.
#![allow(clippy::unwrap_used)]

use chrono::{NaiveDate, NaiveTime, TimeDelta};
use proptest::prelude::*;

use crate::controller::*;
use crate::found::{FoundProgram, FoundStation, Panel, PanelClock, SensorSwitch, Switch};
use crate::landscape::{
    CycleSoak, Density, Exposure, Maturity, Plant, Planting, Slope, Soil, SprinklerType, WaterNeed,
};
use crate::place::{Ban, ClosedDates, DayOfYear, DayRule, Rules, Season, SeasonRule};
use crate::quantity::{Coefficient, Percent, RunTime};
use crate::sensor::{Disc, EtSetting, EtSheet, Proof, RainSetting, Reading, Sensor, SensorKind, Vent};

fn date() -> impl Strategy<Value = NaiveDate> {
    (0i64..30_000).prop_map(|n| NaiveDate::from_ymd_opt(2001, 1, 1).unwrap() + TimeDelta::days(n))
}

fn time() -> impl Strategy<Value = StartTime> {
    (0u16..96).prop_map(|q| StartTime::new(q * 15).unwrap())
}

fn days() -> impl Strategy<Value = Days> {
    (0u8..128).prop_map(Days::from_bits)
}

fn some_days() -> impl Strategy<Value = Days> {
    (1u8..127).prop_map(Days::from_bits)
}

fn mode() -> impl Strategy<Value = DayMode> {
    prop_oneof![
        days().prop_map(DayMode::Weekdays),
        Just(DayMode::Odd),
        Just(DayMode::Even),
        (1u8..=7, date()).prop_map(|(days, next)| DayMode::Every { days, next }),
    ]
}

fn starts() -> impl Strategy<Value = Vec<StartTime>> {
    proptest::collection::btree_set(time(), 0..4).prop_map(|s| s.into_iter().collect())
}

/// Water rules, in part of every year others.
pub fn any_rules() -> impl Strategy<Value = Rules> {
    (of_the_year(), seasons()).prop_map(|(rules, seasons)| Rules { seasons, ..rules })
}

fn day_rule() -> impl Strategy<Value = DayRule> {
    prop_oneof![
        Just(DayRule::Any),
        some_days().prop_map(DayRule::Weekdays),
        (some_days(), some_days()).prop_map(|(odd, even)| DayRule::ByParity { odd, even }),
        proptest::array::uniform10(some_days()).prop_map(DayRule::ByLastDigit),
        any::<bool>().prop_map(|with_31st| DayRule::ByDate { with_31st }),
    ]
}

/// None, one, or two that stand apart, the second over the turn of the year.
fn seasons() -> impl Strategy<Value = Vec<SeasonRule>> {
    let part = || (day_rule(), time());
    let spans = [((4, 1), (9, 30)), ((10, 15), (2, 29))].map(|(from, to)| {
        let day = |(month, day)| DayOfYear::new(month, day).unwrap();
        Season { from: day(from), to: day(to) }
    });
    proptest::collection::vec(part(), 0..3).prop_map(move |parts| {
        let rule = |((days, from), season): ((DayRule, StartTime), Season)| SeasonRule {
            season,
            days,
            hours: vec![Hours { from, to: StartTime::of(from.time() + TimeDelta::minutes(30)) }],
        };
        parts.into_iter().zip(spans).map(rule).collect()
    })
}

fn of_the_year() -> impl Strategy<Value = Rules> {
    let ban = proptest::option::of((date(), 0i64..200).prop_map(|(from, n)| Ban {
        from,
        to: from + TimeDelta::days(n),
        hours: None,
    }));
    let closed = proptest::collection::vec((date(), 0i64..20, "[a-zé]{0,20}"), 0..3);
    (day_rule(), (ban, closed, any::<bool>()), proptest::option::of(date()), "[a-zé ]{0,30}", time()).prop_map(
        |(days, (ban, closed, needs_sensor), dated, authority, from)| {
            // Half an hour is closed, so that an hour is always left to water in.
            let to = StartTime::of(from.time() + TimeDelta::minutes(30));
            Rules {
                days,
                never: Days::NONE,
                hours: vec![Hours { from, to }],
                seasons: Vec::new(),
                closed: closed
                    .into_iter()
                    .map(|(from, n, why)| ClosedDates { from, to: from + TimeDelta::days(n), why })
                    .collect(),
                ban: ban.map(|b| Ban { hours: needs_sensor.then_some(Hours { from, to }), ..b }),
                done_by: needs_sensor.then(|| StartTime::new(480).unwrap()),
                needs_sensor,
                authority: authority.trim().into(),
                dated,
            }
        },
    )
}

fn exposure() -> impl Strategy<Value = (Exposure, Option<f64>)> {
    (proptest::sample::select(Exposure::ALL.to_vec()), proptest::option::of(0.2f64..1.6))
}

fn planting() -> impl Strategy<Value = Planting> {
    let need = proptest::option::of(proptest::sample::select(WaterNeed::ALL.to_vec()));
    let density = proptest::sample::select(Density::ALL.to_vec());
    let maturity = proptest::sample::select(Maturity::ALL.to_vec());
    // The bare surface, last of the kinds, grows beside nothing.
    let beside = proptest::option::of(proptest::sample::select(Plant::KINDS[..11].to_vec()));
    let by_month = proptest::option::of(proptest::array::uniform12(0.05f64..1.5));
    (need, density, maturity, beside, by_month).prop_map(|(need, density, maturity, beside, by_month)| Planting {
        need,
        density,
        maturity,
        beside,
        by_month: by_month.map(|months| months.map(|k| Coefficient::new(k).unwrap())),
    })
}

fn station(number: u8) -> impl Strategy<Value = Station> {
    let plants = proptest::sample::select(Plant::KINDS.to_vec());
    let kinds = proptest::sample::select(SprinklerType::ALL.to_vec());
    let soil = (proptest::sample::select(Soil::ALL.to_vec()), planting(), exposure());
    let slope = prop_oneof![Just(Slope::Level), Just(Slope::Gentle), Just(Slope::Steep)];
    // No shorter than what 100 cycles of the longest minutes take.
    let cycle = proptest::option::of((3u32..30, 0u32..90));
    let minutes = proptest::option::of(0u32..200);
    (plants, kinds, soil, slope, cycle, minutes, any::<bool>(), 0usize..2, proptest::option::of(1.0f64..5000.0))
        .prop_map(move |(plant, kind, (soil, planting, exposure), slope, cycle, minutes, roofed, letter, area_m2)| {
            Station {
                program: ProgramLetter::ALL[letter],
                soil,
                planting,
                exposure: exposure.0,
                microclimate: exposure.1,
                slope,
                roofed,
                area_m2,
                minutes: minutes.map(|m| RunTime::from_seconds(m * 60)),
                cycle: cycle.map(|(c, s)| CycleSoak {
                    cycle: RunTime::from_seconds(c * 60),
                    soak: RunTime::from_seconds(s * 60 + 7 * c % 60),
                }),
                root_zone: if roofed {
                    StatedRootZone {
                        field_capacity: Some(0.31),
                        wilting_point: Some(0.135),
                        root_depth_m: Some(0.27),
                        p: Some(0.55),
                        depletion_start_mm: minutes.map(|m| f64::from(m) / 7.0),
                    }
                } else {
                    StatedRootZone::default()
                },
                ..Station::plain(number, &format!("Station {number}"), plant, kind)
            }
        })
}

fn sensor() -> impl Strategy<Value = Sensor> {
    let kind = prop_oneof![
        (0usize..4, 0u8..8, 0usize..3, 5.0f64..200.0, 0.05f64..1.0).prop_map(
            |(t, delay_days, vent, capacity_mm, release_share)| SensorKind::Rain {
                thresholds_mm: SensorKind::COMMON_RAIN_MM.to_vec(),
                setting: RainSetting {
                    threshold_mm: SensorKind::COMMON_RAIN_MM[t],
                    delay_days,
                    vent: Vent::ALL[vent],
                    disc: Disc { capacity_mm, release_share },
                },
            }
        ),
        Just(SensorKind::common_freeze()),
        (1u8..=6, 1u8..=5, proptest::option::of(1u8..=6), 1u8..=5, 0.5f64..15.0).prop_map(
            |(climate, offset, minutes_for, neutral, offset_step_pct)| SensorKind::Et {
                setting: EtSetting {
                    sheet: EtSheet { neutral, offset_step_pct: offset_step_pct.max(1.0), ..EtSheet::example() },
                    climate,
                    minutes_for,
                    offset,
                },
                programs: vec![ProgramLetter::A],
            }
        ),
        (date(), proptest::collection::vec(0.0f64..60.0, 0..5)).prop_map(|(day, percents)| SensorKind::SoilMoisture {
            readings: percents
                .iter()
                .enumerate()
                .map(|(i, percent)| Reading {
                    at: day.and_time(NaiveTime::MIN) + TimeDelta::hours(i as i64),
                    percent: *percent
                })
                .collect(),
            threshold_pct: percents.first().copied(),
        }),
    ];
    (kind, proptest::option::of(date()), any::<bool>()).prop_map(|(kind, proven, jumper_removed)| Sensor {
        id: 0,
        kind,
        place: "Shed".into(),
        battery: "CR2032".into(),
        battery_on: proven,
        contact: Contact::NormallyOpen,
        jumper_removed,
        input: 1,
        exempt: vec![2],
        proven: proven.map(|on| Proof { on, how: "water poured".into() }),
    })
}

/// A controller of two stations, with sensors, water windows and something set for a while.
pub fn any_controller(name: &'static str) -> impl Strategy<Value = Controller> {
    let schedules = proptest::collection::vec((mode(), starts(), days()), 2);
    let temporary = proptest::option::of((date(), 0i64..10, 0usize..4));
    let dials = proptest::array::uniform12(prop_oneof![
        Just(MonthDial::Computed),
        Just(MonthDial::Off),
        (1u16..=30).prop_map(|p| MonthDial::Set(Percent::new(p * 5).unwrap())),
    ]);
    let windows = proptest::collection::vec((0u16..720, 720u16..1440), 0..=2);
    let sensors = proptest::collection::vec(sensor(), 0..3);
    (station(1), station(2), schedules, sensors, temporary, dials, windows).prop_map(
        move |(one, two, schedules, sensors, temporary, dials, windows)| {
            let capability = Capability { sensor_inputs: 2, water_windows: 2, ..Preset::Monthly.capability() };
            let mut c = Controller::new(name.into(), capability);
            let time = |minute| StartTime::new(minute).unwrap();
            // By day and over midnight.
            let window = |(i, (a, b)): (usize, (u16, u16))| match i {
                0 => Hours { from: time(a), to: time(b) },
                _ => Hours { from: time(b), to: time(a) },
            };
            c.windows = windows.into_iter().enumerate().map(window).collect();
            c.stations = vec![one, two];
            c.normalise_programs();
            for (program, (days, starts, never)) in c.programs.iter_mut().zip(schedules) {
                let never = if capability.never_days { never } else { Days::NONE };
                program.by_hand = starts.is_empty();
                program.schedule = Schedule { days, never, starts, split: 1 };
                for (month, dial) in program.months.iter_mut().zip(dials) {
                    month.dial = dial;
                }
            }
            for sensor in sensors {
                c.add_sensor(sensor);
            }
            for sensor in &mut c.sensors {
                if let SensorKind::Et { programs, .. } = &mut sensor.kind {
                    *programs = vec![c.programs[0].letter];
                }
            }
            if let Some((since, n, kind)) = temporary {
                let weaning = TemporaryKind::Weaning { letter: None, extra_pct: 200, step_pct: 1 };
                let [from, to] = [360, 845].map(|minute| StartTime::new(minute).unwrap());
                let (letter, percent) = (c.programs[0].letter, capability.percent_max);
                let grow_in = TemporaryKind::GrowIn { letter, percent, starts: 2, from, to };
                let kind = [TemporaryKind::Off, TemporaryKind::RainDelay, weaning, grow_in][kind];
                let until = since + TimeDelta::days(n.min(i64::from(capability.rain_delay_max) - 1).max(0));
                c.add_temporary(Temporary {
                    id: 0,
                    kind,
                    since,
                    until,
                    reason: "wet".into(),
                    by: "Oda".into(),
                    left_standing: false,
                });
            }
            c
        },
    )
}

/// A panel as somebody found it.
pub fn any_panel() -> impl Strategy<Value = Panel> {
    (date(), time(), mode(), starts(), any::<bool>(), 0u32..200).prop_map(|(day, time, days, starts, off, minutes)| {
        Panel {
            seen_at: day.and_time(NaiveTime::MIN),
            clock: PanelClock { date: day, weekday: off.then_some(chrono::Weekday::Tue), time },
            switch: [Switch::On, Switch::Held, Switch::Off][minutes as usize % 3],
            sensor: SensorSwitch::Bypassed,
            stations: vec![FoundStation {
                number: 3,
                minutes: RunTime::from_seconds(minutes * 60),
                programs: vec![ProgramLetter::A, ProgramLetter::ALL[1]],
                cycle: off.then(|| CycleSoak {
                    cycle: RunTime::from_seconds(minutes * 30 + 60),
                    soak: RunTime::from_seconds(minutes * 60),
                }),
            }],
            windows: vec![Hours { from: StartTime::new(240).unwrap(), to: StartTime::new(30).unwrap() }],
            programs: vec![FoundProgram {
                letter: ProgramLetter::A,
                days,
                starts,
                never: if off { Days::of([chrono::Weekday::Sun]) } else { Days::NONE },
                percent: Percent::new(100).unwrap(),
                months: off.then(|| std::array::from_fn(|m| Percent::new(10 * m as u16 + 5).ok().filter(|_| m > 1))),
            }],
            note: "mud on the panel".into(),
        }
    })
}
