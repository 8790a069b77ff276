use actix_web::{HttpRequest, web};
use uuid::Uuid;

use super::{company_page, open_link};
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::page;
use crate::state::App;

/// Opens a link by which a person sets a new password. The old password stays until then.
pub(crate) async fn open(
    app: web::Data<App>,
    request: HttpRequest,
    user: SignedIn,
    person: web::Path<Uuid>,
    Posted(form): Posted,
) -> Page {
    let people = user.account.people(app.clock.now()).await?;
    let named = people.iter().find(|p| p.id == *person).ok_or(PageError::NotFound)?;
    let link = open_link(&app, &user, &request, &form, (named.id, &named.name)).await?;
    let mut template = company_page(&app, &user, Form::default(), None).await?;
    template.link = Some(link);
    page(&template)
}
