pub(crate) mod add;
pub(crate) mod leave;
pub(crate) mod link;
pub(crate) mod log;
pub(crate) mod role;
pub(crate) mod show;
pub(crate) mod usual;
pub(crate) mod yard;

use actix_web::HttpRequest;
use chrono::TimeDelta;
use sha2::{Digest, Sha256};
use upland_store::StoreError;
use uuid::Uuid;

use crate::error::{Page, PageError};
use crate::form::{Form, new_key};
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::{go, invalid};
use crate::pages::company::{CompanyTemplate, LinkShown, filled_usual, person_lines, role_choices, usual_fields};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Where the page stands.
const ADDRESS: &str = "/company";

/// How long a link to set a password stays open.
const LINK_DAYS: i64 = 7;

/// The page with a form that may hold errors, and an error beside a person.
async fn company_page(
    app: &App,
    user: &SignedIn,
    mut form: Form,
    error: Option<(Uuid, String)>,
) -> Result<CompanyTemplate, PageError> {
    let now = app.clock.now();
    let people = user.account.people(now).await?;
    if !form.has("keep_log") {
        form.set("keep_log", user.account.keep_log_months().await?.map_or_else(String::new, |m| m.to_string()));
    }
    if !form.has("yard") {
        let yard = user.account.yard().await?;
        form.set("yard", yard.map_or_else(String::new, |[latitude, longitude]| format!("{latitude}, {longitude}")));
    }
    if !form.has("usual_soil") {
        filled_usual(&mut form, user.account.usual_station().await?.as_ref(), user.units);
    }
    if !form.has("role") {
        form.set("role", "technician");
    }
    let mut shell = shell(app, user, View::Today, "company", Words.t("company-title"), ADDRESS);
    shell.stand_apart();
    Ok(CompanyTemplate {
        shell,
        people: person_lines(&people, user.user.id, error, now),
        roles: role_choices(),
        usual: usual_fields(),
        link: None,
        action: new_key(),
        form,
    })
}

/// What became of a change of a person: on to the page, or the page with the reason beside the person.
async fn changed(app: &App, user: &SignedIn, person: Uuid, result: Result<(), StoreError>) -> Page {
    match result {
        Ok(()) => go(ADDRESS),
        Err(StoreError::InUse) => {
            let why = Some((person, Words.t("company-last-lead")));
            invalid(&company_page(app, user, Form::default(), why).await?)
        }
        Err(other) => Err(other.into()),
    }
}

/// Opens a link for a person. Its key follows from the form and the session's secret, so that a button
/// pressed twice gives the same link twice.
async fn open_link(
    app: &App,
    user: &SignedIn,
    request: &HttpRequest,
    form: &Form,
    person: (Uuid, &str),
) -> Result<LinkShown, PageError> {
    let mut hash = Sha256::new();
    for part in ["password link", &user.token, form.get("action"), &person.0.to_string()] {
        hash.update(part.len().to_be_bytes());
        hash.update(part);
    }
    let key: String = hash.finalize().iter().map(|byte| format!("{byte:02x}")).collect();
    user.account.open_link(person.0, &key, app.clock.now() + TimeDelta::days(LINK_DAYS)).await?;
    let connection = request.connection_info();
    let address = format!("{}://{}/password/{key}", connection.scheme(), connection.host());
    Ok(LinkShown { name: person.1.to_owned(), address })
}
