use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::{page, station_of};
use crate::loading;
use crate::pages::measure::{MeasureLive, MeasureLiveTemplate};
use crate::state::App;
use crate::words::Words;

/// What follows from what is typed so far. Nothing is saved.
pub(crate) async fn preview(
    app: web::Data<App>,
    user: SignedIn,
    path: web::Path<(Uuid, String)>,
    Posted(mut form): Posted,
) -> Page {
    let (id, number) = path.into_inner();
    let context = loading::controller(&user.account, app.clock, id).await?;
    let station = station_of(&context, &number)?;
    page(&MeasureLiveTemplate { w: Words, live: MeasureLive::of(&context, &station, &mut form, user.units) })
}
