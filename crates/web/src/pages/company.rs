//! The company: its people, what they may do, and how long its log is kept.

use chrono::{DateTime, Utc};
use upland_core::controller::Station;
use upland_core::field::{Field, Fields};
use uuid::Uuid;

use super::Choice;
use super::shell::Shell;
use crate::context::{Person, Role};
use crate::form::Form;
use crate::pages::field_form::{label_key, options, read, shown};
use crate::pages::stations::plain_station;
use crate::show::{Units, date_short};
use crate::words::Words;

#[derive(askama::Template)]
#[template(path = "company.html")]
pub(crate) struct CompanyTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) people: Vec<PersonLine>,
    pub(crate) roles: Vec<Choice>,
    /// What can be usual at new stations: name of the field in the form, its words, what can be chosen.
    pub(crate) usual: Vec<(String, String, Vec<Choice>)>,
    /// A link that was opened a moment ago: it is shown once.
    pub(crate) link: Option<LinkShown>,
    /// Key of the next action, so that pressing twice does it once.
    pub(crate) action: String,
}

/// The fields of a station that are mostly the same around a company.
const USUAL: [&str; 5] = ["plant", "sprinkler", "soil", "slope", "exposure"];

fn usual() -> impl Iterator<Item = (String, &'static Field<Station>)> {
    let known = |name: &str| Station::FIELDS.iter().find(|f| f.name == name).map(|f| (format!("usual_{name}"), f));
    USUAL.into_iter().filter_map(known)
}

/// The fields as a form shows them.
pub(crate) fn usual_fields() -> Vec<(String, String, Vec<Choice>)> {
    usual().map(|(name, field)| (name, Words.t(&label_key(field)), options(field))).collect()
}

fn plain() -> Station {
    Station { name: "usual".into(), ..plain_station(1) }
}

/// The form of what is usual; where nobody said, of what the tool takes a station for.
pub(crate) fn filled_usual(form: &mut Form, station: Option<&Station>, units: Units) {
    let plain = plain();
    for (name, field) in usual() {
        form.set(&name, shown(field, station.unwrap_or(&plain), units));
    }
}

/// Reads what is usual; nothing where a field makes no sense, which then says so.
pub(crate) fn read_usual(form: &mut Form, units: Units) -> Option<Station> {
    let mut station = plain();
    for (name, field) in usual() {
        read(form, &name, field, &mut station, units);
    }
    form.is_sound().then_some(station)
}

/// A link to be handed to a person.
#[derive(Debug, Clone)]
pub(crate) struct LinkShown {
    pub(crate) name: String,
    pub(crate) address: String,
}

/// A person in the list.
#[derive(Debug, Clone)]
pub(crate) struct PersonLine {
    pub(crate) id: String,
    pub(crate) name: String,
    pub(crate) email: String,
    pub(crate) role: &'static str,
    pub(crate) seen: String,
    /// The user of the page.
    pub(crate) is_me: bool,
    /// An error beside the person: of what was asked about them.
    pub(crate) error: String,
}

/// What a role is called.
pub(crate) fn role_words(role: Role) -> String {
    Words.t(match role {
        Role::Lead => "role-lead",
        Role::Technician => "role-technician",
        Role::Reader => "role-reader",
    })
}

/// The roles to choose from.
pub(crate) fn role_choices() -> Vec<Choice> {
    Role::ALL.map(|role| Choice { value: role.word().to_owned(), label: role_words(role) }).to_vec()
}

/// The people, with the error of one of them.
pub(crate) fn person_lines(
    people: &[Person],
    me: Uuid,
    error: Option<(Uuid, String)>,
    now: DateTime<Utc>,
) -> Vec<PersonLine> {
    let w = Words;
    people
        .iter()
        .map(|p| PersonLine {
            id: p.id.to_string(),
            name: p.name.clone(),
            email: p.email.clone(),
            role: p.role.word(),
            seen: match (p.used_at, p.link_until) {
                (Some(at), _) if at.date_naive() == now.date_naive() => w.t("company-seen-today"),
                (Some(at), _) => w.t1("company-seen", date_short(at.date_naive())),
                (None, Some(until)) => w.t1("company-link-until", date_short(until.date_naive())),
                (None, None) => w.t("company-not-signed-in"),
            },
            is_me: p.id == me,
            error: error.as_ref().filter(|(id, _)| *id == p.id).map_or_else(String::new, |(_, e)| e.clone()),
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use chrono::TimeDelta;

    use super::*;

    #[test]
    fn a_person_is_seen_by_session_or_by_link() {
        let now = DateTime::from_timestamp(1_780_000_000, 0).unwrap();
        let person = |used_at, link_until| Person {
            id: Uuid::nil(),
            name: "Oda".into(),
            email: "oda@example.com".into(),
            role: Role::Lead,
            used_at,
            link_until,
        };
        let people = [
            person(Some(now), None),
            person(Some(now - TimeDelta::days(3)), Some(now)),
            person(None, Some(now + TimeDelta::days(3))),
            person(None, None),
        ];
        let seen: Vec<String> =
            person_lines(&people, Uuid::nil(), None, now).into_iter().map(|line| line.seen).collect();
        assert_eq!(
            seen,
            ["Signed in today", "Last used 25 May", "Link to set a password open until 31 May", "No session open"]
        );
    }
}
