//! The hours of a day: rain hanging, temperature, wind, reference ET, sun under the clear sky.

use chrono::{TimeDelta, Timelike};
use upland_core::climate::daily::Site;
use upland_core::climate::hourly::{HourlyEt0, HourlyWeather, MJ_OF_A_WATT_HOUR};

use super::lane::{LEFT, Label, Lane, LaneName, RIGHT, SIDE};
use super::path::PathData;
use crate::show::{Fixed, Measure, Units, number};
use crate::words::Words;

#[derive(Debug, Clone, Copy)]
pub(crate) struct HoursPlateInput<'a> {
    /// The hours of the day, in order.
    pub(crate) hours: &'a [HourlyWeather],
    /// Their reference ET.
    pub(crate) et0: &'a [Option<HourlyEt0>],
    pub(crate) site: &'a Site,
    pub(crate) units: Units,
}

#[derive(Debug, Clone, Default)]
pub(crate) struct HoursPlate {
    pub(crate) height: u32,
    pub(crate) bottom: Fixed,
    pub(crate) names: Vec<LaneName>,
    pub(crate) scale: Vec<(Fixed, String)>,
    pub(crate) rain: String,
    pub(crate) air: String,
    pub(crate) wind: String,
    pub(crate) et0: String,
    pub(crate) sun: String,
    pub(crate) clear_sky: String,
    /// Every third hour: where it begins, and its name.
    pub(crate) ticks: Vec<(Fixed, String)>,
    pub(crate) sides: Vec<Label>,
}

/// Hours across the plate; a day of 25 has one more.
const HOURS: f64 = 24.0;

impl HoursPlate {
    /// Draws a day; nothing without an hour.
    pub(crate) fn draw(input: &HoursPlateInput<'_>) -> Option<Self> {
        let first = input.hours.first()?;
        // Hours are as far apart as they were, however the clock was put.
        let midnight = first.start - TimeDelta::hours(i64::from(first.start.hour()));
        let since = |hour: &HourlyWeather| (hour.start - midnight).num_minutes() as f64 / 60.0;
        let across = input.hours.last().map_or(HOURS, |last| (since(last) + 1.0).max(HOURS));
        let wide = (RIGHT - LEFT) / across;
        let middle = |hour: &HourlyWeather| LEFT + (since(hour) + 0.5) * wide;
        let at_most = |value: fn(&HourlyWeather) -> Option<f64>| input.hours.iter().filter_map(value).reduce(f64::max);
        let at_least = |value: fn(&HourlyWeather) -> Option<f64>| input.hours.iter().filter_map(value).reduce(f64::min);
        let (w, units) = (Words, input.units);
        let mut plate = Self {
            ticks: input
                .hours
                .iter()
                .filter(|hour| hour.start.hour() % 3 == 0)
                .map(|hour| (Fixed(middle(hour) - wide / 2.0), hour.start.format("%H:00").to_string()))
                .collect(),
            ..Self::default()
        };
        let mut top = 2.0;
        if let Some(most) = at_most(|h| h.rain) {
            let lane = plate.lane(&mut top, 44.0, [0.0, most.max(4.0)]);
            let mut path = PathData::default();
            for (hour, mm) in input.hours.iter().filter_map(|hour| Some((hour, hour.rain.filter(|mm| *mm > 0.0)?))) {
                path.stroke(middle(hour), lane.top, lane.top + (lane.bottom - lane.y(mm)).max(1.5));
            }
            plate.rain = path.into_string();
            plate.names.push(LaneName::new(lane.top + 11.0, w.t("input-rain"), Measure::Depth.unit(units)));
            let sum: f64 = input.hours.iter().filter_map(|hour| hour.rain).sum();
            let rain = if sum > 0.0 { Measure::Depth.show(sum, units) } else { w.t("record-no-rain") };
            plate.side(lane.top + 11.0, rain, true);
        }
        if let (Some(highest), Some(lowest)) = (at_most(|h| h.t), at_least(|h| h.t)) {
            let lane = plate.lane(&mut top, 70.0, [(lowest - 1.0).min(10.0), (highest + 1.0).max(lowest + 5.0)]);
            let points = input.hours.iter().map(|hour| hour.t.map(|t| (middle(hour), lane.y(t))));
            plate.air = PathData::broken(points).into_string();
            plate.measured(&lane, w.t("record-air"), Measure::Temperature, units);
            plate.side(lane.y(highest) + 4.0, w.t1("record-high", Measure::Temperature.show(highest, units)), true);
            let under = (lane.y(lowest) + 4.0).max(lane.y(highest) + 20.0);
            plate.side(under, w.t1("record-low", Measure::Temperature.show(lowest, units)), false);
        }
        if let Some(most) = at_most(|h| h.wind) {
            let lane = plate.lane(&mut top, 40.0, [0.0, most.max(2.0)]);
            let points = input.hours.iter().map(|hour| hour.wind.map(|v| (middle(hour), lane.y(v))));
            plate.wind = PathData::broken(points).into_string();
            plate.measured(&lane, w.t("input-wind"), Measure::Wind, units);
            plate.side(lane.top + 13.0, w.t1("hours-up-to", Measure::Wind.show(most, units)), false);
        }
        plate.et0_lane(&mut top, input, &middle);
        plate.sun_lane(&mut top, input, &middle);
        plate.bottom = Fixed(top);
        plate.height = top as u32 + 20;
        Some(plate)
    }

    fn et0_lane(&mut self, top: &mut f64, input: &HoursPlateInput<'_>, middle: &impl Fn(&HourlyWeather) -> f64) {
        let known: Vec<(&HourlyWeather, f64)> =
            input.hours.iter().zip(input.et0).filter_map(|(hour, et0)| Some((hour, et0.as_ref()?.et0_mm))).collect();
        let Some(most) = known.iter().map(|(_, mm)| *mm).reduce(f64::max) else { return };
        let lane = self.lane(top, 72.0, [0.0, most.max(0.2)]);
        let mut path = PathData::default();
        for (hour, mm) in known {
            path.stroke(middle(hour), lane.bottom, lane.y(mm));
        }
        self.et0 = path.into_string();
        self.names.push(LaneName::new(lane.top + 11.0, "ET₀".into(), Measure::DepthADay.unit(input.units)));
        self.scale.extend(lane.scale_below(Measure::DepthADay, input.units, 4));
    }

    fn sun_lane(&mut self, top: &mut f64, input: &HoursPlateInput<'_>, middle: &impl Fn(&HourlyWeather) -> f64) {
        let watts = |mj: f64| mj / MJ_OF_A_WATT_HOUR;
        let Some(brightest) = input.hours.iter().filter_map(|h| h.solar).reduce(f64::max) else { return };
        let clear = |hour: &HourlyWeather| input.site.clear_sky_hour(hour.start.to_utc());
        let most = input.hours.iter().map(clear).fold(brightest, f64::max);
        let lane = self.lane(top, 72.0, [0.0, watts(most).max(1.0)]);
        let mut path = PathData::default();
        for (hour, mj) in input.hours.iter().filter_map(|hour| Some((hour, hour.solar.filter(|mj| *mj > 0.0)?))) {
            path.stroke(middle(hour), lane.bottom, lane.y(watts(mj)));
        }
        self.sun = path.into_string();
        let sky = input.hours.iter().map(|hour| (middle(hour), lane.y(watts(clear(hour)))));
        self.clear_sky = PathData::line(sky).into_string();
        self.names.push(LaneName::new(lane.top + 11.0, Words.t("input-sun"), "W/m²"));
        self.scale.extend(lane.scale_below(Measure::Plain, Units::Metric, 4));
        self.side(lane.top + 15.0, Words.t1("hours-up-to", format!("{} W/m²", number(watts(brightest), 0))), false);
        self.side(lane.top + 31.0, Words.t("record-dashes"), false);
    }

    /// The next lane under those that are there.
    fn lane(&self, top: &mut f64, height: f64, [least, most]: [f64; 2]) -> Lane {
        let lane = Lane { top: *top, bottom: *top + height, least, most };
        *top = lane.bottom + 8.0;
        lane
    }

    fn measured(&mut self, lane: &Lane, name: String, measure: Measure, units: Units) {
        self.names.push(LaneName::new(lane.top + 11.0, name, measure.unit(units)));
        self.scale.extend(lane.scale(measure, units, 2));
    }

    fn side(&mut self, y: f64, text: String, strong: bool) {
        self.sides.push(Label { x: Fixed(SIDE), y: Fixed(y), text, strong });
    }
}
