//! The field table of what is set for a while. Which fields there are depends on its kind; its id is given, not
//! entered.

use chrono::NaiveDate;

use super::days::StartTime;
use super::letter::ProgramLetter;
use super::temporary::{Temporary, TemporaryKind};
use crate::field::{Field, Fields, Value};
use crate::quantity::{Percent, limit, range};

/// A line of the table.
type F = Field<Temporary>;

impl TemporaryKind {
    /// The words of the kinds, in the order in which they are offered.
    pub const WORDS: [&'static str; 6] = ["percent", "weaning", "grow_in", "rain_delay", "bypass", "off"];

    /// The word of the kind in files and forms.
    #[must_use]
    pub const fn word(&self) -> &'static str {
        match self {
            Self::Percent { .. } => "percent",
            Self::Weaning { .. } => "weaning",
            Self::GrowIn { .. } => "grow_in",
            Self::RainDelay => "rain_delay",
            Self::Bypass { .. } => "bypass",
            Self::Off => "off",
        }
    }

    /// A kind by its word, its figures still to be stated.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Some(match word {
            "percent" => Self::Percent { letter: None, percent: Percent::FULL },
            "weaning" => Self::Weaning { letter: None, extra_pct: 1, step_pct: 1 },
            "grow_in" => {
                let (from, to) = (StartTime::MIDNIGHT, StartTime::MIDNIGHT);
                Self::GrowIn { letter: ProgramLetter::A, percent: Percent::FULL, starts: 1, from, to }
            }
            "rain_delay" => Self::RainDelay,
            "bypass" => Self::Bypass { sensor: 0 },
            "off" => Self::Off,
            _ => return None,
        })
    }
}

impl Fields for Temporary {
    const NOUN: &'static str = "temporary";

    const FIELDS: &'static [Field<Self>] = &[
        F::choice_of(
            "kind",
            || TemporaryKind::WORDS.to_vec(),
            |t| t.kind.word().to_owned().into(),
            |t, v| TemporaryKind::of_word(v.text()?).map(|kind| t.kind = kind),
        ),
        F::choice::<ProgramLetter>("program", program, set_program).optional().when(|t| {
            matches!(
                t.kind,
                TemporaryKind::Percent { .. } | TemporaryKind::Weaning { .. } | TemporaryKind::GrowIn { .. }
            )
        }),
        F::whole(
            "percent",
            range::PERCENT,
            |t| match t.kind {
                TemporaryKind::Percent { percent, .. } | TemporaryKind::GrowIn { percent, .. } => percent.get().into(),
                _ => Value::Absent,
            },
            |t, v| match &mut t.kind {
                TemporaryKind::Percent { percent, .. } | TemporaryKind::GrowIn { percent, .. } => {
                    Percent::new(v.whole()?).ok().map(|set| *percent = set)
                }
                _ => None,
            },
        )
        .when(|t| matches!(t.kind, TemporaryKind::Percent { .. } | TemporaryKind::GrowIn { .. })),
        F::whole(
            "extra_pct",
            range::WEANING,
            |t| weaning(t).map(|[extra, _]| extra).into(),
            |t, v| match &mut t.kind {
                TemporaryKind::Weaning { extra_pct, .. } => v.whole().map(|pct| *extra_pct = pct),
                _ => None,
            },
        )
        .when(|t| weaning(t).is_some()),
        F::whole(
            "step_pct",
            range::WEANING,
            |t| weaning(t).map(|[_, step]| step).into(),
            |t, v| match &mut t.kind {
                TemporaryKind::Weaning { step_pct, .. } => v.whole().map(|pct| *step_pct = pct),
                _ => None,
            },
        )
        .when(|t| weaning(t).is_some()),
        F::whole(
            "starts",
            range::STARTS,
            |t| match t.kind {
                TemporaryKind::GrowIn { starts, .. } => starts.into(),
                _ => Value::Absent,
            },
            |t, v| match &mut t.kind {
                TemporaryKind::GrowIn { starts, .. } => v.whole().map(|count| *starts = count),
                _ => None,
            },
        )
        .when(grows_in),
        F::time(
            "from",
            |t| match t.kind {
                TemporaryKind::GrowIn { from, .. } => from.into(),
                _ => Value::Absent,
            },
            |t, v| match &mut t.kind {
                TemporaryKind::GrowIn { from, .. } => v.time().map(|time| *from = time),
                _ => None,
            },
        )
        .when(grows_in),
        F::time(
            "to",
            |t| match t.kind {
                TemporaryKind::GrowIn { to, .. } => to.into(),
                _ => Value::Absent,
            },
            |t, v| match &mut t.kind {
                TemporaryKind::GrowIn { to, .. } => v.time().map(|time| *to = time),
                _ => None,
            },
        )
        .when(grows_in),
        F::whole(
            "sensor",
            range::SENSOR_ID,
            |t| match t.kind {
                TemporaryKind::Bypass { sensor } => sensor.into(),
                _ => Value::Absent,
            },
            |t, v| match &mut t.kind {
                TemporaryKind::Bypass { sensor } => v.whole().map(|id| *sensor = id),
                _ => None,
            },
        )
        .when(|t| matches!(t.kind, TemporaryKind::Bypass { .. })),
        F::date("since", |t| t.since.into(), |t, v| v.date().map(|day| t.since = day)),
        F::date("until", |t| t.until.into(), |t, v| v.date().map(|day| t.until = day)),
        F::text(
            "reason",
            1,
            limit::REASON,
            |t| t.reason.clone().into(),
            |t, v| v.text().map(|why| t.reason = why.to_owned()),
        ),
        F::text("by", 0, 2 * limit::NAME, |t| t.by.clone().into(), |t, v| v.text().map(|who| t.by = who.to_owned()))
            .defaulted(),
    ];

    fn blank() -> Self {
        Self {
            id: 0,
            kind: TemporaryKind::Off,
            since: NaiveDate::default(),
            until: NaiveDate::default(),
            reason: String::new(),
            by: String::new(),
            left_standing: false,
        }
    }
}

fn program(t: &Temporary) -> Value {
    match t.kind {
        TemporaryKind::Percent { letter, .. } | TemporaryKind::Weaning { letter, .. } => {
            letter.map_or(Value::Absent, Value::word)
        }
        TemporaryKind::GrowIn { letter, .. } => Value::word(letter),
        _ => Value::Absent,
    }
}

/// None means all programs; a planting grows in on one.
fn set_program(t: &mut Temporary, v: &Value) -> Option<()> {
    match &mut t.kind {
        TemporaryKind::Percent { letter, .. } | TemporaryKind::Weaning { letter, .. } => {
            v.maybe(Value::of_word).map(|program| *letter = program)
        }
        TemporaryKind::GrowIn { letter, .. } => v.of_word().map(|program| *letter = program),
        _ => None,
    }
}

/// What is added in the first week, and what that loses with every week, %.
const fn weaning(t: &Temporary) -> Option<[u16; 2]> {
    match t.kind {
        TemporaryKind::Weaning { extra_pct, step_pct, .. } => Some([extra_pct, step_pct]),
        _ => None,
    }
}

const fn grows_in(t: &Temporary) -> bool {
    matches!(t.kind, TemporaryKind::GrowIn { .. })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::field::FieldError;

    #[test]
    fn every_kind_is_named_and_keeps_what_its_fields_are_given() {
        for word in TemporaryKind::WORDS {
            let mut t = Temporary { kind: TemporaryKind::of_word(word).unwrap(), ..Temporary::blank() };
            assert_eq!(t.kind.word(), word);
            for field in Temporary::FIELDS.iter().filter(|f| f.name != "kind") {
                if !(field.applies)(&t) {
                    continue;
                }
                let value = match field.name {
                    "program" => "C".to_owned().into(),
                    "since" | "until" => NaiveDate::from_ymd_opt(2026, 6, 11).unwrap().into(),
                    "from" | "to" => StartTime::read("06:30").unwrap().into(),
                    "reason" | "by" => "heat".to_owned().into(),
                    _ => Value::from(7_u16),
                };
                field.put(&mut t, value.clone()).unwrap();
                assert_eq!((field.get)(&t), value, "{word}: {}", field.name);
            }
        }
    }

    #[test]
    fn a_planting_grows_in_on_one_program_and_a_percent_holds_for_all() {
        let program = Temporary::field("program").unwrap();
        let mut t = Temporary { kind: TemporaryKind::of_word("grow_in").unwrap(), ..Temporary::blank() };
        assert_eq!(program.put(&mut t, Value::Absent), Err(FieldError::Missing));
        t.kind = TemporaryKind::of_word("percent").unwrap();
        assert_eq!(program.put(&mut t, Value::Absent), Ok(()));
    }
}
