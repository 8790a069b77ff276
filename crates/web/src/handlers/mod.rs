//! One folder a noun, one file a verb.

pub(crate) mod account;
pub(crate) mod ahead;
pub(crate) mod company;
pub(crate) mod conflicts;
pub(crate) mod controllers;
pub(crate) mod dial;
pub(crate) mod door_card;
pub(crate) mod feel;
pub(crate) mod found;
pub(crate) mod frame;
pub(crate) mod health;
pub(crate) mod later;
pub(crate) mod log;
pub(crate) mod measure;
pub(crate) mod places;
pub(crate) mod reference;
pub(crate) mod replay;
pub(crate) mod round;
pub(crate) mod rules;
pub(crate) mod saving;
pub(crate) mod sensors;
pub(crate) mod set_password;
pub(crate) mod sign_in;
pub(crate) mod site;
pub(crate) mod stations;
pub(crate) mod strips;
pub(crate) mod temporary;
pub(crate) mod today;
pub(crate) mod undo;
pub(crate) mod units;
mod uploaded_file;
pub(crate) mod ways;
pub(crate) mod weather;
pub(crate) mod week;
pub(crate) mod why;
pub(crate) mod year;

use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, LOCATION};
use actix_web::{HttpRequest, HttpResponse};
use askama::Template;
use chrono_tz::Tz;
use upland_core::controller::Station;

use crate::context::{ControllerContext, ControllerHead};
use crate::error::{Page, PageError};

/// The station of an address. What is no number is no station: who may not ask learns nothing from it.
fn station_of(context: &ControllerContext, number: &str) -> Result<Station, PageError> {
    let number = number.parse::<u8>().ok();
    number.and_then(|n| context.controller().station(n)).cloned().ok_or(PageError::NotFound)
}

/// The zones of some controllers, each once.
fn zones(heads: &[ControllerHead]) -> Vec<Tz> {
    let mut names: Vec<&str> = heads.iter().map(|head| head.time_zone.as_str()).collect();
    names.sort_unstable();
    names.dedup();
    names.into_iter().filter_map(|name| name.parse().ok()).collect()
}

/// A rendered page. Pages are private to their user and never kept by a cache.
pub(crate) fn page(template: &impl Template) -> Page {
    answered(HttpResponse::Ok(), template)
}

/// A form shown again because of an error in it.
pub(crate) fn invalid(template: &impl Template) -> Page {
    answered(HttpResponse::UnprocessableEntity(), template)
}

/// A change that was made on an old version: both sides are shown.
pub(crate) fn conflict(template: &impl Template) -> Page {
    answered(HttpResponse::Conflict(), template)
}

fn answered(mut response: actix_web::HttpResponseBuilder, template: &impl Template) -> Page {
    let body = template.render()?;
    Ok(response.content_type("text/html; charset=utf-8").insert_header((CACHE_CONTROL, "no-store")).body(body))
}

/// A file to be kept by the browser, made anew each time.
pub(crate) fn attachment(content_type: &str, name: &str, body: String) -> Page {
    Ok(HttpResponse::Ok()
        .content_type(content_type)
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")))
        .body(body))
}

/// Sends the browser to an address of ours after a change.
pub(crate) fn go(to: &str) -> Page {
    Ok(HttpResponse::SeeOther().insert_header((LOCATION, own_address(to))).finish())
}

/// Leads to what was made: a browser goes there; a script that asked for the least (RFC 7240, 4.2) learns the address.
pub(crate) fn made(request: &HttpRequest, to: &str) -> Page {
    let least = request.headers().get("prefer").is_some_and(|value| value == "return=minimal");
    if least { Ok(HttpResponse::Created().insert_header((LOCATION, own_address(to))).finish()) } else { go(to) }
}

/// An address within the application; anything else becomes the first page.
pub(crate) fn own_address(to: &str) -> &str {
    let inside =
        to.starts_with('/') && !to.starts_with("//") && !to.contains('\\') && !to.chars().any(char::is_control);
    if inside { to } else { "/" }
}

#[cfg(test)]
mod tests {
    #[test]
    fn only_our_own_addresses_are_gone_to() {
        assert_eq!(super::own_address("/places?x=1"), "/places?x=1");
        for foreign in ["https://example.com", "//example.com", "/\\example.com", "javascript:alert(1)", "/a\nb", ""] {
            assert_eq!(super::own_address(foreign), "/");
        }
    }
}
