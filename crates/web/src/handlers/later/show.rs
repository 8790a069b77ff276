use actix_web::web;

use super::{job_of, later_page};
use crate::error::Page;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::jobs::Jobs;
use crate::pages::later::fill;
use crate::state::App;

/// The form in which a job is put off. The address names the controller and the job.
pub(crate) async fn show(app: web::Data<App>, jobs: web::Data<Jobs>, user: SignedIn, Query(query): Query) -> Page {
    let mut form = query;
    let (job, today) = job_of(&app, &jobs, &user, &form).await?;
    fill(&mut form, today);
    page(&later_page(&app, &user, &job, form))
}
