use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;

/// Drops an uploaded file that nobody wants to import.
pub(crate) async fn discard(user: SignedIn, path: web::Path<(Uuid, Uuid)>, Posted(_): Posted) -> Page {
    let (place, file) = path.into_inner();
    user.account.forget_upload(file).await?;
    go(&format!("/places/{place}/weather"))
}
