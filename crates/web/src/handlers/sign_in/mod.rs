pub(crate) mod out;
pub(crate) mod show;
pub(crate) mod submit;

use askama::Template;

use crate::assets::stylesheet;
use crate::form::Form;
use crate::words::Words;

#[derive(Template)]
#[template(path = "sign_in.html")]
struct SignInTemplate {
    w: Words,
    css: String,
    token: String,
    form: Form,
}

fn template(token: String, form: Form) -> SignInTemplate {
    SignInTemplate { w: Words, css: stylesheet(), token, form }
}
