//! The feel test of a soil: what a handful does and how it rubs, each pair of answers a texture.

use upland_core::controller::{Controller, Station};
use upland_core::landscape::{Rub, Soil, Squeeze, soil_by_feel};
use upland_core::schedule::follow_soil;
use upland_core::word::Word;

use super::shell::Shell;
use super::spine::Spine;
use super::stations::choice_name;
use crate::charts::Strip;
use crate::form::Form;
use crate::show::{Measure, Units, number};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "feel.html")]
pub(crate) struct FeelTemplate {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
    pub(crate) action: String,
    pub(crate) version: i32,
    pub(crate) station: String,
    pub(crate) rubs: Vec<String>,
    pub(crate) rows: Vec<FeelRow>,
    pub(crate) alike: Vec<AlikeStation>,
    pub(crate) back: String,
    pub(crate) href: String,
}

/// What a handful does, with the textures that it can then be.
#[derive(Debug, Clone)]
pub(crate) struct FeelRow {
    pub(crate) squeeze: String,
    pub(crate) more: String,
    /// One cell over all three where rubbing tells nothing more.
    pub(crate) cells: Vec<FeelCell>,
}

/// A texture to take.
#[derive(Debug, Clone)]
pub(crate) struct FeelCell {
    pub(crate) soil: &'static str,
    pub(crate) name: String,
    pub(crate) more: String,
    pub(crate) span: usize,
    /// Whether it is the soil that the station has now.
    pub(crate) now: bool,
}

/// Another station, that may stand on the same soil.
#[derive(Debug, Clone)]
pub(crate) struct AlikeStation {
    pub(crate) field: String,
    pub(crate) label: String,
}

pub(crate) fn rubs() -> Vec<String> {
    Rub::ALL.map(choice_name).to_vec()
}

/// The answers for a station: each texture with the water it holds and the longest run it takes there.
pub(crate) fn rows(station: &Station, units: Units) -> Vec<FeelRow> {
    let w = Words;
    let row = |squeeze: Squeeze| {
        let mut cells: Vec<FeelCell> = Vec::new();
        for rub in Rub::ALL {
            let soil = soil_by_feel(squeeze, rub);
            match cells.last_mut().filter(|last| last.soil == soil.word()) {
                Some(last) => last.span += 1,
                None => cells.push(cell(station, soil, units)),
            }
        }
        let more = match squeeze {
            Squeeze::FallsApart => "squeeze-falls-apart-more",
            Squeeze::Ball => "squeeze-ball-more",
            Squeeze::ShortRibbon => "squeeze-short-ribbon-more",
            Squeeze::Ribbon => "squeeze-ribbon-more",
            Squeeze::LongRibbon => "squeeze-long-ribbon-more",
        };
        FeelRow { squeeze: choice_name(squeeze), more: w.t(more), cells }
    };
    Squeeze::ALL.map(row).to_vec()
}

fn cell(station: &Station, soil: Soil, units: Units) -> FeelCell {
    let w = Words;
    let on_it = Station { soil, ..station.clone() };
    let holds = Measure::Depth.show(on_it.zone().raw_mm(), units);
    let more = match on_it.runoff().longest_minutes {
        Some(longest) => w.t2("feel-cell", ("holds", holds), ("longest", number(longest.floor().max(1.0), 0))),
        None => w.t1("feel-cell-no-limit", holds),
    };
    FeelCell { soil: soil.word(), name: choice_name(soil), more, span: 1, now: soil == station.soil }
}

fn alike_field(number: u8) -> String {
    format!("same_{number}")
}

/// The other stations, to take the same soil for.
pub(crate) fn alike(controller: &Controller, number: u8) -> Vec<AlikeStation> {
    let other = |s: &Station| AlikeStation {
        field: alike_field(s.number),
        label: format!("{} {} ({})", s.number, s.name, choice_name(s.soil)),
    };
    controller.stations.iter().filter(|s| s.number != number).map(other).collect()
}

/// The controller with a felt soil under a station and those that were ticked; nothing for a soil that is none.
pub(crate) fn with_soil(before: &Controller, number: u8, form: &Form) -> Option<Controller> {
    let soil = Soil::of_word(form.get("soil")).ok()?;
    let mut changed = before.clone();
    for station in &mut changed.stations {
        if station.number == number || form.has(&alike_field(station.number)) {
            station.soil = soil;
        }
    }
    follow_soil(before, &mut changed);
    Some(changed)
}

#[cfg(test)]
mod tests {
    use super::*;
    use upland_core::controller::Preset;
    use upland_core::landscape::{Plant, SprinklerType};

    #[test]
    fn every_row_has_an_answer_for_every_rub() {
        let lawn = Station::plain(1, "Lawn", Plant::CoolTurf, SprinklerType::Spray);
        let rows = rows(&lawn, Units::Metric);
        assert_eq!(rows.len(), 5);
        for row in &rows {
            assert_eq!(row.cells.iter().map(|c| c.span).sum::<usize>(), 3, "{row:?}");
        }
        let now: Vec<&str> = rows.iter().flat_map(|r| &r.cells).filter(|c| c.now).map(|c| c.soil).collect();
        assert_eq!(now, ["loam"]);
    }

    #[test]
    fn a_soil_is_taken_for_the_ticked_stations_too() {
        let mut c = Controller::new("Cabinet".into(), Preset::Monthly.capability());
        c.stations = (1..=3).map(|n| Station::plain(n, "Lawn", Plant::CoolTurf, SprinklerType::Spray)).collect();
        let mut form = Form::default();
        form.set("soil", "sandy_clay");
        form.set("same_3", "yes");
        let soils: Vec<Soil> = with_soil(&c, 1, &form).unwrap().stations.iter().map(|s| s.soil).collect();
        assert_eq!(soils, [Soil::SandyClay, Soil::Loam, Soil::SandyClay]);
        form.set("soil", "peat");
        assert!(with_soil(&c, 1, &form).is_none());
    }
}
