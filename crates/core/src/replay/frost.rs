use chrono::Datelike;

use super::scheduled::Scheduled;
use super::season::Season;
use super::state::Day;
use crate::controller::ProgramLetter;
use crate::sensor::temperature_at;

/// Nights on which a schedule would have watered in air colder than each of some temperatures, °C, at the start of one
/// of some programs.
///
/// `sunrise_hours`: hour of sunrise by month, January first, by the clock of the place. Nights of which the air is not
/// known count for none.
#[must_use]
pub fn frost_nights(
    schedule: &Scheduled<'_>,
    season: &Season,
    programs: &[ProgramLetter],
    thresholds_c: &[f64],
    sunrise_hours: &[f64; 12],
) -> Vec<u32> {
    let mut nights = vec![0; thresholds_c.len()];
    for index in season.lead..season.len() {
        let Some((low, high)) = season.air_c[index] else { continue };
        let day = Day { season, index };
        let sunrise = sunrise_hours[day.date().month0() as usize];
        let at_start = |minute: u16| temperature_at(f64::from(minute) / 60.0, sunrise, low, high);
        // Most days are warm: what is due is asked on the others alone.
        if thresholds_c.iter().all(|threshold| low >= *threshold) {
            continue;
        }
        let due = schedule.due(&day).into_iter().filter(|p| programs.contains(&p.letter));
        let starts = due.map(|p| at_start(p.first.minute_of_day()));
        let Some(coldest) = starts.reduce(f64::min) else { continue };
        for (count, threshold) in nights.iter_mut().zip(thresholds_c) {
            *count += u32::from(coldest < *threshold);
        }
    }
    nights
}
