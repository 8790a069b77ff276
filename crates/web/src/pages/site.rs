//! The preview of a site file: what it would import.

use chrono::NaiveDate;
use upland_core::schedule::{Situation, detect};
use upland_formats::site::Site;

use super::rules_form::rules_line;
use super::shell::Shell;
use super::waiting::WaitingFile;
use crate::context::monday;
use crate::form::new_key;
use crate::show::{Measure, Units};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "site_import.html")]
pub(crate) struct SiteImportTemplate {
    pub(crate) shell: Shell,
    pub(crate) error: String,
    /// Files that were uploaded and not imported yet.
    pub(crate) waiting: Vec<WaitingFile>,
}

#[derive(askama::Template)]
#[template(path = "site_preview.html")]
pub(crate) struct SitePreviewTemplate {
    pub(crate) shell: Shell,
    pub(crate) post_to: String,
    pub(crate) action: String,
    pub(crate) file: String,
    pub(crate) name: String,
    pub(crate) facts: Vec<(String, String)>,
    pub(crate) controllers: Vec<SiteController>,
}

/// A controller of the file.
#[derive(Debug, Clone)]
pub(crate) struct SiteController {
    pub(crate) name: String,
    pub(crate) stations: String,
    pub(crate) sensors: String,
    pub(crate) findings: String,
    pub(crate) found: String,
}

impl SitePreviewTemplate {
    pub(crate) fn of(shell: Shell, post_to: String, file: String, site: &Site, today: NaiveDate, units: Units) -> Self {
        let w = Words;
        let rules = site.rules.bind(&site.place.house_number);
        let normals = site.weather.as_ref().map(|(_, n)| n);
        let situation = Situation { rules: &rules, normals, zone: &site.place.zone, first: monday(today) };
        let position = format!(
            "{}, {}, {}",
            Measure::Degrees.show(site.place.position.latitude_deg(), units),
            Measure::Degrees.show(site.place.position.longitude_deg(), units),
            Measure::Height.show(site.place.position.elevation_m(), units)
        );
        let controllers = site.controllers.iter().enumerate().map(|(index, c)| SiteController {
            name: c.name.clone(),
            stations: w.count("stations-count", c.stations.len()),
            sensors: w.count("site-sensors", c.sensors.len()),
            findings: w.count("found-findings", detect(&situation, &c.clone().as_of(today)).len()),
            found: w.count("site-found", site.as_found.iter().filter(|(at, _)| *at == index).count()),
        });
        Self {
            facts: vec![
                (w.t("place-where"), position),
                (w.t("site-zone"), site.place.zone.name().to_owned()),
                (w.t("rules-title"), rules_line(&site.rules, &site.place.house_number)),
                (
                    w.t("step-weather"),
                    site.weather.as_ref().map_or_else(|| w.t("place-no-weather"), |(n, _)| w.t1("site-weather", n)),
                ),
            ],
            controllers: controllers.collect(),
            action: new_key(),
            name: site.place.name.clone(),
            shell,
            post_to,
            file,
        }
    }
}
