use actix_web::web;
use upland_store::Snooze;

use super::{controller_of, job_of, later_page};
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{go, invalid};
use crate::jobs::Jobs;
use crate::pages::later::read;
use crate::state::App;

/// Puts a job off until a day, with a reason. Pressed twice, it is put off once.
pub(crate) async fn save(app: web::Data<App>, jobs: web::Data<Jobs>, user: SignedIn, Posted(mut form): Posted) -> Page {
    let (job, today) = job_of(&app, &jobs, &user, &form).await?;
    let Some((until, reason)) = read(&mut form, today) else {
        return invalid(&later_page(&app, &user, &job, form));
    };
    let snooze = Snooze {
        controller_id: controller_of(&form)?,
        job: job.key,
        until,
        reason,
        user_id: user.user.id,
        user_name: user.user.name.clone(),
        at: app.clock.now(),
    };
    user.account.snooze(&snooze).await?;
    go("/")
}
