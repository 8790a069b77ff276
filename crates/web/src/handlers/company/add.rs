use actix_web::{HttpRequest, web};
use upland_store::{Role, StoreError};

use super::{company_page, open_link};
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{invalid, page};
use crate::state::App;
use crate::words::Words;

/// Adds a person, who sets a password by the link that is shown. Pressed twice, the person is there once.
pub(crate) async fn add(app: web::Data<App>, request: HttpRequest, user: SignedIn, Posted(mut form): Posted) -> Page {
    let name = form.name("name");
    let email = form.email("email");
    let role = Role::of_word(form.get("role"));
    if role.is_none() {
        form.fail("role", Words.t("field-choice"));
    }
    let (Some(name), Some(email), Some(role)) = (name, email, role) else {
        return invalid(&company_page(&app, &user, form, None).await?);
    };
    // No password has this hash: the person comes in by the link.
    let person = match user.account.add_user(&email, &name, "", role).await {
        Ok(id) => id,
        Err(StoreError::AlreadyThere) => {
            let people = user.account.people(app.clock.now()).await?;
            let same = people.iter().find(|p| p.email == email && p.name == name && p.link_until.is_some());
            let Some(same) = same else {
                form.fail("email", Words.t("company-email-taken"));
                return invalid(&company_page(&app, &user, form, None).await?);
            };
            same.id
        }
        Err(other) => return Err(PageError::from(other)),
    };
    let link = open_link(&app, &user, &request, &form, (person, &name)).await?;
    let mut template = company_page(&app, &user, Form::default(), None).await?;
    template.link = Some(link);
    page(&template)
}
