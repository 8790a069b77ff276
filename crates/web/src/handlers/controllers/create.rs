use actix_web::web;
use upland_core::controller::{Controller, Preset};
use upland_store::{ControllerRecord, Record, Write};
use uuid::Uuid;

use super::new_page;
use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::saving::action;
use crate::handlers::{go, invalid};
use crate::pages::controller_form::read;
use crate::state::App;

/// Makes a controller; the next step is its stations.
pub(crate) async fn create(
    app: web::Data<App>,
    user: SignedIn,
    place: web::Path<Uuid>,
    Posted(mut form): Posted,
) -> Page {
    let place = user.account.place(*place).await?;
    let fresh = Controller::new(String::new(), Preset::Plain.capability());
    let Some(controller) = read(&mut form, &fresh) else {
        return invalid(&new_page(&app, &user, &place, Preset::Monthly, form).await?);
    };
    let id = Uuid::new_v4();
    let record = ControllerRecord { place_id: place.id, controller };
    let writes = vec![Write::new(id, Record::Controller(Some(record)))];
    let to = format!("/controllers/{id}/stations");
    let action = action(&app, &user, &form, ["why-controller-new", &to], writes);
    go(&user.account.apply(&action).await?)
}
