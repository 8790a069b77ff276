//! Twelve normals to be typed: reference ET and rain, or highs, lows and rain.

use upland_core::climate::normals::{MonthNormal, MonthSummary, Normals, normals_of_summary};
use upland_core::quantity::{MonthOfYear, range};

use super::shell::Shell;
use super::spine::Spine;
use crate::form::Form;
use crate::intake::TypedNormals;
use crate::show::{Measure, Units, month_long};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "normals_form.html")]
pub(crate) struct NormalsFormTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) by_temperatures: bool,
    pub(crate) post_to: String,
    pub(crate) back: String,
    pub(crate) months: Vec<NormalFields>,
    pub(crate) et0_unit: String,
    pub(crate) rain_unit: &'static str,
    pub(crate) temperature_unit: &'static str,
    pub(crate) spine: Option<Spine>,
}

/// The fields of a month.
#[derive(Debug, Clone)]
pub(crate) struct NormalFields {
    pub(crate) month: String,
    pub(crate) et0: String,
    pub(crate) high: String,
    pub(crate) low: String,
    pub(crate) rain: String,
    /// Reference ET by the temperatures that are typed; empty until all are.
    pub(crate) worked: String,
}

/// Whether the form is for highs and lows.
pub(crate) fn by_temperatures(form: &Form) -> bool {
    form.is("by", "temperatures")
}

fn fields(month: MonthOfYear) -> NormalFields {
    let of = |what: &str| format!("{what}_{}", month.number());
    NormalFields {
        month: month_long(month),
        et0: of("et0"),
        high: of("high"),
        low: of("low"),
        rain: of("rain"),
        worked: String::new(),
    }
}

/// The fields of the twelve months, with what the temperatures that are typed so far give.
pub(crate) fn normal_fields(form: &Form, latitude_deg: f64, units: Units) -> Vec<NormalFields> {
    let worked = if by_temperatures(form) { read_normals(&mut form.clone(), latitude_deg, units) } else { None };
    let figure = |month: MonthOfYear| {
        let mm = |typed: &TypedNormals| typed.normals[month.index()].et0_mm_per_day;
        worked.as_ref().map_or_else(String::new, |typed| Measure::DepthADay.figure(mm(typed), units))
    };
    MonthOfYear::ALL.map(|month| NormalFields { worked: figure(month), ..fields(month) }).to_vec()
}

/// The form of saved normals.
pub(crate) fn filled_normals(form: &mut Form, typed: &TypedNormals, units: Units) {
    for ((month, n), at) in MonthOfYear::ALL.into_iter().zip(&typed.normals).zip(0..) {
        let fields = fields(month);
        form.set(&fields.et0, Measure::DepthADay.typed(n.et0_mm_per_day, units));
        form.set(&fields.rain, n.rain_mm.map_or_else(String::new, |r| Measure::Depth.typed(r, units)));
        if let Some(temperatures) = &typed.temperatures {
            let [high, low]: [f64; 2] = temperatures[at];
            form.set("by", "temperatures");
            form.set(&fields.high, Measure::Temperature.typed(high, units));
            form.set(&fields.low, Measure::Temperature.typed(low, units));
        }
    }
}

/// Reads twelve normals: ET, or a high and a low, in every month; rain in every month or in none.
pub(crate) fn read_normals(form: &mut Form, latitude_deg: f64, units: Units) -> Option<TypedNormals> {
    let typed = if by_temperatures(form) { of_temperatures(form, latitude_deg, units) } else { of_et0(form, units) };
    let typed = typed.filter(|_| form.is_sound())?;
    let missing = typed.normals.iter().position(|n| n.rain_mm.is_none());
    if let Some(missing) = missing
        && typed.normals.iter().any(|n| n.rain_mm.is_some())
    {
        form.fail(&format!("rain_{}", missing + 1), Words.t("normals-rain-all"));
        return None;
    }
    if typed.normals.iter().all(|n| n.et0_mm_per_day == 0.0) {
        let first = if by_temperatures(form) { "high_1" } else { "et0_1" };
        form.fail(first, Words.t("normals-all-zero"));
        return None;
    }
    Some(typed)
}

fn rain(form: &mut Form, fields: &NormalFields, units: Units) -> Option<f64> {
    form.measure(&fields.rain, Measure::Depth, range::RAIN_MONTH, units)
}

fn of_et0(form: &mut Form, units: Units) -> Option<TypedNormals> {
    let months = MonthOfYear::ALL.map(|month| {
        let fields = fields(month);
        let et0 = form.needed(&fields.et0, Measure::DepthADay, range::ET0, units);
        let rain_mm = rain(form, &fields, units);
        et0.map(|et0_mm_per_day| MonthNormal { et0_mm_per_day, rain_mm })
    });
    let months: Option<Vec<MonthNormal>> = months.into_iter().collect();
    let normals: Normals = months?.try_into().ok()?;
    Some(TypedNormals::of(normals))
}

fn of_temperatures(form: &mut Form, latitude_deg: f64, units: Units) -> Option<TypedNormals> {
    let months = MonthOfYear::ALL.map(|month| {
        let fields = fields(month);
        let mut needed = |field: &str| form.needed(field, Measure::Temperature, range::TEMPERATURE, units);
        let (high, low) = (needed(&fields.high), needed(&fields.low));
        let rain_mm = rain(form, &fields, units);
        let (t_max, t_min) = (high?, low?);
        if t_max < t_min {
            form.fail(&fields.low, Words.t("normals-low-above-high"));
            return None;
        }
        Some(MonthSummary { t_max, t_min, rain_mm })
    });
    let months: Option<Vec<MonthSummary>> = months.into_iter().collect();
    let months: [MonthSummary; 12] = months?.try_into().ok()?;
    Some(TypedNormals {
        normals: normals_of_summary(latitude_deg, &months),
        temperatures: Some(months.map(|m| [m.t_max, m.t_min])),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn form(by: &str) -> Form {
        let mut form = Form::default();
        form.set("by", by);
        for month in MonthOfYear::ALL {
            let fields = fields(month);
            for (field, value) in
                [(fields.et0, "3.5"), (fields.high, "26.6"), (fields.low, "14.8"), (fields.rain, "40")]
            {
                form.set(&field, value);
            }
        }
        form
    }

    #[test]
    fn highs_and_lows_give_the_reference_et_of_the_place() {
        let typed = read_normals(&mut form("temperatures"), 45.72, Units::Metric).unwrap();
        // FAO-56 example 20, printed 5.0 mm on 15 July.
        assert!((typed.normals[6].et0_mm_per_day - 5.0).abs() < 0.05);
        assert_eq!(typed.temperatures.unwrap()[3], [26.6, 14.8]);
        let mut again = Form::default();
        filled_normals(&mut again, &typed, Units::Us);
        let back = read_normals(&mut again, 45.72, Units::Us).unwrap();
        assert!(back.temperatures.unwrap().iter().all(|[high, _]| (high - 26.6).abs() < 0.3), "{back:?}");
    }

    #[test]
    fn a_low_above_its_high_is_said_at_its_field() {
        let mut form = form("temperatures");
        form.set("low_2", "30");
        assert_eq!(read_normals(&mut form, 45.72, Units::Metric), None);
        assert!(!form.error("low_2").is_empty());
        // Reference ET is not asked for then, nor temperatures where it is.
        form.set("by", "et0");
        assert!(read_normals(&mut Form::default(), 45.0, Units::Metric).is_none());
    }

    #[test]
    fn rain_stands_in_every_month_or_in_none() {
        let mut form = form("et0");
        form.set("rain_4", "");
        assert_eq!(read_normals(&mut form, 45.72, Units::Metric), None);
        assert!(!form.error("rain_4").is_empty());
    }
}
