pub(crate) mod month;
pub(crate) mod preview;
pub(crate) mod program;
pub(crate) mod show;

use chrono::NaiveDate;
use upland_core::controller::{Capability, Controller, MonthDial, ProgramLetter};
use upland_core::quantity::{MonthOfYear, Percent};

use crate::context::ControllerContext;
use crate::form::{Form, parse_number};
use crate::pages::working::Figure;
use crate::show::month_of;
use crate::state::App;
use crate::words::Words;

/// What a Year's address or form asks for.
struct Asked {
    letter: Option<ProgramLetter>,
    month: MonthOfYear,
    current: MonthOfYear,
    today: NaiveDate,
    figure: Figure,
}

fn asked(app: &App, context: &ControllerContext, form: &Form) -> Asked {
    let today = app.clock.today(context.at.zone);
    let current = month_of(today);
    Asked {
        letter: form.get("program").chars().next().and_then(ProgramLetter::new),
        month: form.get("month").parse().ok().and_then(MonthOfYear::new).unwrap_or(current),
        current,
        today,
        figure: match form.get("figure") {
            "demand" => Figure::Demand,
            "delivered" => Figure::Delivered,
            "difference" => Figure::Difference,
            "waterings" => Figure::Waterings,
            "minutes" => form.get("station").parse().map_or(Figure::Percent, Figure::Minutes),
            _ => Figure::Percent,
        },
    }
}

/// Puts a month's decision into a controller. A percent that cannot be dialled is an error beside
/// its field; from a drag (`nearest`) it goes to the nearest that can be.
fn decide(form: &mut Form, controller: &mut Controller, asked: &Asked, nearest: bool) {
    let capability = controller.capability;
    let first = asked.letter.or_else(|| controller.programs.first().map(|p| p.letter));
    let Some(program) = controller.programs.iter_mut().find(|p| Some(p.letter) == first) else { return };
    let plan = &mut program.months[asked.month.index()];
    match form.get("do") {
        "computed" => {
            plan.dial = MonthDial::Computed;
            plan.waterings = None;
            return;
        }
        "waterings" => plan.dial = MonthDial::Computed,
        "off" => plan.dial = MonthDial::Off,
        _ => match dial(form.get("percent"), &capability, nearest) {
            Some(dial) => plan.dial = dial,
            None => {
                let (from, to, step) =
                    (capability.percent_min.get(), capability.percent_max.get(), capability.percent_step.get());
                let message = Words.with(
                    "percent-allowed",
                    &[("from", &from.to_string()), ("to", &to.to_string()), ("step", &step.to_string())],
                );
                form.fail("percent", message);
            }
        },
    }
    if form.has("waterings") {
        plan.waterings = form.get("waterings").parse().ok().filter(|w| (1..=capability.watering_days).contains(w));
    }
}

/// What a typed or dragged percent dials; 0 is off.
fn dial(typed: &str, capability: &Capability, nearest: bool) -> Option<MonthDial> {
    let value = parse_number(typed.trim_end_matches('%'))?;
    if nearest {
        let off = value < f64::from(capability.percent_min.get()) / 2.0;
        return Some(if off { MonthDial::Off } else { MonthDial::Set(capability.dial(value)) });
    }
    if value == 0.0 {
        return Some(MonthDial::Off);
    }
    let whole = (value.fract() == 0.0 && (0.0..=400.0).contains(&value)).then_some(value as u16)?;
    let percent = Percent::new(whole).ok()?;
    capability.can_dial(percent).then_some(MonthDial::Set(percent))
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::controller::Preset;

    #[test]
    fn typed_percents_must_be_dialable_and_dragged_ones_go_to_the_nearest() {
        let tens = Preset::Plain.capability();
        let set = |p| Some(MonthDial::Set(Percent::new(p).unwrap()));
        assert_eq!(dial("90", &tens, false), set(90));
        assert_eq!(dial("90 %", &tens, false), set(90));
        assert_eq!(dial("0", &tens, false), Some(MonthDial::Off));
        for wrong in ["300", "95", "", "many", "-10", "NaN"] {
            assert_eq!(dial(wrong, &tens, false), None, "{wrong}");
        }
        assert_eq!(dial("96.2", &tens, true), set(100));
        assert_eq!(dial("3", &tens, true), Some(MonthDial::Off));
        assert_eq!(dial("999", &tens, true), set(200));
    }
}
