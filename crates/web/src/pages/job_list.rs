//! Today's jobs by place, and those that were put off.

use chrono::NaiveDate;

use crate::context::{ControllerHead, Snooze};
use crate::show::date_short;
use crate::words::Words;

/// What kind of thing is to be done; the order is that of Today's list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum JobKind {
    /// The clocks change.
    Clock,
    /// A temporary setting is over.
    Ended,
    /// Something stops the water, or protects nothing.
    Fault,
    /// Values differ from those on the panel.
    Dial,
    /// A percent changes within a week, and not by itself.
    Soon,
    /// Somebody starts the runs of this week by hand.
    ByHand,
    /// It is time to look at the ground.
    LookAgain,
    /// A battery, or a sensor that was never seen to work.
    Sensor,
    /// Something is missing before there is a schedule.
    Missing,
}

impl JobKind {
    pub(crate) const ALL: [Self; 9] = [
        Self::Clock,
        Self::Ended,
        Self::Fault,
        Self::Dial,
        Self::Soon,
        Self::ByHand,
        Self::LookAgain,
        Self::Sensor,
        Self::Missing,
    ];

    /// Minutes that it usually takes at the panel, walking to it left out; 0 for what is done from the desk. Ours.
    pub(crate) const fn minutes(self) -> u32 {
        match self {
            Self::Clock | Self::Soon | Self::Missing => 0,
            Self::Ended => 4,
            Self::Dial => 5,
            Self::Sensor => 6,
            Self::Fault => 9,
            Self::LookAgain | Self::ByHand => 20,
        }
    }

    /// The word of its filter.
    pub(crate) const fn word(self) -> &'static str {
        match self {
            Self::Clock => "clock",
            Self::Ended => "ended",
            Self::Fault => "fault",
            Self::Dial => "dial",
            Self::Soon => "soon",
            Self::ByHand => "by-hand",
            Self::LookAgain => "look-again",
            Self::Sensor => "sensor",
            Self::Missing => "missing",
        }
    }

    pub(crate) fn of_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.word() == word)
    }
}

/// The next sensible step of a controller, with its reason.
#[derive(Debug, Clone)]
pub(crate) struct Todo {
    pub(crate) kind: JobKind,
    /// Names it among the jobs of its controller, so that it can be put off; empty for what cannot be.
    pub(crate) key: String,
    pub(crate) mark: &'static str,
    pub(crate) title: String,
    pub(crate) reason: String,
    pub(crate) href: String,
    pub(crate) act: String,
}

/// A job with its controller, and until when it was put off.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Job<'a> {
    /// The controller; none for what is due everywhere.
    pub(crate) head: Option<&'a ControllerHead>,
    pub(crate) todo: &'a Todo,
    pub(crate) snooze: Option<&'a Snooze>,
}

impl<'a> Job<'a> {
    /// A job of a controller on a day. What was put off until that day is there again.
    pub(crate) fn of(head: &'a ControllerHead, todo: &'a Todo, snoozes: &'a [Snooze], today: NaiveDate) -> Self {
        let own = |s: &&Snooze| s.controller_id == head.id && s.job == todo.key && s.until > today;
        Self { head: Some(head), todo, snooze: snoozes.iter().find(own) }
    }
}

/// The jobs at one place.
#[derive(Debug, Clone)]
pub(crate) struct PlaceJobs {
    pub(crate) place: String,
    pub(crate) href: String,
    pub(crate) jobs: Vec<JobRow>,
    /// Where it lies, degrees; nowhere for what is due everywhere.
    pub(crate) position_deg: Option<[f64; 2]>,
    /// Minutes of work on the spot.
    pub(crate) minutes: u32,
    /// Its number on the round; nothing for what is done from the desk.
    pub(crate) stop: Option<usize>,
    /// The way to it and the work there, in words.
    pub(crate) way: String,
}

#[derive(Debug, Clone)]
pub(crate) struct JobRow {
    pub(crate) todo: Todo,
    /// Where it is put off; empty for what cannot be.
    pub(crate) later: String,
    /// The controller and the key, for bringing it back.
    pub(crate) controller: String,
    /// Until when it was put off, why and by whom; empty for the others.
    pub(crate) put_off: String,
}

/// How many jobs were put off, and where they are listed.
#[derive(Debug, Clone, Default)]
pub(crate) struct PutOff {
    pub(crate) count: usize,
    /// Whether they are the ones that are listed.
    pub(crate) shown: bool,
}

/// The address at which a job is put off.
fn later(head: &ControllerHead, todo: &Todo) -> String {
    if todo.key.is_empty() { String::new() } else { format!("/jobs/later?controller={}&job={}", head.id, todo.key) }
}

/// Jobs in their order, those of a place together.
pub(crate) fn by_place(jobs: &[Job<'_>]) -> Vec<PlaceJobs> {
    let w = Words;
    let mut out: Vec<PlaceJobs> = Vec::new();
    for job in jobs {
        let (place, href) = match job.head {
            Some(head) => (head.place.clone(), format!("/places/{}", head.place_id)),
            None => (w.t("jobs-everywhere"), String::new()),
        };
        let row = JobRow {
            todo: job.todo.clone(),
            later: job.head.map_or_else(String::new, |head| later(head, job.todo)),
            controller: job.head.map_or_else(String::new, |head| head.id.to_string()),
            put_off: job.snooze.map_or_else(String::new, |s| {
                w.with("jobs-put-off", &[("until", &date_short(s.until)), ("reason", &s.reason), ("who", &s.user_name)])
            }),
        };
        match out.last_mut().filter(|group| group.href == href && group.place == place) {
            Some(group) => {
                group.minutes += row.todo.kind.minutes();
                group.jobs.push(row);
            }
            None => out.push(PlaceJobs {
                place,
                href,
                position_deg: job.head.map(|head| head.position_deg),
                minutes: row.todo.kind.minutes(),
                jobs: vec![row],
                stop: None,
                way: String::new(),
            }),
        }
    }
    out
}
