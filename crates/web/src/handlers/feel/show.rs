use actix_web::web;
use uuid::Uuid;

use super::address;
use crate::error::Page;
use crate::form::new_key;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::{page, station_of};
use crate::loading;
use crate::pages::feel::{FeelTemplate, alike, rows, rubs};
use crate::pages::spine::Step;
use crate::state::App;

/// The feel test of a station's soil: two looks at a handful, fifteen answers.
pub(crate) async fn show(app: web::Data<App>, user: SignedIn, path: web::Path<(Uuid, String)>) -> Page {
    let (id, number) = path.into_inner();
    let context = loading::controller(&user.account, app.clock, id).await?;
    let station = station_of(&context, &number)?;
    let href = address(id, station.number);
    let frame = frame(&app, &user, &context, Step::Stations, ["feel", "feel-title"], &href).await?;
    page(&FeelTemplate {
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        action: new_key(),
        version: context.controller.version,
        station: format!("{} {}", station.number, station.name),
        rubs: rubs(),
        rows: rows(&station, user.units),
        alike: alike(context.controller(), station.number),
        back: format!("/controllers/{id}/stations?station={}", station.number),
        href,
    })
}
