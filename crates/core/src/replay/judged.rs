use super::results::Daily;

/// How a sensor would have judged the waterings of a station over a season.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Judged {
    /// Days on which the schedule waters.
    pub due: u32,
    /// Of these, days on which the sensor held.
    pub held: u32,
    /// Held days after which the plants went short before the next watering day.
    pub held_wrongly: u32,
    /// Days that it let through although as much drained as was given.
    pub missed: u32,
}

impl Judged {
    /// Held days after which the plants had enough.
    #[must_use]
    pub const fn held_rightly(&self) -> u32 {
        self.held - self.held_wrongly
    }

    /// Judges by two replays of a station over the same days: with the sensor, and without it.
    ///
    /// `raw_mm`: depletion from which the plants go short, mm. A day on which another sensor held in both is due in
    /// neither.
    #[must_use]
    pub fn of(with: &Daily, without: &Daily, raw_mm: f64) -> Self {
        let due: Vec<usize> = (0..without.applied_mm.len()).filter(|day| without.applied_mm[*day] > 0.0).collect();
        let mut out = Self::default();
        for (place, day) in due.iter().enumerate() {
            out.due += 1;
            if with.applied_mm[*day] > 0.0 {
                let given = with.applied_mm[*day] - with.runoff_mm[*day];
                out.missed += u32::from(given > 0.0 && with.percolation_mm[*day] >= given);
                continue;
            }
            let next = due.get(place + 1).copied().unwrap_or(with.depletion_mm.len());
            out.held += 1;
            out.held_wrongly += u32::from(with.depletion_mm[*day..next].iter().any(|mm| *mm > raw_mm));
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn daily(applied: [f64; 6], drained: [f64; 6], depletion: [f64; 6]) -> Daily {
        Daily {
            applied_mm: applied.to_vec(),
            percolation_mm: drained.to_vec(),
            depletion_mm: depletion.to_vec(),
            runoff_mm: vec![0.0; 6],
            ..Daily::default()
        }
    }

    /// Due on days 0, 2 and 4. Held on the first, short before the third day; let through on the third, of no use;
    /// held on the fifth, and enough was there.
    #[test]
    fn three_waterings_by_hand() {
        let none = [0.0; 6];
        let without = daily([5.0, 0.0, 5.0, 0.0, 5.0, 0.0], none, none);
        let with =
            daily([0.0, 0.0, 5.0, 0.0, 0.0, 0.0], [0.0, 0.0, 5.0, 0.0, 0.0, 0.0], [9.0, 12.0, 0.0, 2.0, 4.0, 6.0]);
        let found = Judged::of(&with, &without, 10.0);
        assert_eq!(found, Judged { due: 3, held: 2, held_wrongly: 1, missed: 1 });
        assert_eq!(found.held_rightly(), 1);
        assert_eq!(Judged::of(&without, &without, 10.0), Judged { due: 3, ..Judged::default() });
    }
}
