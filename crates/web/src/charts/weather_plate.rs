//! Weather along one time axis: rain hanging, the band of temperature, reference ET, sun under the clear sky.

use chrono::{Datelike, Days, NaiveDate};
use upland_core::climate::daily::Site;
use upland_core::climate::element::Element;
use upland_core::climate::normals::Normals;

use super::lane::{LEFT, Label, Lane, LaneName, RIGHT, SIDE};
use super::path::PathData;
use super::time_axis::{Tick, TimeAxis};
use crate::context::RecordDay;
use crate::show::{Fixed, Measure, Units, date_tiny, number};
use crate::words::Words;

/// A doubtful value that the plate marks with its number.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct PlateFlag {
    pub(crate) number: usize,
    pub(crate) date: NaiveDate,
    pub(crate) element: Element,
}

#[derive(Debug, Clone, Copy)]
pub(crate) struct WeatherPlateInput<'a> {
    /// The days on record in the period, by date.
    pub(crate) days: &'a [RecordDay],
    pub(crate) period: [NaiveDate; 2],
    pub(crate) normals: Option<&'a Normals>,
    pub(crate) site: &'a Site,
    pub(crate) flags: &'a [PlateFlag],
    pub(crate) units: Units,
}

#[derive(Debug, Clone)]
pub(crate) struct FlagMark {
    pub(crate) x: Fixed,
    pub(crate) top: Fixed,
    pub(crate) bottom: Fixed,
    pub(crate) text_y: Fixed,
    pub(crate) diamond: String,
    pub(crate) number: usize,
}

#[derive(Debug, Clone)]
pub(crate) struct WeatherPlate {
    pub(crate) height: u32,
    pub(crate) bottom: Fixed,
    pub(crate) names: Vec<LaneName>,
    /// Heights of values, with their figures at the left.
    pub(crate) scale: Vec<(Fixed, String)>,
    pub(crate) rain: String,
    pub(crate) band: String,
    pub(crate) high: String,
    pub(crate) low: String,
    pub(crate) frost: String,
    pub(crate) et0: String,
    pub(crate) normal: String,
    pub(crate) sun: String,
    pub(crate) clear_sky: String,
    pub(crate) ticks: Vec<Tick>,
    pub(crate) sides: Vec<Label>,
    pub(crate) frost_note: Option<Label>,
    pub(crate) flags: Vec<FlagMark>,
    /// How many days a stroke stands for.
    pub(crate) bin: u64,
}

/// Strokes closer than two pixels run into each other: a longer period shows means of several days.
const MOST_STROKES: u64 = 366;

/// Some days drawn as one: means, and for rain the sum.
#[derive(Debug, Clone, Copy)]
struct Bin {
    middle: NaiveDate,
    x: f64,
    high: Option<f64>,
    low: Option<f64>,
    rain: Option<f64>,
    et0: Option<f64>,
    sun: Option<f64>,
}

fn mean(values: impl Iterator<Item = Option<f64>>) -> Option<f64> {
    let (sum, count) = values.flatten().fold((0.0, 0_u32), |(sum, count), v| (sum + v, count + 1));
    (count > 0).then(|| sum / f64::from(count))
}

fn bins(days: &[RecordDay], axis: &TimeAxis, size: u64) -> Vec<Bin> {
    let mut bins = Vec::new();
    let mut rest = days;
    let mut from = axis.first;
    while from <= axis.last {
        let next = from + Days::new(size);
        let (own, later) = rest.split_at(rest.partition_point(|d| d.weather.date < next));
        rest = later;
        let middle = from + Days::new(size / 2);
        let of = |element: Element| mean(own.iter().map(move |d| element.of(&d.weather)));
        let rain_days = own.iter().filter(|d| d.weather.rain.is_some()).count() as f64;
        bins.push(Bin {
            middle,
            x: axis.start(from) + axis.day() * size as f64 / 2.0,
            high: of(Element::TMax),
            low: of(Element::TMin),
            rain: of(Element::Rain).map(|mm| mm * rain_days),
            et0: mean(own.iter().map(|d| d.et0_mm)),
            sun: of(Element::Solar),
        });
        from = next;
    }
    bins
}

impl WeatherPlate {
    /// Draws a period; nothing where it has no day on record.
    pub(crate) fn draw(input: &WeatherPlateInput<'_>) -> Option<Self> {
        let [first, last] = input.period;
        let newest = input.days.last()?;
        let w = Words;
        let units = input.units;
        let axis = TimeAxis { first, last, left: LEFT, right: RIGHT };
        let length = (last - first).num_days().unsigned_abs() + 1;
        let size = length.div_ceil(MOST_STROKES);
        let bins = bins(input.days, &axis, size);
        let at_most = |value: fn(&Bin) -> Option<f64>| bins.iter().filter_map(value).reduce(f64::max);
        let mut plate = Self {
            height: 0,
            bottom: Fixed(0.0),
            names: Vec::new(),
            scale: Vec::new(),
            rain: String::new(),
            band: String::new(),
            high: String::new(),
            low: String::new(),
            frost: String::new(),
            et0: String::new(),
            normal: String::new(),
            sun: String::new(),
            clear_sky: String::new(),
            ticks: axis.ticks(),
            sides: Vec::new(),
            frost_note: None,
            flags: Vec::new(),
            bin: size,
        };
        let mut top = 2.0;
        let mut lanes: Vec<(Element, Lane)> = Vec::new();

        if let Some(most) = at_most(|b| b.rain) {
            let lane = Lane { top, bottom: top + 56.0, least: 0.0, most: most.max(10.0) };
            let mut path = PathData::default();
            for bin in &bins {
                if let Some(mm) = bin.rain.filter(|mm| *mm > 0.0) {
                    path.stroke(bin.x, lane.top, lane.top + (lane.bottom - lane.y(mm)).max(1.5));
                }
            }
            plate.rain = path.into_string();
            plate.name(lane.top + 11.0, w.t("input-rain"), Measure::Depth.unit(units));
            if let Some(mm) = newest.weather.rain {
                let rain = if mm > 0.0 { Measure::Depth.show(mm, units) } else { w.t("record-no-rain") };
                plate.side(lane.top + 11.0, rain, true);
                plate.side(lane.top + 27.0, date_tiny(newest.weather.date), false);
            }
            lanes.push((Element::Rain, lane));
            top = lane.bottom + 4.0;
        }
        if let (Some(highest), Some(lowest)) =
            (at_most(|b| b.high.or(b.low)), bins.iter().filter_map(|b| b.low.or(b.high)).reduce(f64::min))
        {
            let lane = Lane { top, bottom: top + 84.0, least: lowest.min(0.0), most: highest.max(lowest + 5.0) };
            plate.air(&bins, &lane, size, units);
            let end = |t: f64| Measure::Temperature.show(t, units);
            if let Some(t) = newest.weather.t_max {
                plate.side(lane.y(t) + 4.0, w.t1("record-high", end(t)), true);
            }
            if let Some(t) = newest.weather.t_min {
                let under = newest.weather.t_max.map_or(lane.top, |max| lane.y(max) + 20.0);
                plate.side((lane.y(t) + 4.0).max(under), w.t1("record-low", end(t)), false);
            }
            lanes.push((Element::TMin, lane));
            top = lane.bottom + 8.0;
        }
        if let Some(most) = at_most(|b| b.et0) {
            let lane = Lane { top, bottom: top + 46.0, least: 0.0, most: most.max(1.0) };
            plate.et0 = PathData::broken(bins.iter().map(|b| b.et0.map(|mm| (b.x, lane.y(mm))))).into_string();
            if let Some(normals) = input.normals {
                let dots = bins.iter().step_by((bins.len() / 48).max(1));
                let mut path = PathData::default();
                for bin in dots {
                    let y = lane.y(normals[bin.middle.month0() as usize].et0_mm_per_day);
                    // A stroke of no length has a round end: a dot.
                    path.stroke(bin.x, y, y + 0.01);
                }
                plate.normal = path.into_string();
            }
            plate.name(lane.top + 11.0, "ET₀".into(), Measure::DepthADay.unit(units));
            plate.scale.extend(lane.scale(Measure::DepthADay, units, 2));
            if let Some(mm) = newest.et0_mm {
                plate.side(lane.top + 15.0, Measure::DepthADay.show(mm, units), true);
            }
            plate.side(lane.top + 31.0, w.t("record-dots"), false);
            top = lane.bottom + 8.0;
        }
        if at_most(|b| b.sun).is_some() {
            let clear: Vec<f64> = bins.iter().map(|b| input.site.clear_sky(b.middle)).collect();
            let most = clear.iter().copied().fold(1.0, f64::max).max(at_most(|b| b.sun)?);
            let lane = Lane { top, bottom: top + 56.0, least: 0.0, most };
            let mut path = PathData::default();
            for bin in &bins {
                if let Some(mj) = bin.sun {
                    path.stroke(bin.x, lane.bottom, lane.y(mj));
                }
            }
            plate.sun = path.into_string();
            plate.clear_sky = PathData::line(bins.iter().zip(&clear).map(|(b, mj)| (b.x, lane.y(*mj)))).into_string();
            plate.name(lane.top + 11.0, w.t("input-sun"), "MJ/m²");
            plate.scale.extend(lane.scale_below(Measure::Plain, Units::Metric, 2));
            plate.side(lane.top + 15.0, w.t("record-dashes"), false);
            if let Some(mj) = newest.weather.solar {
                let clear = number(input.site.clear_sky(newest.weather.date), 1);
                plate.side(lane.top + 31.0, w.t2("record-sun-of", ("measured", number(mj, 1)), ("clear", clear)), true);
            }
            lanes.push((Element::Solar, lane));
            top = lane.bottom + 4.0;
        }
        for flag in input.flags.iter().filter(|f| f.date >= first && f.date <= last) {
            plate.flags.extend(flag_mark(flag, &axis, &lanes));
        }
        plate.bottom = Fixed(top);
        plate.height = top as u32 + 20;
        Some(plate)
    }

    fn name(&mut self, y: f64, name: String, unit: &'static str) {
        self.names.push(LaneName::new(y, name, unit));
    }

    fn side(&mut self, y: f64, text: String, strong: bool) {
        self.sides.push(Label { x: Fixed(SIDE), y: Fixed(y), text, strong });
    }

    /// The band from lowest to highest, and a tick at freezing for every night below it.
    fn air(&mut self, bins: &[Bin], lane: &Lane, size: u64, units: Units) {
        let line = |value: fn(&Bin) -> Option<f64>| {
            PathData::broken(bins.iter().map(|b| value(b).map(|t| (b.x, lane.y(t))))).into_string()
        };
        (self.high, self.low) = (line(|b| b.high), line(|b| b.low));
        for known in bins.split(|b| b.high.is_none() || b.low.is_none()).filter(|known| !known.is_empty()) {
            let top = known.iter().filter_map(|b| Some((b.x, lane.y(b.high?))));
            let back = known.iter().rev().filter_map(|b| Some((b.x, lane.y(b.low?))));
            self.band.push_str(&PathData::line(top.chain(back)).into_string());
            self.band.push('Z');
        }
        let zero = lane.y(0.0);
        let mut frost = PathData::default();
        let freezing: Vec<&Bin> = bins.iter().filter(|b| b.low.is_some_and(|t| t < 0.0)).collect();
        for bin in &freezing {
            frost.stroke(bin.x, zero - 2.0, zero + 2.0);
        }
        self.frost = frost.into_string();
        if let Some(last) = freezing.last().filter(|_| size == 1) {
            let text = Words.t1("record-last-frost", date_tiny(last.middle));
            // At the right of the tick, or at its left where the edge is near.
            let x = if last.x > RIGHT - 130.0 { last.x - 130.0 } else { last.x + 7.0 };
            self.frost_note = Some(Label { x: Fixed(x.max(LEFT + 4.0)), y: Fixed(zero + 15.0), text, strong: false });
        }
        self.name(lane.top + 11.0, Words.t("record-air"), Measure::Temperature.unit(units));
        self.scale.extend(lane.scale(Measure::Temperature, units, 3));
    }
}

/// A flag in the lane of its element; of elements without a lane at the plate's top.
fn flag_mark(flag: &PlateFlag, axis: &TimeAxis, lanes: &[(Element, Lane)]) -> Option<FlagMark> {
    let own = match flag.element {
        Element::TMax | Element::TMin | Element::DewPoint => Element::TMin,
        other => other,
    };
    let (_, lane) = lanes.iter().find(|(e, _)| *e == own).or_else(|| lanes.first())?;
    let x = axis.middle(flag.date);
    let middle = lane.top + 10.0;
    Some(FlagMark {
        x: Fixed(x),
        top: Fixed(middle + 10.0),
        bottom: Fixed(lane.bottom),
        text_y: Fixed(middle + 4.4),
        diamond: format!("M{} {}l9.5 9.5-9.5 9.5-9.5-9.5z", Fixed(x), Fixed(middle - 9.5)),
        number: flag.number,
    })
}
