use chrono::{Datelike, Months, NaiveDate, TimeDelta};

use super::{Note, Section, Slot, Value};
use crate::budget::Dial;
use crate::controller::{
    Capability, Controller, PanelOrder, PercentScope, PercentStorage, ProgramLetter, Temporary, TemporaryKind,
};
use crate::in_force::{InForce, SetBy, in_force, percent_for_a_while};
use crate::quantity::{MonthOfYear, RunTime};
use crate::schedule::Plan;
use crate::sensor::{Sensor, SensorKind};

/// The slots of a controller in the order of its panel, and after them the settings of its sensors and its switch.
///
/// `date` is the day of dialling. What is set for a while goes on the panel with its end beside it; what was set for
/// a while and is over is put back. A month that is off on a panel that cannot hold that is done by hand: the switch
/// where the whole controller is off, the starts of a program where others go on.
#[must_use]
pub fn slots(controller: &Controller, plan: &Plan, date: NaiveDate) -> Vec<Slot> {
    // What the panel must read, not what it reads: nothing is left standing.
    let mut target = controller.clone();
    target.temporaries.iter_mut().for_each(|t| t.left_standing = false);
    let force = in_force(&target, plan, None, date);
    let mut list = List { controller: &target, plan, date, force, slots: Vec::new() };
    list.clock();
    match controller.capability.panel_order {
        PanelOrder::MinutesFirst => {
            list.minutes();
            list.programs();
        }
        PanelOrder::ProgramsFirst => {
            list.programs();
            list.minutes();
        }
    }
    list.percent_of_all();
    list.delays();
    list.water_windows();
    list.sensors();
    list.switch();
    list.slots
}

struct List<'a> {
    controller: &'a Controller,
    plan: &'a Plan,
    date: NaiveDate,
    force: InForce,
    slots: Vec<Slot>,
}

impl List<'_> {
    fn capability(&self) -> &Capability {
        &self.controller.capability
    }

    fn push(&mut self, section: Section, index: u8, value: Value) {
        self.slots.push(Slot { section, index, month: None, value, note: None });
    }

    fn noted(&mut self, section: Section, value: Value, note: Option<Note>) {
        self.slots.push(Slot { section, index: 0, month: None, value, note });
    }

    fn clock(&mut self) {
        self.push(Section::Clock, 0, Value::Date);
        self.push(Section::Clock, 0, Value::Time);
    }

    fn minutes(&mut self) {
        for number in 1..=self.capability().stations {
            let panel = self.plan.station(number).map(|s| s.panel).filter(|r| *r > RunTime::ZERO);
            self.push(Section::Minutes, number, panel.map_or(Value::NoMinutes, Value::Minutes));
        }
        for station in &self.plan.stations {
            if let Some(set) = station.cycle.filter(|c| station.panel > c.cycle) {
                self.push(Section::Soak, station.number, Value::Cycle(set.cycle));
                self.push(Section::Soak, station.number, Value::Soak(set.soak));
            }
        }
    }

    fn programs(&mut self) {
        for letter in ProgramLetter::ALL.into_iter().take(usize::from(self.capability().programs)) {
            self.program(letter);
        }
    }

    fn program(&mut self, letter: ProgramLetter) {
        let section = Section::Program(letter);
        let program = self.controller.program(letter);
        let runs = self.runs(letter);
        let schedule = program.filter(|_| runs).map(|p| self.controller.schedule_on(p, self.date));
        if let Some(program) = program.filter(|_| schedule.as_ref().is_some_and(|s| !s.is_idle())) {
            let days = self.controller.days_on(program, self.date);
            self.push(section, 0, Value::Days(days, program.schedule.never));
        }
        let back = self.off_by_hand(letter).filter(|_| !self.all_off_by_hand());
        for slot in 1..=self.capability().starts {
            let starts = schedule.as_ref().map(|s| s.starts.as_slice()).unwrap_or_default();
            let value = starts.get(usize::from(slot - 1)).map_or(Value::StartOff, |s| Value::Start(*s));
            let (value, note) = match back.filter(|_| value != Value::StartOff) {
                Some(last) => (Value::StartOff, Some(Note::Until { last, then: value })),
                None => (value, None),
            };
            self.slots.push(Slot { section, index: slot, month: None, value, note });
        }
        if self.capability().percent_scope == PercentScope::EachProgram {
            self.percents(section, letter);
        }
    }

    /// The percent of every program at once.
    fn percent_of_all(&mut self) {
        let first = self
            .controller
            .programs
            .iter()
            .map(|p| p.letter)
            .find(|l| self.runs(*l) && !self.controller.is_by_hand(*l));
        let by_sensor = self.controller.programs.iter().any(|p| self.controller.percent_by_sensor(p.letter));
        if let Some(letter) =
            first.filter(|_| self.capability().percent_scope == PercentScope::AllPrograms && !by_sensor)
        {
            self.percents(Section::Percent, letter);
        }
    }

    fn percents(&mut self, section: Section, letter: ProgramLetter) {
        if !self.runs(letter) || !self.controller.percent_is_dialled(letter) {
            return;
        }
        let note = self.percent_note(letter);
        match self.capability().percent_storage {
            PercentStorage::ByMonth => {
                for month in MonthOfYear::ALL {
                    let now = month == self.force.month();
                    let dial = if now { self.force.dial(letter) } else { self.plan.dial(letter, month) };
                    // Where a month cannot be off, it is switched off by hand and its percent does not matter.
                    let value = self.percent(dial).unwrap_or(Value::Percent(self.capability().percent_min));
                    let note = note.filter(|_| now);
                    self.slots.push(Slot { section, index: 0, month: Some(month), value, note });
                }
            }
            PercentStorage::Single => {
                if let Some(value) = self.percent(self.force.dial(letter)) {
                    self.noted(section, value, note);
                }
            }
        }
    }

    /// What a dial reads; nothing for an off that the panel cannot hold.
    fn percent(&self, dial: Dial) -> Option<Value> {
        match dial {
            Dial::Percent(percent) => Some(Value::Percent(percent)),
            Dial::Off => self.capability().months_off.then_some(Value::PercentOff),
        }
    }

    fn percent_note(&self, letter: ProgramLetter) -> Option<Note> {
        if let Some(SetBy::ForAWhile(t)) = self.force.program(letter).map(|p| &p.by) {
            let last = t.unchanged_until(self.date);
            let next = last + TimeDelta::days(1);
            let then = match percent_for_a_while(self.controller, self.plan, letter, next) {
                Some((percent, _)) if last < t.until => Dial::Percent(percent),
                _ => self.plan.dial(letter, MonthOfYear::of(next)),
            };
            return self.percent(then).map(|then| Note::Until { last, then });
        }
        self.put_back(|kind| kind.sets_percent_of(letter))
    }

    /// The note of what is over and was not put back, of several the one that was set last.
    fn put_back(&self, is_meant: impl Fn(TemporaryKind) -> bool) -> Option<Note> {
        let over = |t: &&Temporary| t.is_put_back_by_hand() && t.is_over(self.date) && is_meant(t.kind);
        let found = self.controller.temporaries.iter().rev().find(over)?;
        Some(Note::PutBack { ended: found.until, temporary: found.id })
    }

    fn holding(&self, is_meant: impl Fn(TemporaryKind) -> bool) -> Option<&Temporary> {
        self.controller.temporaries.iter().filter(|t| t.holds_on(self.date) && is_meant(t.kind)).max_by_key(|t| t.until)
    }

    /// A window that was left on shuts programs out without a word, so unused ones are to be off.
    fn water_windows(&mut self) {
        for slot in 1..=self.capability().water_windows {
            match self.controller.windows.get(usize::from(slot - 1)) {
                Some(window) => {
                    self.push(Section::WaterWindows, slot, Value::WindowFrom(window.from));
                    self.push(Section::WaterWindows, slot, Value::WindowTo(window.to));
                }
                None => self.push(Section::WaterWindows, slot, Value::WindowOff),
            }
        }
    }

    fn delays(&mut self) {
        if self.capability().station_delay_max > RunTime::ZERO {
            self.push(Section::StationDelay, 0, Value::StationDelay(self.controller.station_delay));
        }
        if let Some(until) = self.holding(|k| k == TemporaryKind::RainDelay).map(|t| t.until) {
            self.push(Section::RainDelay, 0, Value::RainDelay(until));
        }
    }

    fn sensors(&mut self) {
        if self.controller.sensors.is_empty() {
            return;
        }
        let is_bypass = |kind| matches!(kind, TemporaryKind::Bypass { .. });
        match self.holding(is_bypass).map(|t| t.until) {
            Some(last) => {
                let note = Note::Until { last, then: Value::SensorActive };
                self.noted(Section::Sensor, Value::SensorBypassed, Some(note));
            }
            None => self.noted(Section::Sensor, Value::SensorActive, self.put_back(is_bypass)),
        }
        let exempt = |number: u8| self.controller.sensors.iter().any(|s| s.has_contact() && !s.governs(number));
        let by_station = self.capability().sensor_by_station && self.controller.sensors.iter().any(Sensor::has_contact);
        let stations: Vec<(u8, bool)> = self.plan.stations.iter().map(|s| (s.number, exempt(s.number))).collect();
        for (number, exempt) in stations.into_iter().filter(|(_, exempt)| by_station || *exempt) {
            self.push(Section::Obeys, number, if exempt { Value::Ignores } else { Value::Obeys });
        }
        for sensor in &self.controller.sensors {
            let values = settings(&sensor.kind).into_iter().flatten();
            let section = Section::SensorSetting(sensor.id);
            self.slots.extend(values.map(|value| Slot { section, index: 0, month: None, value, note: None }));
        }
    }

    fn switch(&mut self) {
        let set = self.holding(|k| k == TemporaryKind::Off).map(|t| t.until);
        match set.or_else(|| self.last_day_off().filter(|_| self.all_off_by_hand())) {
            Some(last) => {
                let note = Note::Until { last, then: Value::SwitchOn };
                self.noted(Section::Switch, Value::SwitchOff, Some(note));
            }
            None => self.noted(Section::Switch, Value::SwitchOn, self.put_back(|k| k == TemporaryKind::Off)),
        }
    }

    /// Whether a program has a station that runs.
    fn runs(&self, letter: ProgramLetter) -> bool {
        self.plan.of_program(letter).next().is_some()
    }

    /// The last day of an off month that the panel cannot hold; nothing where the program is on.
    fn off_by_hand(&self, letter: ProgramLetter) -> Option<NaiveDate> {
        let is_off = |date| self.plan.dial(letter, MonthOfYear::of(date)) == Dial::Off;
        if self.capability().months_off || self.force.dial(letter) != Dial::Off {
            return None;
        }
        let first = self.date.with_day0(0)?;
        let on = (1..=12).filter_map(|n| first.checked_add_months(Months::new(n))).find(|date| !is_off(*date));
        // Off all year: to be looked at again in a year.
        on.or_else(|| first.checked_add_months(Months::new(12))).and_then(|on| on.pred_opt())
    }

    /// Whether every program that waters is in an off month that the panel cannot hold.
    fn all_off_by_hand(&self) -> bool {
        let mut running = self.watering().peekable();
        running.peek().is_some() && running.all(|letter| self.off_by_hand(letter).is_some())
    }

    /// The day on which the first program goes on again, less one.
    fn last_day_off(&self) -> Option<NaiveDate> {
        self.watering().filter_map(|letter| self.off_by_hand(letter)).min()
    }

    fn watering(&self) -> impl Iterator<Item = ProgramLetter> {
        let waters =
            |l: &ProgramLetter| self.runs(*l) && self.controller.program(*l).is_some_and(|p| !p.schedule.is_idle());
        self.controller.programs.iter().map(|p| p.letter).filter(waters)
    }
}

/// What a sensor itself is set to.
fn settings(kind: &SensorKind) -> [Option<Value>; 3] {
    match kind {
        SensorKind::Rain { setting, .. } => [
            Some(Value::RainSetting(setting.threshold_mm)),
            Some(Value::Vent(setting.vent)),
            Some(Value::DaysAfterRain(setting.delay_days)),
        ],
        SensorKind::Freeze { threshold_c, .. } => [Some(Value::FreezeSetting(*threshold_c)), None, None],
        SensorKind::SoilMoisture { threshold_pct, .. } => [threshold_pct.map(Value::SoilThreshold), None, None],
        SensorKind::Et { setting, .. } => {
            let [climate, offset] = setting.marks();
            [climate.map(Value::EtClimate), offset.map(Value::EtOffset), None]
        }
    }
}
