//! A site file from a path or from standard input.

use std::io::Read;
use std::path::Path;

use anyhow::Context;
use chrono::{Datelike, NaiveDate, TimeDelta};
use upland_core::place::Bound;
use upland_core::schedule::Situation;
use upland_formats::site::{SITE_BYTES, Site, SiteError, read_site};

/// The bytes of a file, or of standard input for `-`; no more than a site file may have and one.
pub(super) fn bytes(path: &Path) -> anyhow::Result<Vec<u8>> {
    let most = SITE_BYTES as u64 + 1;
    let mut bytes = Vec::new();
    if path.as_os_str() == "-" {
        std::io::stdin().lock().take(most).read_to_end(&mut bytes).context("standard input cannot be read")?;
    } else {
        let file = std::fs::File::open(path).with_context(|| format!("{} cannot be opened", path.display()))?;
        file.take(most).read_to_end(&mut bytes).with_context(|| format!("{} cannot be read", path.display()))?;
    }
    Ok(bytes)
}

/// A site with its rules bound to its house number.
pub(super) struct Opened {
    pub(super) site: Site,
    pub(super) rules: Bound,
}

impl Opened {
    /// Reads a site file.
    pub(super) fn read(bytes: &[u8]) -> Result<Self, SiteError> {
        let site = read_site(bytes)?;
        let rules = site.rules.bind(&site.place.house_number);
        Ok(Self { site, rules })
    }

    /// What surrounds its controllers in the week of a day.
    pub(super) fn situation(&self, day: NaiveDate) -> Situation<'_, chrono_tz::Tz> {
        let monday = day - TimeDelta::days(i64::from(day.weekday().num_days_from_monday()));
        let normals = self.site.weather.as_ref().map(|(_, n)| n);
        Situation { rules: &self.rules, normals, zone: &self.site.place.zone, first: monday }
    }
}
