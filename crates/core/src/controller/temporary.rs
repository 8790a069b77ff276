//! What is set for a while. Everything temporary has a reason and an end.

use chrono::{NaiveDate, TimeDelta};

use super::days::StartTime;
use super::letter::ProgramLetter;
use crate::quantity::Percent;

/// What is set for a while.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TemporaryKind {
    /// Another percent than the month's, for a program or for all of them.
    Percent {
        /// The program; none for all.
        letter: Option<ProgramLetter>,
        /// The percent.
        percent: Percent,
    },
    /// More than the month's percent for a planting that was used to too much water, and less of it week by week.
    Weaning {
        /// The program; none for all.
        letter: Option<ProgramLetter>,
        /// What is added to the month's percent in the first week, % of it.
        extra_pct: u16,
        /// What that loses with every week.
        step_pct: u16,
    },
    /// A new planting: every day, in several short runs within hours of its own, while it roots.
    GrowIn {
        /// The program.
        letter: ProgramLetter,
        /// The percent of its minutes that each start runs.
        percent: Percent,
        /// Starts a day, spread evenly from the first to the last.
        starts: u8,
        /// The first start of a day.
        from: StartTime,
        /// The last one, on the same day.
        to: StartTime,
    },
    /// No watering for some days, counted by the panel itself.
    RainDelay,
    /// A sensor that watering does not obey.
    Bypass {
        /// The sensor's [`id`](crate::sensor::Sensor::id).
        sensor: u16,
    },
    /// The controller is off.
    Off,
}

impl TemporaryKind {
    /// Whether it changes the percent of a program.
    #[must_use]
    pub fn sets_percent_of(&self, program: ProgramLetter) -> bool {
        match self {
            Self::Percent { letter, .. } | Self::Weaning { letter, .. } => letter.is_none_or(|l| l == program),
            Self::GrowIn { letter, .. } => *letter == program,
            Self::RainDelay | Self::Bypass { .. } | Self::Off => false,
        }
    }

    /// The starts of a planting that grows in, each down to a panel's step; nothing for anything else. Starts that
    /// fall on the same step are one.
    #[must_use]
    pub fn grow_in_starts(&self, step: u16) -> Vec<StartTime> {
        let Self::GrowIn { starts, from, to, .. } = self else { return Vec::new() };
        let (first, last) = (u32::from(from.minute_of_day()), u32::from(to.minute_of_day()));
        let gaps = u32::from(starts.saturating_sub(1)).max(1);
        let at = |i: u32| first + last.saturating_sub(first) * i / gaps;
        let times = (0..u32::from(*starts)).filter_map(|i| StartTime::new(u16::try_from(at(i)).ok()?).ok());
        let mut times: Vec<StartTime> = times.map(|time| time.down_to(step)).collect();
        times.dedup();
        times
    }

    /// Whole weeks until a weaning has nothing left to take away; nothing for anything else, or without a step.
    #[must_use]
    pub fn weeks_of_weaning(&self) -> Option<u16> {
        match self {
            Self::Weaning { extra_pct, step_pct, .. } if *step_pct > 0 => Some(extra_pct.div_ceil(*step_pct)),
            _ => None,
        }
    }
}

/// Something temporary, from a day to a day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Temporary {
    /// Names it among the controller's temporary settings, from 1; 0 until it is added.
    pub id: u16,
    /// What.
    pub kind: TemporaryKind,
    /// First day.
    pub since: NaiveDate,
    /// Last day; from the next one on it is over, and due to be put back.
    pub until: NaiveDate,
    /// Why.
    pub reason: String,
    /// Who, by name.
    pub by: String,
    /// It is over, and nobody has put it back: it goes on. Never stored; [`Controller::as_of`] tells it.
    ///
    /// [`Controller::as_of`]: crate::controller::Controller::as_of
    pub left_standing: bool,
}

impl Temporary {
    /// Whether it holds on a date: from its first day to its last, and on until it is put back.
    #[must_use]
    pub fn holds_on(&self, date: NaiveDate) -> bool {
        date >= self.since && (date <= self.until || self.left_standing)
    }

    /// The percent that it sets where the month calls for one on a date; nothing where it sets none.
    ///
    /// A weaning adds less with every week from its first day; left standing, its last week goes on. The caller
    /// rounds to what the panel can be set to.
    #[must_use]
    pub fn percent_on(&self, date: NaiveDate, month: Option<Percent>) -> Option<f64> {
        match self.kind {
            TemporaryKind::Percent { percent, .. } | TemporaryKind::GrowIn { percent, .. } => {
                Some(f64::from(percent.get()))
            }
            TemporaryKind::Weaning { .. } => {
                let share = 1.0 + f64::from(self.extra_pct_on(date)) / 100.0;
                month.map(|month| f64::from(month.get()) * share)
            }
            TemporaryKind::RainDelay | TemporaryKind::Bypass { .. } | TemporaryKind::Off => None,
        }
    }

    /// What a weaning still adds on a date, %; 0 for anything else.
    #[must_use]
    pub fn extra_pct_on(&self, date: NaiveDate) -> u16 {
        let TemporaryKind::Weaning { extra_pct, step_pct, .. } = self.kind else { return 0 };
        // At most a year of weeks.
        let weeks = self.weeks_before(date);
        extra_pct.saturating_sub(step_pct.saturating_mul(u16::try_from(weeks).unwrap_or(u16::MAX)))
    }

    /// The last day on which it sets what it sets on a date: of a weaning the end of that week.
    #[must_use]
    pub fn unchanged_until(&self, date: NaiveDate) -> NaiveDate {
        let TemporaryKind::Weaning { .. } = self.kind else { return self.until };
        self.until.min(self.since + TimeDelta::days(7 * self.weeks_before(date) + 6))
    }

    /// Whole weeks from its first day to a date, to its last day at most.
    fn weeks_before(&self, date: NaiveDate) -> i64 {
        (date.min(self.until) - self.since).num_days().max(0) / 7
    }

    /// Whether somebody has to put it back; a rain delay ends by itself.
    #[must_use]
    pub const fn is_put_back_by_hand(&self) -> bool {
        !matches!(self.kind, TemporaryKind::RainDelay)
    }

    /// Whether it is over and nobody has put it back.
    #[must_use]
    pub fn is_over(&self, today: NaiveDate) -> bool {
        today > self.until
    }

    /// Whether nothing is watered while it holds.
    #[must_use]
    pub const fn stops_watering(&self) -> bool {
        matches!(self.kind, TemporaryKind::Off | TemporaryKind::RainDelay)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn weaning(extra_pct: u16, step_pct: u16) -> Temporary {
        let since = NaiveDate::from_ymd_opt(2026, 6, 1).unwrap();
        let kind = TemporaryKind::Weaning { letter: None, extra_pct, step_pct };
        let days = i64::from(7 * kind.weeks_of_weaning().unwrap()) - 1;
        let until = since + TimeDelta::days(days);
        Temporary { id: 1, kind, since, until, reason: "used to more".into(), by: "Oda".into(), left_standing: false }
    }

    #[test]
    fn starts_of_a_planting_are_spread_from_the_first_to_the_last() {
        let time = |text: &str| StartTime::read(text).unwrap();
        let of = |starts, from: &str, to: &str| {
            let percent = Percent::new(30).unwrap();
            let (from, to) = (time(from), time(to));
            let kind = TemporaryKind::GrowIn { letter: ProgramLetter::A, percent, starts, from, to };
            kind.grow_in_starts(15).iter().map(ToString::to_string).collect::<Vec<_>>()
        };
        assert_eq!(of(4, "06:00", "15:00"), ["06:00", "09:00", "12:00", "15:00"]);
        assert_eq!(of(3, "06:00", "07:20"), ["06:00", "06:30", "07:15"], "down to the panel's step");
        assert_eq!(of(1, "06:00", "15:00"), ["06:00"]);
        assert_eq!(of(8, "06:00", "06:30"), ["06:00", "06:15", "06:30"]);
        assert_eq!(TemporaryKind::Off.grow_in_starts(15), []);
    }

    #[test]
    fn a_weaning_takes_a_step_with_every_week() {
        let plan = weaning(40, 15);
        let on = |day: i64| plan.since + TimeDelta::days(day);
        let extras: Vec<u16> = [0, 6, 7, 13, 14, 20].map(|day| plan.extra_pct_on(on(day))).to_vec();
        assert_eq!(extras, [40, 40, 25, 25, 10, 10]);
        assert_eq!(plan.until, on(20), "three weeks, and nothing is left to take away");
        assert_eq!(plan.extra_pct_on(on(90)), 10, "left standing, the last week goes on");
        assert_eq!((plan.unchanged_until(on(8)), plan.unchanged_until(on(19))), (on(13), on(20)));
        let half = Percent::new(50).unwrap();
        assert_eq!(plan.percent_on(on(0), Some(half)), Some(70.0));
        assert_eq!(plan.percent_on(on(0), None), None, "a month that is off stays off");
    }
}
