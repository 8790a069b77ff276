use std::io::{Write, stdout};

use chrono::{NaiveTime, TimeDelta};
use upland_core::schedule::{Level, Run, expand};
use upland_formats::site::{NamedRun, runs_calendar, runs_csv};

use super::site_file::{Opened, bytes};
use super::{Outcome, complain};
use crate::args::{RunsFormat, SiteRuns};

/// Days that are expanded at most: ten years.
const MOST_DAYS: i64 = 3660;

/// `start,stop,controller,program,station,cycle,cause`, in order of start; or as iCalendar.
pub(super) fn run(args: &SiteRuns) -> anyhow::Result<Outcome> {
    let days = args.to - args.from;
    if days < TimeDelta::zero() || days > TimeDelta::days(MOST_DAYS) {
        complain(format_args!("--from to --to: 0 to {MOST_DAYS} days, in this order"));
        return Ok(Outcome::Usage);
    }
    let opened = match Opened::read(&bytes(&args.file)?) {
        Ok(opened) => opened,
        Err(error) => {
            complain(format_args!("{}: {error}", args.file.display()));
            return Ok(Outcome::BadData);
        }
    };
    let site = &opened.site;
    let situation = opened.situation(args.from);
    let mut runs: Vec<(&str, &str, Run)> = Vec::new();
    for controller in &site.controllers {
        // What was to end before the first day, and still stands in the file, was not put back.
        let as_it_stands = controller.clone().as_of(args.from);
        let plan = situation.plan(&as_it_stands);
        let found = expand(&as_it_stands, &plan, &site.place.zone, [args.from, args.to], Level::Calendar);
        for run in found.runs {
            let station = controller.station(run.station).map_or("", |s| s.name.as_str());
            runs.push((&controller.name, station, run));
        }
    }
    runs.sort_by_key(|(controller, _, run)| (run.start(), *controller, run.station));
    let named: Vec<NamedRun<'_>> =
        runs.iter().map(|(controller, station, run)| NamedRun { controller, station, run }).collect();
    let text = match args.format {
        RunsFormat::Csv => runs_csv(&named, &site.place.zone),
        // The stamp goes by the days asked for, so that the same question gives the same file.
        RunsFormat::Ics => runs_calendar(&site.place.name, &named, args.from.and_time(NaiveTime::MIN).and_utc()),
    };
    stdout().lock().write_all(text.as_bytes())?;
    Ok(Outcome::Done)
}
