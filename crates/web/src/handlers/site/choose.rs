use actix_web::web;

use crate::error::{Page, PageError};
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::{invalid, page};
use crate::pages::shell::View;
use crate::pages::site::SiteImportTemplate;
use crate::pages::waiting::waiting_files;
use crate::state::App;
use crate::words::Words;

/// The page that takes a site file.
pub(crate) async fn choose(app: web::Data<App>, user: SignedIn) -> Page {
    page(&import_page(&app, &user, String::new()).await?)
}

/// The page with what is wrong with a file.
pub(super) async fn refused(app: &App, user: &SignedIn, error: String) -> Page {
    invalid(&import_page(app, user, error).await?)
}

async fn import_page(app: &App, user: &SignedIn, error: String) -> Result<SiteImportTemplate, PageError> {
    let shell = shell(app, user, View::Places, "form", Words.t("site-import-title"), "/places/import");
    let waiting = user.account.waiting_uploads(None).await?;
    Ok(SiteImportTemplate { shell, error, waiting: waiting_files(&waiting, "/places/import", app.clock.now()) })
}
