use actix_session::Session;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::handlers::go;

/// Signs out: the session ends here and in the database.
pub(crate) async fn out(session: Session, _form: Posted) -> Page {
    session.purge();
    go("/sign-in")
}
