//! What a week comes to: water of each station, end of each program.

use chrono::NaiveDateTime;

use super::plan::Plan;
use super::runs::Expansion;
use crate::controller::ProgramLetter;

/// A station's week.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StationWeek {
    /// Terminal number.
    pub number: u8,
    /// Minutes in all.
    pub minutes: f64,
    /// Net depth where cover is thin, mm.
    pub net_mm: f64,
    /// Water let out, m³, where the area is known.
    pub volume_m3: Option<f64>,
}

/// A program's week.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ProgramWeek {
    /// The program.
    pub letter: ProgramLetter,
    /// The latest end of a start, by the clock of the place; nothing when it never ran.
    pub ends: Option<NaiveDateTime>,
    /// Water let out by its stations of known area, m³.
    pub volume_m3: f64,
}

/// A week's work.
#[derive(Debug, Clone, PartialEq)]
pub struct WeekWork {
    /// The stations, by number.
    pub stations: Vec<StationWeek>,
    /// The programs that ran, by letter.
    pub programs: Vec<ProgramWeek>,
    /// Stations that ran and whose area is not known.
    pub unknown_areas: usize,
}

impl WeekWork {
    /// Water let out in the week by stations of known area, m³.
    #[must_use]
    pub fn volume_m3(&self) -> f64 {
        self.stations.iter().filter_map(|s| s.volume_m3).sum()
    }
}

/// Adds up the runs of a week.
#[must_use]
pub fn week_work(plan: &Plan, week: &Expansion) -> WeekWork {
    let stations: Vec<StationWeek> = plan
        .stations
        .iter()
        .map(|s| {
            let seconds: u32 = week.runs.iter().filter(|r| r.station == s.number).map(|r| r.length.seconds()).sum();
            // A week of runs may be longer than a day, so the depth comes from the seconds.
            let share = f64::from(seconds) / 3600.0;
            StationWeek {
                number: s.number,
                minutes: f64::from(seconds) / 60.0,
                net_mm: share * s.rate_mm_per_hour / s.multiplier,
                volume_m3: s.area_m2.map(|a| share * s.rate_mm_per_hour * a / 1000.0),
            }
        })
        .collect();
    let programs = ProgramLetter::ALL
        .into_iter()
        .filter_map(|letter| {
            let runs = || week.runs.iter().filter(move |r| r.letter == letter);
            runs().next()?;
            // The longest after its own midnight: 01:19 on the next day is later than 23:50.
            let ends = runs().max_by_key(|r| r.local_stop() - r.date.and_time(chrono::NaiveTime::MIN));
            Some(ProgramWeek {
                letter,
                ends: ends.map(|r| r.local_stop()),
                volume_m3: runs().filter_map(|r| plan.station(r.station).and_then(|s| s.volume_m3(r.length))).sum(),
            })
        })
        .collect();
    let unknown_areas = stations.iter().filter(|s| s.volume_m3.is_none() && s.minutes > 0.0).count();
    WeekWork { stations, programs, unknown_areas }
}
