//! The days of one month: those of the program, or fewer where a month has waterings of its own.

use std::borrow::Cow;

use chrono::{Datelike, NaiveDate};

use super::capability::PercentScope;
use super::days::{DayMode, Days, Schedule};
use super::days_fit::even_days;
use super::letter::ProgramLetter;
use super::model::{Controller, MonthPlan, Program};
use super::temporary::{Temporary, TemporaryKind};
use crate::quantity::MonthOfYear;

impl Controller {
    /// The technician's decisions for a month of a program. Where one percent governs all programs they
    /// are those of the first one that has a station.
    #[must_use]
    pub fn month_plan(&self, program: &Program, month: MonthOfYear) -> MonthPlan {
        let governing = match self.capability.percent_scope {
            PercentScope::EachProgram => None,
            PercentScope::AllPrograms => self.programs_with_stations().next(),
        };
        governing.unwrap_or(program).months[month.index()]
    }

    /// The days of a program in a month. A month of fewer waterings a week than its days keeps the most
    /// even ones of them; where days go by the date it goes by weekdays. On a panel that is a change by
    /// hand when the month begins, and back when it ends.
    ///
    /// ```
    /// use chrono::Weekday::{Fri, Mon, Wed};
    /// use upland_core::controller::{Controller, DayMode, Days, Preset};
    /// use upland_core::quantity::MonthOfYear;
    /// let mut c = Controller::new("Shed".into(), Preset::Monthly.capability());
    /// c.programs[0].schedule.days = DayMode::Weekdays(Days::of([Mon, Wed, Fri]));
    /// let april = MonthOfYear::ALL[3];
    /// c.programs[0].months[april.index()].waterings = Some(1);
    /// assert_eq!(c.days_in(&c.programs[0], april), DayMode::Weekdays(Days::of([Mon])));
    /// ```
    #[must_use]
    pub fn days_in(&self, program: &Program, month: MonthOfYear) -> DayMode {
        let schedule = &program.schedule;
        let Some(waterings) = self.month_plan(program, month).waterings else { return schedule.days };
        if f64::from(waterings) >= schedule.waterings_a_week() {
            return schedule.days;
        }
        let open = schedule.never.complement();
        match schedule.days {
            DayMode::Weekdays(days) => DayMode::Weekdays(even_days(days.and(open), waterings)),
            _ => DayMode::Weekdays(even_days(open, waterings)),
        }
    }

    /// Whether a month of a program has days of its own.
    #[must_use]
    pub fn has_own_days(&self, program: &Program, month: MonthOfYear) -> bool {
        self.days_in(program, month) != program.schedule.days
    }

    /// The months of a program with days of their own, in the order of the year.
    #[must_use]
    pub fn months_with_own_days(&self, program: &Program) -> Vec<(MonthOfYear, DayMode)> {
        let own = MonthOfYear::ALL.into_iter().filter(|m| self.has_own_days(program, *m));
        own.map(|m| (m, self.days_in(program, m))).collect()
    }

    /// Days and starts of a program on a date: while a planting grows in, every day and the starts of its plan;
    /// else those of the program, whose days a month may still make fewer.
    #[must_use]
    pub fn schedule_on<'a>(&self, program: &'a Program, date: NaiveDate) -> Cow<'a, Schedule> {
        let grows_in = |t: &&Temporary| {
            t.holds_on(date) && matches!(t.kind, TemporaryKind::GrowIn { letter, .. } if letter == program.letter)
        };
        match self.temporaries.iter().rev().find(grows_in) {
            Some(t) => Cow::Owned(Schedule {
                days: DayMode::Weekdays(Days::ALL),
                never: program.schedule.never,
                starts: t.kind.grow_in_starts(self.capability.start_step),
                split: 1,
            }),
            None => Cow::Borrowed(&program.schedule),
        }
    }

    /// Whether a planting of a program grows in on a date.
    #[must_use]
    pub fn grows_in(&self, program: &Program, date: NaiveDate) -> bool {
        matches!(self.schedule_on(program, date), Cow::Owned(_))
    }

    /// The days of a program on a date, by its month or by a planting that grows in.
    #[must_use]
    pub fn days_on(&self, program: &Program, date: NaiveDate) -> DayMode {
        match self.schedule_on(program, date) {
            Cow::Owned(own) => own.days,
            Cow::Borrowed(_) => self.days_in(program, MonthOfYear::of(date)),
        }
    }

    /// Whether a program runs on a date, by the days of its month.
    #[must_use]
    pub fn waters_on(&self, program: &Program, date: NaiveDate) -> bool {
        if let Cow::Owned(own) = self.schedule_on(program, date) {
            return own.waters_on(date);
        }
        let mode = self.days_in(program, MonthOfYear::of(date));
        !program.schedule.starts.is_empty() && mode.waters_on(date) && !program.schedule.never.holds(date.weekday())
    }

    /// The days of each month of a program, January first.
    #[must_use]
    pub fn days_of_year(&self, letter: ProgramLetter) -> [DayMode; 12] {
        let program = self.program(letter);
        MonthOfYear::ALL.map(|m| program.map_or(DayMode::Weekdays(Days::NONE), |p| self.days_in(p, m)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::controller::{Preset, Schedule, StartTime, Station};
    use crate::landscape::{Plant, SprinklerType};

    /// April at one watering a week on Monday, Wednesday and Friday: the days follow, not the percent
    /// alone.
    #[test]
    fn a_month_of_fewer_waterings_waters_on_fewer_days() {
        let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
        c.programs[0].schedule =
            Schedule { days: DayMode::Odd, starts: vec![StartTime::new(270).unwrap()], ..Schedule::default() };
        c.programs[0].months[3].waterings = Some(2);
        let count = |c: &Controller, month| {
            (1..=28)
                .filter_map(|d| NaiveDate::from_ymd_opt(2026, month, d))
                .filter(|d| c.waters_on(&c.programs[0], *d))
                .count()
        };
        assert_eq!((count(&c, 4), count(&c, 5)), (8, 14));
        c.programs[0].months[3].waterings = Some(4);
        assert_eq!(count(&c, 4), 14, "more than its days is no change");
    }

    #[test]
    fn one_percent_for_all_has_one_set_of_months() {
        let mut c = Controller::new("Cabinet".into(), Preset::Plain.capability());
        c.stations = vec![Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray)];
        let mut second = Program::proposed(ProgramLetter::ALL[1]);
        second.schedule.days = DayMode::Weekdays(Days::ALL);
        c.programs.push(second);
        c.programs[0].months[3].waterings = Some(1);
        assert!(c.has_own_days(&c.programs[1], MonthOfYear::ALL[3]));
    }
}
