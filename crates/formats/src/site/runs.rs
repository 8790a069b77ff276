//! Runs as CSV and as iCalendar.

use chrono::{DateTime, SecondsFormat, TimeZone, Utc};
use icalendar::{Calendar, Component, Event, EventLike};
use upland_core::schedule::Run;

/// A run and the controller that makes it.
#[derive(Debug, Clone, Copy)]
pub struct NamedRun<'a> {
    /// Name of the controller.
    pub controller: &'a str,
    /// Name of the station.
    pub station: &'a str,
    /// The run.
    pub run: &'a Run,
}

fn cause(run: &Run) -> String {
    format!("start {}", run.by)
}

/// `start,stop,controller,program,station,cycle,cause`, RFC 4180, times in RFC 3339 with the
/// zone's offset.
#[must_use]
pub fn runs_csv<Tz: TimeZone>(runs: &[NamedRun<'_>], zone: &Tz) -> String
where
    Tz::Offset: std::fmt::Display,
{
    let local = |at: DateTime<Utc>| at.with_timezone(zone).to_rfc3339_opts(SecondsFormat::Secs, false);
    let mut writer = csv::Writer::from_writer(Vec::new());
    // Writing to memory cannot fail.
    let _ = writer.write_record(["start", "stop", "controller", "program", "station", "cycle", "cause"]);
    for named in runs {
        let run = named.run;
        let _ = writer.write_record([
            &local(run.start()),
            &local(run.stop()),
            named.controller,
            &run.letter.get().to_string(),
            &run.station.to_string(),
            &run.cycle.to_string(),
            &cause(run),
        ]);
    }
    String::from_utf8(writer.into_inner().unwrap_or_default()).unwrap_or_default()
}

/// The same runs as iCalendar (RFC 5545): an event each, its key made of what it is, so that the
/// same run imported twice stays one.
#[must_use]
pub fn runs_calendar(name: &str, runs: &[NamedRun<'_>], made_at: DateTime<Utc>) -> String {
    let mut calendar = Calendar::new();
    calendar.name(name);
    for named in runs {
        let run = named.run;
        let key = format!(
            "{}-{}-{}-{}@upland-almanac",
            run.start().format("%Y%m%dT%H%M%SZ"),
            run.letter.get(),
            run.station,
            named.controller.to_lowercase().replace(|c: char| !c.is_ascii_alphanumeric(), "-"),
        );
        calendar.push(
            Event::new()
                .uid(&key)
                .timestamp(made_at)
                .summary(&format!("{} {} {}", run.letter.get(), run.station, named.station))
                .description(&format!(
                    "{}, program {}, station {}, cycle {} of {}, {}",
                    named.controller,
                    run.letter.get(),
                    run.station,
                    run.cycle,
                    run.of_cycles,
                    cause(run)
                ))
                .starts(run.start())
                .ends(run.stop())
                .done(),
        );
    }
    calendar.to_string()
}
