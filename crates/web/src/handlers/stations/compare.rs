use actix_web::web;
use uuid::Uuid;

use crate::error::Page;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::frame;
use crate::handlers::page;
use crate::loading;
use crate::pages::spine::Step;
use crate::pages::working::{CompareTemplate, CompareView, MOST};
use crate::state::App;
use crate::words::Words;

/// Stations that stand there before anybody chose some.
const AT_FIRST: usize = 3;

/// Stations side by side; the address says which, `?n=1&n=3`.
pub(crate) async fn show(
    app: web::Data<App>,
    user: SignedIn,
    id: web::Path<Uuid>,
    query: web::Query<Vec<(String, String)>>,
) -> Page {
    let context = loading::controller(&user.account, app.clock, *id).await?;
    let back = format!("/controllers/{id}/stations");
    let path = format!("{back}/compare");
    let frame = frame(&app, &user, &context, Step::Stations, ["compare", "compare-title"], &path).await?;
    let c = context.controller();
    let asked = query.iter().filter(|(name, _)| name == "n").filter_map(|(_, n)| n.parse().ok());
    let mut numbers: Vec<u8> = asked.filter(|n| c.station(*n).is_some()).collect();
    numbers.sort_unstable();
    numbers.dedup();
    if numbers.is_empty() {
        numbers = c.stations.iter().map(|s| s.number).take(AT_FIRST).collect();
    }
    page(&CompareTemplate {
        choices: c.stations.iter().map(|s| (s.number, s.name.clone(), numbers.contains(&s.number))).collect(),
        view: context.budget().ok().and_then(|budget| CompareView::of(&numbers, c, budget, user.units)),
        shell: frame.shell,
        spine: frame.spine,
        strip: frame.strip,
        pick: Words.t1("compare-pick", MOST.to_string()),
        path,
        back,
    })
}
