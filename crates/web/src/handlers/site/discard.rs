use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;

/// Drops an uploaded site file that nobody wants to import.
pub(crate) async fn discard(user: SignedIn, file: web::Path<Uuid>, Posted(_): Posted) -> Page {
    user.account.forget_upload(*file).await?;
    go("/places/import")
}
