use actix_web::web;
use upland_formats::site::{Site, read_site};
use upland_store::Upload;
use uuid::Uuid;

use super::choose::refused;
use crate::error::{Page, PageError};
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::page;
use crate::pages::shell::View;
use crate::pages::site::SitePreviewTemplate;
use crate::state::App;
use crate::words::Words;

/// What a site file would bring.
pub(crate) async fn preview(app: web::Data<App>, user: SignedIn, file: web::Path<Uuid>) -> Page {
    let (name, site) = match sent(&user, *file).await? {
        Ok(found) => found,
        Err(error) => return refused(&app, &user, error).await,
    };
    let path = format!("/places/import/{file}");
    let shell = shell(&app, &user, View::Places, "form", Words.t("site-import-title"), &path);
    let today = app.clock.today(site.place.zone);
    page(&SitePreviewTemplate::of(shell, path, name, &site, today, user.units))
}

/// A file that was sent, read once more; what is wrong with it otherwise.
pub(super) async fn sent(user: &SignedIn, file: Uuid) -> Result<Result<(String, Site), String>, PageError> {
    let Upload { file_name, content, .. } = user.account.upload(file).await?;
    Ok(match read_site(&content) {
        Ok(site) => Ok((file_name, site)),
        Err(error) => Err(Words.t2("site-refused", ("file", &file_name), ("error", error.to_string()))),
    })
}
