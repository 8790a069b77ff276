//! Demand against what the dialled percent delivers, a column a month, with a handle on each.

use upland_core::budget::{Dial, Group, MonthBudget};
use upland_core::controller::Capability;
use upland_core::quantity::MonthOfYear;

use crate::show::{Fixed, Measure, Units, month_long, number, percent, signed};
use crate::words::Words;

/// The month that is being dragged, and what it would be.
#[derive(Debug, Clone, Copy)]
pub(crate) struct InHand<'a> {
    pub(crate) month: MonthOfYear,
    /// The month as it is saved.
    pub(crate) saved: &'a MonthBudget,
}

#[derive(Debug, Clone, Copy)]
pub(crate) struct YearPlateInput<'a> {
    pub(crate) group: &'a Group,
    pub(crate) capability: &'a Capability,
    pub(crate) current: MonthOfYear,
    pub(crate) in_hand: Option<InHand<'a>>,
    /// Whether the percents can be dragged: nobody dials what a sensor or a person sets.
    pub(crate) handles: bool,
    pub(crate) units: Units,
}

#[derive(Debug, Clone)]
pub(crate) struct AxisMark {
    pub(crate) y: Fixed,
    pub(crate) text_y: Fixed,
    pub(crate) label: String,
    pub(crate) line: bool,
}

#[derive(Debug, Clone)]
pub(crate) struct Bar {
    pub(crate) y: Fixed,
    pub(crate) height: Fixed,
}

#[derive(Debug, Clone)]
pub(crate) struct Column {
    pub(crate) month: u8,
    /// Left edge of the column, and of the bar in it.
    pub(crate) x: Fixed,
    pub(crate) bar_x: Fixed,
    pub(crate) bar_end: Fixed,
    pub(crate) demand_from: Fixed,
    pub(crate) demand_to: Fixed,
    pub(crate) delivered: Option<Bar>,
    pub(crate) lost: Option<Bar>,
    pub(crate) gained: Option<Bar>,
    pub(crate) demand_y: Option<Fixed>,
    pub(crate) serif_top: Fixed,
    pub(crate) serif_end: Fixed,
    pub(crate) top_y: Option<Fixed>,
    /// Dashes where the saved percent was, while another is in hand.
    pub(crate) was_y: Option<Fixed>,
    pub(crate) handle_x: Fixed,
    pub(crate) handle_y: Fixed,
    pub(crate) line_x: Fixed,
    pub(crate) line_end: Fixed,
    pub(crate) line_a: Fixed,
    pub(crate) line_b: Fixed,
    pub(crate) in_hand: bool,
    pub(crate) value: u16,
    pub(crate) value_text: String,
    pub(crate) label: String,
}

#[derive(Debug, Clone)]
pub(crate) struct Bubble {
    pub(crate) x: Fixed,
    pub(crate) y: Fixed,
    pub(crate) width: Fixed,
    pub(crate) text_x: Fixed,
    pub(crate) pointer: String,
    pub(crate) lines: [(Fixed, String); 3],
}

#[derive(Debug, Clone)]
pub(crate) struct YearPlate {
    pub(crate) marks: Vec<AxisMark>,
    pub(crate) columns: Vec<Column>,
    pub(crate) now_x: Fixed,
    pub(crate) now_end: Fixed,
    pub(crate) title: String,
    pub(crate) subtitle: String,
    pub(crate) max: u16,
    pub(crate) handles: bool,
    /// Pixels a percent and the height of 0: what a drag is measured with.
    pub(crate) zero_y: Fixed,
    pub(crate) percent_height: String,
    pub(crate) describe: String,
    pub(crate) bubble: Option<Bubble>,
}

const LEFT: f64 = 152.0;
const COLUMN: f64 = 61.0;
const ZERO: f64 = 215.0;
const TOP: f64 = 42.0;

impl YearPlate {
    pub(crate) fn draw(input: &YearPlateInput<'_>) -> Self {
        let w = Words;
        let group = input.group;
        let top = axis_top(group);
        let pixels = (ZERO - TOP) / f64::from(top);
        let y = |percent: f64| ZERO - percent.clamp(0.0, f64::from(top) * 1.12) * pixels;
        let step: u16 = if top > 250 {
            100
        } else if top > 120 {
            50
        } else {
            20
        };
        let marks = (0..=top)
            .step_by(usize::from(step))
            .map(|p| AxisMark {
                y: Fixed(y(f64::from(p))),
                text_y: Fixed(y(f64::from(p)) + 4.4),
                label: if p == 100 { percent(p) } else { p.to_string() },
                line: p == 100 || p == 50 || p == 200,
            })
            .collect();
        let columns: Vec<Column> = group.months.iter().map(|m| column(m, input, &y)).collect();
        let now = LEFT + input.current.index() as f64 * COLUMN;
        let base = month_long(group.base_month);
        let base_mm = group.month(group.base_month).demand_mm / group.base_month.mean_days();
        Self {
            marks,
            now_x: Fixed(now),
            now_end: Fixed(now + COLUMN),
            title: w.t1("year-percent-of", base),
            subtitle: w.t1("year-hundred-is", Measure::DepthADay.show(base_mm, input.units)),
            max: input.capability.percent_max.get(),
            handles: input.handles,
            zero_y: Fixed(ZERO),
            percent_height: format!("{pixels:.5}"),
            describe: w.t1("year-plate-describe", input.capability.percent_step.get().to_string()),
            bubble: input.in_hand.and_then(|h| bubble(&h, group.month(h.month), &columns, input.units)),
            columns,
        }
    }
}

/// The top of the axis: 100, or as high as a month's percent goes.
fn axis_top(group: &Group) -> u16 {
    let most = group.months.iter().map(|m| m.percent_exact.max(f64::from(m.dial.percent()))).fold(100.0, f64::max);
    let step = if most > 250.0 {
        100.0
    } else if most > 120.0 {
        50.0
    } else {
        20.0
    };
    // At most 400 by the percent's own range, unless demand asks for more than any controller has.
    ((most / step).ceil() * step).min(800.0) as u16
}

fn column(month: &MonthBudget, input: &YearPlateInput<'_>, y: &impl Fn(f64) -> f64) -> Column {
    let w = Words;
    let left = LEFT + month.month.index() as f64 * COLUMN;
    // Demand in percent of the base month, and what is delivered on the same scale.
    let share = if month.demand_mm > 0.0 { month.percent_exact / month.demand_mm } else { 0.0 };
    let (asked, given) = (month.percent_exact, month.delivered_mm * share);
    let given = if share == 0.0 { f64::from(month.dial.percent()) } else { given };
    let between =
        |from: f64, to: f64| (to - from > 0.05).then(|| Bar { y: Fixed(y(to)), height: Fixed(y(from) - y(to)) });
    let in_hand = input.in_hand.filter(|h| h.month == month.month);
    let handle = y(f64::from(month.dial.percent())).min(ZERO - 11.0);
    let value = month.dial.percent();
    let value_text = match month.dial {
        Dial::Off => w.t1("year-value-off", number(month.percent_exact, 1)),
        Dial::Percent(p) => {
            w.t2("year-value", ("percent", percent(p.get())), ("called", number(month.percent_exact, 1)))
        }
    };
    let demand_y = (month.demand_mm > 0.0).then(|| y(asked));
    Column {
        month: month.month.number(),
        x: Fixed(left),
        bar_x: Fixed(left + 10.0),
        bar_end: Fixed(left + 51.0),
        demand_from: Fixed(left + 5.0),
        demand_to: Fixed(left + 56.0),
        delivered: between(0.0, given.min(asked).max(if share == 0.0 { given } else { 0.0 })),
        lost: between(given, asked),
        gained: if share == 0.0 { None } else { between(asked, given) },
        demand_y: demand_y.map(Fixed),
        serif_top: Fixed(demand_y.unwrap_or(ZERO) - 4.0),
        serif_end: Fixed(demand_y.unwrap_or(ZERO) + 4.0),
        top_y: (given > 0.0).then(|| Fixed(y(given))),
        was_y: in_hand.map(|h| Fixed(y(f64::from(h.saved.dial.percent())))),
        handle_x: Fixed(left + 20.5),
        handle_y: Fixed(handle + if value == 0 { 0.0 } else { 5.0 }),
        line_x: Fixed(left + 25.0),
        line_end: Fixed(left + 36.0),
        line_a: Fixed(handle + if value == 0 { 3.3 } else { 8.3 }),
        line_b: Fixed(handle + if value == 0 { 6.9 } else { 11.9 }),
        in_hand: in_hand.is_some(),
        value,
        value_text,
        label: month_long(month.month),
    }
}

/// What the month in hand would give, beside it.
fn bubble(hand: &InHand<'_>, month: &MonthBudget, columns: &[Column], units: Units) -> Option<Bubble> {
    let w = Words;
    let column = columns.get(hand.month.index())?;
    let side = |m: &MonthBudget| {
        let mm = m.difference_mm();
        let amount = Measure::Depth.show(mm.abs(), units);
        if mm >= 0.0 { w.t1("year-gains", amount) } else { w.t1("year-loses", amount) }
    };
    let dial = |d: Dial| match d {
        Dial::Off => w.t("off"),
        Dial::Percent(p) => percent(p.get()),
    };
    let width = 194.0;
    let right_side = column.x.0 < 420.0;
    let x = if right_side { column.x.0 + COLUMN + 8.0 } else { column.x.0 - width - 8.0 };
    let y = column.handle_y.0.clamp(36.0, ZERO - 46.0) - 30.0;
    let tip = column.handle_y.0.clamp(y + 12.0, y + 50.0);
    let pointer = if right_side {
        format!("M{} {}l-8 6 8 6z", Fixed(x), Fixed(tip - 6.0))
    } else {
        format!("M{} {}l8 6-8 6z", Fixed(x + width), Fixed(tip - 6.0))
    };
    Some(Bubble {
        x: Fixed(x),
        y: Fixed(y),
        width: Fixed(width),
        text_x: Fixed(x + 10.0),
        pointer,
        lines: [
            (Fixed(y + 19.0), w.t2("year-in-hand", ("month", month_long(hand.month)), ("percent", dial(month.dial)))),
            (Fixed(y + 36.0), side(month)),
            (
                Fixed(y + 53.0),
                w.t2(
                    "year-was",
                    ("percent", dial(hand.saved.dial)),
                    ("change", signed(Measure::Depth.in_units(hand.saved.difference_mm(), units), 1)),
                ),
            ),
        ],
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::budget::year_budget;
    use upland_core::climate::normals::MonthNormal;
    use upland_core::controller::{Controller, Preset, Station};
    use upland_core::landscape::{Plant, SprinklerType};

    fn plate(preset: Preset, et0: [f64; 12]) -> YearPlate {
        let mut c = Controller::new("Cabinet".into(), preset.capability());
        c.stations = vec![Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Rotor)];
        let budget = year_budget(&c, &et0.map(|et0_mm_per_day| MonthNormal { et0_mm_per_day, rain_mm: None })).unwrap();
        let current = MonthOfYear::ALL[5];
        YearPlate::draw(&YearPlateInput {
            handles: true,
            group: &budget.groups[0],
            capability: &c.capability,
            current,
            in_hand: None,
            units: Units::Metric,
        })
    }

    const YEAR: [f64; 12] = [0.0, 0.5, 1.8, 2.6, 3.6, 4.5, 5.0, 4.4, 3.1, 1.9, 1.1, 0.9];

    #[test]
    fn a_height_on_the_plate_and_its_percent_are_each_others_inverse() {
        let p = plate(Preset::Plain, YEAR);
        let pixels: f64 = p.percent_height.parse().unwrap();
        for mark in p.marks {
            let percent: f64 = mark.label.trim_end_matches("\u{a0}%").parse().unwrap();
            assert!((p.zero_y.0 - percent * pixels - mark.y.0).abs() < 0.01, "{}", mark.label);
        }
    }

    #[test]
    fn demand_stands_above_delivery_where_water_is_lost() {
        let p = plate(Preset::Plain, YEAR);
        for column in &p.columns {
            if let (Some(lost), Some(demand)) = (&column.lost, column.demand_y) {
                assert!((lost.y.0 - demand.0).abs() < 0.01 && column.gained.is_none());
            }
        }
        assert!(p.columns.iter().any(|c| c.lost.is_some()) && p.columns.iter().any(|c| c.gained.is_some()));
        // A month that asks for nothing has no demand to draw.
        assert!(p.columns[0].demand_y.is_none() && p.columns[0].value == 0);
    }

    #[test]
    fn sliders_say_their_value_in_words() {
        let p = plate(Preset::Plain, YEAR);
        assert_eq!(p.columns[6].value_text, "100\u{a0}%, recommended 100.0");
        assert_eq!(p.columns[0].value_text, "off, recommended 0.0");
    }
}
