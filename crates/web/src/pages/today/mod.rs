//! Today: an almanac page for the date, and the percent each controller should stand at.

mod head;
mod round;
mod rows;
mod todos;

pub(crate) use head::{NormalNow, RecentDays, normal_now};
pub(crate) use round::{RoundPlan, nearest_first, round};
pub(crate) use rows::{DialGroup, OnRecord, dial_rows, to_set};
pub(crate) use todos::todos;

use super::finder::{Finder, address};
use super::first_steps::FirstStep;
use super::job_list::{JobKind, PlaceJobs, PutOff, Todo};
use super::places::PlaceRow;
use super::shell::Shell;
use crate::charts::DayArc;
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "today.html")]
pub(crate) struct TodayTemplate {
    pub(crate) shell: Shell,
    pub(crate) day: String,
    pub(crate) weekday: String,
    pub(crate) month_year: String,
    pub(crate) of_year: String,
    pub(crate) arc: Option<DayArc>,
    pub(crate) recent: Option<RecentDays>,
    pub(crate) normal: Option<NormalNow>,
    pub(crate) groups: Vec<DialGroup>,
    /// What is to be set, in words.
    pub(crate) to_set: String,
    pub(crate) has_soil: bool,
    pub(crate) first: Vec<FirstStep>,
    pub(crate) month: String,
    pub(crate) scale: String,
    pub(crate) todo: Vec<PlaceJobs>,
    pub(crate) todo_count: usize,
    pub(crate) round: Option<RoundPlan>,
    /// Whether the company has not said where its rounds begin.
    pub(crate) no_yard: bool,
    pub(crate) put_off: PutOff,
    pub(crate) kinds: Vec<KindLink>,
    pub(crate) jobs: Finder,
    pub(crate) finder: Finder,
    pub(crate) places: Vec<PlaceRow>,
    pub(crate) place_count: usize,
}

/// A filter of Today's list: how many there are of a kind.
#[derive(Debug, Clone)]
pub(crate) struct KindLink {
    pub(crate) href: String,
    pub(crate) label: String,
    pub(crate) count: usize,
    pub(crate) current: bool,
}

/// The kinds that there are, each with its count; none when there is only one.
pub(crate) fn kind_links(todos: &[&Todo], current: Option<JobKind>, text: &str) -> Vec<KindLink> {
    let link = |kind: Option<JobKind>| KindLink {
        href: address("/", [("q", text), ("kind", kind.map_or("", JobKind::word))]),
        label: Words.t(match kind {
            None => "job-all",
            Some(JobKind::Clock) => "job-clock",
            Some(JobKind::Ended) => "job-ended",
            Some(JobKind::Fault) => "job-fault",
            Some(JobKind::Dial) => "job-dial",
            Some(JobKind::Soon) => "job-soon",
            Some(JobKind::ByHand) => "job-by-hand",
            Some(JobKind::LookAgain) => "job-look-again",
            Some(JobKind::Sensor) => "job-sensor",
            Some(JobKind::Missing) => "job-missing",
        }),
        count: todos.iter().filter(|t| kind.is_none_or(|k| t.kind == k)).count(),
        current: kind == current,
    };
    let kinds: Vec<KindLink> = JobKind::ALL.into_iter().map(|k| link(Some(k))).filter(|l| l.count > 0).collect();
    if kinds.len() < 2 { Vec::new() } else { std::iter::once(link(None)).chain(kinds).collect() }
}
