pub(crate) mod save;
pub(crate) mod show;

use upland_core::controller::Station;
use uuid::Uuid;

use crate::context::ControllerContext;
use crate::error::PageError;

fn address(controller: Uuid, number: u8) -> String {
    format!("/controllers/{controller}/stations/{number}/feel")
}

/// The station of an address. What is no number is no station: who may not ask learns nothing from it.
fn station(context: &ControllerContext, number: &str) -> Result<Station, PageError> {
    let number = number.parse::<u8>().ok();
    number.and_then(|n| context.controller().station(n)).cloned().ok_or(PageError::NotFound)
}
