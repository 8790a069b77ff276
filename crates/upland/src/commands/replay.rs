use std::io::{BufWriter, Write, stdout};

use chrono::Datelike;
use upland_core::climate::daily::{Guesses, Site};
use upland_core::climate::normals::{NormalDay, Normals, monthly_normals};
use upland_core::climate::reference_et::Reference;
use upland_core::climate::sun::sunrise_hours;
use upland_core::replay::{
    Candidate, Found, Ground, Keep, REFILL_SHARE, Season, SeasonDay, peak_et0, replay, strategies,
};
use upland_core::schedule::{Plan, Situation};
use upland_formats::replay::ReplayDoc;

use super::site_file::{Opened, bytes};
use super::weather_file::{Source, read_weather};
use super::{Outcome, complain};
use crate::args::SiteReplay;

/// The daily balance of every station under every strategy, as JSON.
pub(super) fn run(args: &SiteReplay) -> anyhow::Result<Outcome> {
    let opened = match Opened::read(&bytes(&args.site)?) {
        Ok(opened) => opened,
        Err(error) => {
            complain(format_args!("{}: {error}", args.site.display()));
            return Ok(Outcome::BadData);
        }
    };
    let site = match Site::new(&opened.site.place.position, args.wind_height, Guesses::default()) {
        Ok(site) => site,
        Err(error) => {
            complain(format_args!("{error}"));
            return Ok(Outcome::Usage);
        }
    };
    let source = Source { file: &args.file, columns: &args.column, all: args.all };
    let days = read_weather(source, &site, |day| SeasonDay {
        date: day.date,
        et0_mm: site.et0_mm(day, Reference::Short),
        rain_mm: day.rain,
        air_c: day.t_min.zip(day.t_max),
    })?;
    let days = match days {
        Ok(days) => days,
        Err(outcome) => return Ok(outcome),
    };
    let season = match Season::of(&days) {
        Ok(season) => season,
        Err(error) => {
            complain(format_args!("{}: {error}", args.file.display()));
            return Ok(Outcome::BadData);
        }
    };
    say_filled(&season);
    let mut out = BufWriter::new(stdout().lock());
    serde_json::to_writer(&mut out, &replayed(&opened, &days, &season))?;
    writeln!(out)?;
    out.flush()?;
    Ok(Outcome::Done)
}

fn say_filled(season: &Season) {
    if !season.et0_filled.is_empty() {
        let days = season.et0_filled.len();
        complain(format_args!("{days} days have no reference ET; they take the mean of their month (et0_filled)"));
    }
    if !season.rain_missing.is_empty() {
        let days = season.rain_missing.len();
        complain(format_args!("{days} days have no rain measured; they count as dry (rain_missing)"));
    }
}

/// The normals that budgets are made from: those of the site file, else those of the weather.
fn normals(opened: &Opened, days: &[SeasonDay]) -> Option<Normals> {
    let own = opened.site.weather.as_ref().map(|(_, normals)| *normals);
    own.or_else(|| {
        let of_day = |day: &SeasonDay| NormalDay { date: day.date, et0_mm: day.et0_mm, rain_mm: day.rain_mm };
        monthly_normals(days.iter().map(of_day)).ok()
    })
}

fn replayed(opened: &Opened, days: &[SeasonDay], season: &Season) -> ReplayDoc {
    let site = &opened.site;
    let normals = normals(opened, days);
    let first = season.dates[0];
    let situation = Situation { rules: &opened.rules, normals: normals.as_ref(), zone: &site.place.zone, first };
    let sunrise_hours = sunrise_hours(
        site.place.position.latitude_deg(),
        site.place.position.longitude_deg(),
        &site.place.zone,
        first.year(),
    );
    // Without a year of weather the month with most of what there is stands for the peak.
    let most = season.et0_mm.iter().copied().fold(0.0, f64::max);
    let mut doc = ReplayDoc::of(season);
    for (index, controller) in site.controllers.iter().enumerate() {
        let plan: Plan = situation.plan(controller);
        let ground = Ground::of(controller);
        let candidate = Candidate {
            controller,
            plan: &plan,
            ground: &ground,
            found: site.as_found.iter().find(|(i, _)| *i == index).map(|(_, panel)| Found::of(panel, controller)),
            rules: &opened.rules,
            peak_et0_mm_per_day: normals.as_ref().map_or(most, peak_et0),
            sunrise_hours,
            refill_share: REFILL_SHARE,
        };
        for (kind, mut strategy) in strategies(&candidate) {
            let done = replay(&ground, season, &opened.rules, strategy.as_mut(), Keep::Days);
            doc.add(kind, &controller.name, &ground, done);
        }
    }
    doc
}
