//! The percents of a morning: what each panel stands at and what it should.

use chrono::{NaiveDate, NaiveTime};
use upland_core::budget::{Dial, Group};
use upland_core::controller::{PercentStorage, ProgramLetter, Temporary};
use upland_core::in_force::{InForce, OffBy, ProgramInForce, SetBy};
use upland_core::quantity::MonthOfYear;
use upland_core::replay::SoilNow;

use crate::charts::Tiny;
use crate::context::ControllerContext;
use crate::pages::dial::DialIn;
use crate::pages::field::FieldState;
use crate::pages::soil_view::SoilLine;
use crate::pages::year::program_label;
use crate::show::{Units, date_short, dial, dial_figure, month_long, month_of, number};
use crate::words::Words;

/// What becomes of a percent today.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Stay {
    /// The panel stands at another.
    Set,
    /// It stands right, or nobody dials it.
    Leave,
    /// The controller is off, or it is not on record how it stands.
    Unknown,
}

impl Stay {
    const ALL: [Self; 3] = [Self::Set, Self::Leave, Self::Unknown];

    fn of(is_on: bool, dial: Dial, stands: Option<Dial>, undialled: bool) -> Self {
        match stands {
            _ if !is_on => Self::Unknown,
            _ if undialled => Self::Leave,
            Some(stands) if stands != dial => Self::Set,
            Some(_) if dial != Dial::Off => Self::Leave,
            _ => Self::Unknown,
        }
    }

    const fn title(self) -> &'static str {
        match self {
            Self::Set => "today-set",
            Self::Leave => "today-leave",
            Self::Unknown => "today-unknown",
        }
    }
}

/// Percents of which the same becomes.
#[derive(Debug, Clone)]
pub(crate) struct DialGroup {
    pub(crate) title: String,
    pub(crate) rows: Vec<DialRow>,
}

/// A controller, or one of its programs, and what it should stand at.
#[derive(Debug, Clone)]
pub(crate) struct DialRow {
    pub(crate) href: String,
    pub(crate) controller: String,
    pub(crate) place: String,
    pub(crate) tiny: Tiny,
    /// Where the soil of its thirstiest station stands.
    pub(crate) soil: Option<SoilLine>,
    pub(crate) called: String,
    /// What the panel stands at by what is on record.
    pub(crate) stands: String,
    /// The mark of the way to turn it; empty where it stays.
    pub(crate) turn: &'static str,
    pub(crate) dial: String,
    pub(crate) is_off: bool,
    pub(crate) next: String,
}

/// What is on record of a controller, for its rows.
pub(crate) struct OnRecord<'a> {
    pub(crate) today: NaiveDate,
    pub(crate) state: FieldState,
    pub(crate) soil: &'a [SoilNow],
}

/// A row for each group of each controller that has a budget: those to set first, then those that stay, then those
/// that are off or of which nobody knows how they stand.
pub(crate) fn dial_rows<'a>(
    contexts: &[ControllerContext],
    on_record: impl Fn(&ControllerContext) -> OnRecord<'a>,
    units: Units,
) -> (Vec<DialGroup>, f64) {
    let most = contexts
        .iter()
        .filter_map(|d| d.normals().ok())
        .flat_map(|n| n.iter().map(|m| m.et0_mm_per_day))
        .fold(1.0, f64::max);
    let mut groups = Stay::ALL.map(|stay| DialGroup { title: Words.t(stay.title()), rows: Vec::new() });
    for context in contexts {
        let (Ok(budget), Ok(normals)) = (context.budget(), context.normals()) else { continue };
        let known = on_record(context);
        let date = known.today;
        let month = month_of(date);
        let in_force = context.in_force(known.state.found_off(), date);
        let dial_in = DialIn::of(context, date.and_time(NaiveTime::MIN), units);
        for group in &budget.groups {
            let letter = group.letters.first().copied().unwrap_or(ProgramLetter::A);
            let name = &context.controller().name;
            let label = if budget.groups.len() > 1 {
                Words.t2(
                    "today-program-of",
                    ("controller", name),
                    ("program", program_label(context.controller().program(letter), letter)),
                )
            } else {
                name.clone()
            };
            let now = group.month(month);
            let (dial, next) = dialled(context, &in_force, group, month);
            let set_by = in_force.program(letter).map(|p| &p.by);
            let by_sensor = set_by == Some(&SetBy::EtSensor);
            let by_hand = set_by == Some(&SetBy::ByHand);
            let before = stands(&known.state, in_force.program(letter))
                .or_else(|| dial_in.percent_on_panel(&known.state, letter, month));
            let stay = Stay::of(in_force.is_on(), dial, before, by_sensor || by_hand);
            groups[stay as usize].rows.push(DialRow {
                href: format!(
                    "/controllers/{}/year?program={}&month={}",
                    context.controller.id,
                    letter.get(),
                    month.number()
                ),
                controller: label,
                place: context.at.place.value.place.name.clone(),
                tiny: Tiny::draw(normals, group, date, most),
                soil: thirstiest(context, group, known.soil).map(|soil| SoilLine::of(soil, units)),
                called: number(now.percent_exact, 1),
                stands: match before {
                    _ if by_sensor => Words.t("today-stands-sensor"),
                    _ if by_hand => Words.t("by-hand"),
                    Some(before) => dial_figure(before),
                    None => "·".to_owned(),
                },
                turn: match (stay, before) {
                    (Stay::Set, Some(before)) if dial.percent() > before.percent() => "up",
                    (Stay::Set, _) => "down",
                    _ => "",
                },
                is_off: dial == Dial::Off || !in_force.is_on(),
                dial: match () {
                    () if !in_force.is_on() => Words.t("off"),
                    () if by_hand => String::new(),
                    () => dial_figure(dial),
                },
                next,
            });
        }
    }
    (groups.into_iter().filter(|g| !g.rows.is_empty()).collect(), most)
}

/// What was set for a while since the panel was last written down or dialled in stands on it.
fn stands(state: &FieldState, program: Option<&ProgramInForce>) -> Option<Dial> {
    let ProgramInForce { dial, by: SetBy::ForAWhile(set), .. } = program? else { return None };
    state.on_record_since().is_none_or(|on| on < set.since).then_some(*dial)
}

/// The station of a group that is nearest to stress, or furthest into it, for its store.
fn thirstiest<'a>(context: &ControllerContext, group: &Group, soil: &'a [SoilNow]) -> Option<&'a SoilNow> {
    let c = context.controller();
    let own =
        soil.iter().filter(|s| c.station(s.station).is_some_and(|station| group.letters.contains(&station.program)));
    own.min_by(|a, b| {
        let share = |s: &SoilNow| s.before_stress_mm() / s.zone.raw_mm();
        share(a).total_cmp(&share(b))
    })
}

/// How many percents are to be set.
pub(crate) fn to_set(groups: &[DialGroup]) -> String {
    let title = Words.t(Stay::Set.title());
    Words.count("today-dial-count", groups.iter().find(|g| g.title == title).map_or(0, |g| g.rows.len()))
}

/// What a group should stand at on a date, and until when: the month's value, one set for a while, or the sensor's.
/// What was set for a while and is over is to be put back.
fn dialled(context: &ControllerContext, in_force: &InForce, group: &Group, month: MonthOfYear) -> (Dial, String) {
    let w = Words;
    let letter = group.letters.first().copied().unwrap_or(ProgramLetter::A);
    let program = in_force.program(letter);
    let of_month = group.month(month).dial;
    let dial = match program {
        Some(ProgramInForce { by: SetBy::ForAWhile(over), .. }) if over.left_standing => of_month,
        Some(program) => program.dial,
        None => of_month,
    };
    let until = |t: &Temporary| {
        if t.left_standing {
            w.t1("today-ended", date_short(t.until))
        } else {
            w.t1("today-until", date_short(t.until))
        }
    };
    let next = match (in_force.off.first(), program.map(|p| &p.by)) {
        (Some(OffBy::Set(t) | OffBy::RainDelay(t)), _) => until(t),
        (Some(OffBy::Found { on }), _) => w.t1("today-found-off", date_short(*on)),
        (None, Some(SetBy::ForAWhile(t))) if t.left_standing => w.t1("today-over", date_short(t.until)),
        (None, Some(SetBy::ForAWhile(t))) => {
            w.t2("today-for-a-while", ("until", until(t)), ("value", dial_figure(of_month)))
        }
        (None, Some(SetBy::EtSensor)) => w.t("today-by-sensor"),
        (None, Some(SetBy::ByHand)) => w.t("today-by-hand"),
        _ => next_change(context, group, month),
    };
    (dial, next)
}

/// When the percent changes next, and to what.
fn next_change(context: &ControllerContext, group: &Group, month: MonthOfYear) -> String {
    let w = Words;
    let now = group.month(month).dial;
    let next = (1..12).map(|step| MonthOfYear::ALL[(month.index() + step) % 12]).find(|m| group.month(*m).dial != now);
    let Some(next) = next else { return w.t("today-same-all-year") };
    let date = w.t2("date-short", ("day", "1"), ("month", month_long(next)));
    let dial = dial(group.month(next).dial);
    match context.controller().capability.percent_storage {
        PercentStorage::ByMonth => w.t2("today-next-by-itself", ("date", date), ("dial", dial)),
        PercentStorage::Single => w.t2("today-next-by-hand", ("date", date), ("dial", dial)),
    }
}
