pub(crate) mod save;
pub(crate) mod show;

use uuid::Uuid;

fn address(controller: Uuid, number: u8) -> String {
    format!("/controllers/{controller}/stations/{number}/feel")
}
