//! Twelve normals to be typed: reference ET and rain, or highs, lows and rain.

use upland_core::climate::in_words::{Air, ClimateInWords, Warmth};
use upland_core::climate::normals::{MonthNormal, MonthSummary, Normals, normals_of_summary};
use upland_core::quantity::{MonthOfYear, range};
use upland_core::word::Word as _;

use super::Choice;
use super::shell::Shell;
use super::spine::Spine;
use crate::context::{Told, TypedNormals};
use crate::form::Form;
use crate::show::{Measure, Units, month_long};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "normals_form.html")]
pub(crate) struct NormalsFormTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) by: By,
    /// What the words of a climate may be.
    pub(crate) airs: Vec<Choice>,
    pub(crate) warmths: Vec<Choice>,
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

/// From what normals are told.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum By {
    Et0,
    Temperatures,
    Climate,
}

impl By {
    pub(crate) fn of(form: &Form) -> Self {
        match form.get("by") {
            "temperatures" => Self::Temperatures,
            "climate" => Self::Climate,
            _ => Self::Et0,
        }
    }

    pub(crate) const fn word(self) -> &'static str {
        match self {
            Self::Et0 => "et0",
            Self::Temperatures => "temperatures",
            Self::Climate => "climate",
        }
    }

    /// What the page says it asks for.
    pub(crate) const fn sub(self) -> &'static str {
        match self {
            Self::Et0 => "normals-sub",
            Self::Temperatures => "normals-sub-temperatures",
            Self::Climate => "normals-sub-climate",
        }
    }

    /// Where the figures come from.
    pub(crate) const fn why(self) -> &'static str {
        match self {
            Self::Et0 => "normals-why",
            Self::Temperatures => "normals-why-temperatures",
            Self::Climate => "normals-why-climate",
        }
    }
}

/// What the air of a climate may be.
pub(crate) fn airs() -> Vec<Choice> {
    [Air::Arid, Air::Humid].map(|air| Choice::new(air.word(), Words.t(air_key(air)))).to_vec()
}

/// How warm a season may be.
pub(crate) fn warmths() -> Vec<Choice> {
    let all = [Warmth::Warm, Warmth::Moderate, Warmth::Cool, Warmth::Cold];
    all.map(|warmth| Choice::new(warmth.word(), Words.t(warmth_key(warmth)))).to_vec()
}

const fn air_key(air: Air) -> &'static str {
    match air {
        Air::Humid => "air-humid",
        Air::Arid => "air-arid",
    }
}

const fn warmth_key(warmth: Warmth) -> &'static str {
    match warmth {
        Warmth::Cold => "warmth-cold",
        Warmth::Cool => "warmth-cool",
        Warmth::Moderate => "warmth-moderate",
        Warmth::Warm => "warmth-warm",
    }
}

/// `dry air; summers warm, over 30 °C; winters cool, around 10 °C`.
pub(crate) fn climate_words(climate: &ClimateInWords) -> String {
    let w = Words;
    let [summer, winter] = [climate.summer, climate.winter].map(|warmth| w.t(warmth_key(warmth)));
    w.with("normals-climate", &[("air", &w.t(air_key(climate.air))), ("summer", &summer), ("winter", &winter)])
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
    let worked = match By::of(form) {
        By::Et0 => None,
        By::Temperatures | By::Climate => read_normals(&mut form.clone(), latitude_deg, units),
    };
    let show = |mm: f64| Measure::DepthADay.figure(mm, units);
    let figure = |month: MonthOfYear| match worked.as_ref().map(|typed| (typed, typed.told)) {
        Some((typed, Told::Climate(climate))) => {
            // A range this wide has no hundredths.
            let [least, most] = climate.months(latitude_deg)[month.index()].map(|mm| Measure::Depth.figure(mm, units));
            let middle = Measure::Depth.figure(typed.normals[month.index()].et0_mm_per_day, units);
            Words.t2("normals-covers", ("middle", middle), ("range", format!("{least} – {most}")))
        }
        Some((typed, _)) => show(typed.normals[month.index()].et0_mm_per_day),
        None => String::new(),
    };
    MonthOfYear::ALL.map(|month| NormalFields { worked: figure(month), ..fields(month) }).to_vec()
}

/// The form of saved normals.
pub(crate) fn filled_normals(form: &mut Form, typed: &TypedNormals, units: Units) {
    for ((month, n), at) in MonthOfYear::ALL.into_iter().zip(&typed.normals).zip(0..) {
        let fields = fields(month);
        form.set(&fields.et0, Measure::DepthADay.typed(n.et0_mm_per_day, units));
        form.set(&fields.rain, n.rain_mm.map_or_else(String::new, |r| Measure::Depth.typed(r, units)));
        if let Told::Temperatures(months) = &typed.told {
            let [high, low]: [f64; 2] = months[at];
            form.set(&fields.high, Measure::Temperature.typed(high, units));
            form.set(&fields.low, Measure::Temperature.typed(low, units));
        }
    }
    match typed.told {
        Told::Et0 => {}
        Told::Temperatures(_) => form.set("by", By::Temperatures.word()),
        Told::Climate(climate) => {
            form.set("by", By::Climate.word());
            form.set("air", climate.air.word());
            form.set("summer", climate.summer.word());
            form.set("winter", climate.winter.word());
        }
    }
}

/// Reads twelve normals: ET, or a high and a low, in every month; rain in every month or in none.
pub(crate) fn read_normals(form: &mut Form, latitude_deg: f64, units: Units) -> Option<TypedNormals> {
    let typed = match By::of(form) {
        By::Et0 => of_et0(form, units),
        By::Temperatures => of_temperatures(form, latitude_deg, units),
        By::Climate => of_climate(form, latitude_deg, units),
    };
    let typed = typed.filter(|_| form.is_sound())?;
    let missing = typed.normals.iter().position(|n| n.rain_mm.is_none());
    if let Some(missing) = missing
        && typed.normals.iter().any(|n| n.rain_mm.is_some())
    {
        form.fail(&format!("rain_{}", missing + 1), Words.t("normals-rain-all"));
        return None;
    }
    if typed.normals.iter().all(|n| n.et0_mm_per_day == 0.0) {
        let first = match By::of(form) {
            By::Et0 => "et0_1",
            By::Temperatures => "high_1",
            By::Climate => "summer",
        };
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
        told: Told::Temperatures(months.map(|m| [m.t_max, m.t_min])),
    })
}

fn of_climate(form: &mut Form, latitude_deg: f64, units: Units) -> Option<TypedNormals> {
    let (air, summer, winter) = (form.chosen("air"), form.chosen("summer"), form.chosen("winter"));
    let rain = MonthOfYear::ALL.map(|month| rain(form, &fields(month), units));
    let climate = ClimateInWords { air: air?, summer: summer?, winter: winter? };
    if climate.winter > climate.summer {
        form.fail("winter", Words.t("normals-winter-warmer"));
        return None;
    }
    Some(TypedNormals { normals: climate.normals(latitude_deg, rain), told: Told::Climate(climate) })
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
        assert_eq!(typed.temperatures().unwrap()[3], [26.6, 14.8]);
        let mut again = Form::default();
        filled_normals(&mut again, &typed, Units::Us);
        let back = read_normals(&mut again, 45.72, Units::Us).unwrap();
        assert!(back.temperatures().unwrap().iter().all(|[high, _]| (high - 26.6).abs() < 0.3), "{back:?}");
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
    fn a_climate_in_words_covers_a_range_and_comes_back() {
        let mut form = form("climate");
        for (field, word) in [("air", "arid"), ("summer", "moderate"), ("winter", "cool")] {
            form.set(field, word);
        }
        let typed = read_normals(&mut form, 45.0, Units::Metric).unwrap();
        // FAO-56 table 2: 4 to 7 mm a day in a temperate, arid climate of 20 °C.
        assert!((typed.normals[5].et0_mm_per_day - 5.5).abs() < 1e-9);
        assert_eq!(typed.normals[3].rain_mm, Some(40.0));
        assert_eq!(normal_fields(&form, 45.0, Units::Metric)[5].worked, "5.5 (4.0 – 7.0)");
        let method = typed.method();
        assert_eq!(crate::context::climate_of_method(&method).map(Told::Climate), Some(typed.told));
        let mut again = Form::default();
        filled_normals(&mut again, &typed, Units::Metric);
        assert_eq!(read_normals(&mut again, 45.0, Units::Metric), Some(typed));
        form.set("winter", "warm");
        assert_eq!(read_normals(&mut form, 45.0, Units::Metric), None);
        assert!(!form.error("winter").is_empty());
        assert_eq!(crate::context::climate_of_method("typed+climate arid"), None);
    }

    #[test]
    fn rain_stands_in_every_month_or_in_none() {
        let mut form = form("et0");
        form.set("rain_4", "");
        assert_eq!(read_normals(&mut form, 45.72, Units::Metric), None);
        assert!(!form.error("rain_4").is_empty());
    }
}
