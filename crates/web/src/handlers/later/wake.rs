use super::controller_of;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;

/// Brings a job back that was put off; one that is back already stays so.
pub(crate) async fn wake(user: SignedIn, Posted(form): Posted) -> Page {
    user.account.wake(controller_of(&form)?, form.get("job")).await?;
    go("/?kind=snoozed")
}
