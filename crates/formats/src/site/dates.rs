use chrono::{DateTime, NaiveDate, Utc};
use icalendar::{Calendar, Component, Event, EventLike};

/// Something that comes on a day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct DatedEvent {
    /// Names it: the same thing exported again has the same key, and is replaced where it was imported before.
    pub key: String,
    /// The day.
    pub on: NaiveDate,
    /// What comes.
    pub summary: String,
    /// Where; empty for everywhere.
    pub location: String,
}

/// What comes as iCalendar (RFC 5545): an event for each, all day long.
#[must_use]
pub fn dates_calendar(name: &str, events: &[DatedEvent], made_at: DateTime<Utc>) -> String {
    let mut calendar = Calendar::new();
    calendar.name(name);
    for event in events {
        let mut own = Event::new();
        own.uid(&format!("{}@upland-almanac", event.key)).timestamp(made_at).summary(&event.summary).all_day(event.on);
        if !event.location.is_empty() {
            own.location(&event.location);
        }
        calendar.push(own.done());
    }
    calendar.to_string()
}
