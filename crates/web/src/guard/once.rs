//! Pressed twice: the second press of a form finds things as the first one left them, and may stumble over
//! it. It is led to where the first one went.

use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::middleware::Next;
use actix_web::{Error, HttpMessage, web};
use askama::Template;
use upland_store::StoreError;

use super::posted::SentAction;
use crate::assets::stylesheet;
use crate::error::PageError;
use crate::state::App;
use crate::words::Words;

/// What was sent under an action that did something else already: nothing typed is lost, and it can be sent
/// as an action of its own.
#[derive(Template)]
#[template(path = "sent_before.html")]
struct SentBeforeTemplate {
    w: Words,
    css: String,
    post_to: String,
    fields: Vec<(String, String)>,
}

/// Looks again at a change that did not go through: it may have been done already.
pub(crate) async fn once<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, Error> {
    let app = request.app_data::<web::Data<App>>().cloned();
    let answer = next.call(request).await?;
    let sent = answer.request().extensions().get::<SentAction>().cloned();
    let (Some(app), Some(sent), true) = (app, sent, answer.status().is_client_error()) else { return Ok(answer) };
    match app.store.account(sent.account).done_already(sent.id, sent.form.digest()).await {
        Ok(Some(led_to)) => Err(PageError::DoneAlready(led_to).into()),
        Err(StoreError::OtherContent) => {
            let post_to = answer.request().path().to_owned();
            Err(PageError::Rendered(StatusCode::CONFLICT, sent_before(&sent, post_to)?).into())
        }
        Ok(None) | Err(_) => Ok(answer),
    }
}

fn sent_before(sent: &SentAction, post_to: String) -> Result<String, PageError> {
    let fields = sent.form.clone().into_fields_to_send_again();
    Ok(SentBeforeTemplate { w: Words, css: stylesheet(), post_to, fields }.render()?)
}
