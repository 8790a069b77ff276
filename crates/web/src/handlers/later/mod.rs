pub(crate) mod save;
pub(crate) mod show;
pub(crate) mod wake;

use chrono::NaiveDate;
use chrono_tz::Tz;
use upland_store::HeadFilter;
use uuid::Uuid;

use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::jobs::Jobs;
use crate::pages::job_list::Todo;
use crate::pages::later::LaterTemplate;
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// The controller that a form is about.
fn controller_of(form: &Form) -> Result<Uuid, PageError> {
    Uuid::parse_str(form.get("controller")).map_err(|_| PageError::NotFound)
}

/// The job that a form is about, and the day at its place; a job that is done meanwhile is not found.
async fn job_of(app: &App, jobs: &Jobs, user: &SignedIn, form: &Form) -> Result<(Todo, NaiveDate), PageError> {
    let controller = user.account.controller(controller_of(form)?).await?;
    let there = HeadFilter { places: Some(vec![controller.value.place_id]), ..HeadFilter::default() };
    let mut heads = user.account.heads(&there).await?.items;
    heads.retain(|head| head.id == controller.id);
    let own = jobs.of(&user.account, app.clock, &heads).await?;
    let found = own.iter().flat_map(|jobs| jobs.iter()).find(|job| !job.key.is_empty() && job.key == form.get("job"));
    let zone = heads.first().and_then(|head| head.time_zone.parse().ok()).unwrap_or(Tz::UTC);
    Ok((found.cloned().ok_or(PageError::NotFound)?, app.clock.today(zone)))
}

fn later_page(app: &App, user: &SignedIn, job: &Todo, form: Form) -> LaterTemplate {
    LaterTemplate {
        shell: shell(app, user, View::Today, "form", Words.t("later-title"), "/"),
        job: job.title.clone(),
        reason_of_job: job.reason.clone(),
        form,
    }
}
