//! What comes within a year: as a page, and as a calendar.

use std::sync::Arc;

use actix_web::web;
use upland_formats::site::dates_calendar;
use upland_store::HeadFilter;

use crate::context::ControllerHead;
use crate::error::{Page, PageError};
use crate::form::Form;
use crate::guard::query::Query;
use crate::guard::signed_in::SignedIn;
use crate::handlers::frame::shell;
use crate::handlers::{attachment, page, zones};
use crate::jobs::Jobs;
use crate::pages::ahead::{AheadTemplate, Coming, Dated, by_month, clock_changes};
use crate::pages::finder::{Finder, Search, address};
use crate::pages::shell::View;
use crate::state::App;
use crate::words::Words;

/// Dates on a page.
const SIZE: usize = 60;

/// What comes at the controllers that are searched for.
struct Loaded {
    asked: Search,
    heads: Vec<ControllerHead>,
    own: Vec<Arc<[Dated]>>,
    everywhere: Vec<Dated>,
}

impl Loaded {
    async fn of(app: &App, jobs: &Jobs, user: &SignedIn, query: &Form) -> Result<Self, PageError> {
        let asked = Search::of(query, "page");
        let filter = HeadFilter { text: asked.text.clone(), ..HeadFilter::default() };
        let heads = user.account.heads(&filter).await?.items;
        let own = jobs.ahead(&user.account, app.clock, &heads).await?;
        let zones = zones(&heads);
        let today = zones.first().map(|zone| app.clock.today(*zone));
        let everywhere = today.map_or_else(Vec::new, |today| clock_changes(&zones, today));
        Ok(Self { asked, heads, own, everywhere })
    }

    /// By date.
    fn coming(&self) -> Vec<Coming<'_>> {
        let own = self.heads.iter().zip(&self.own);
        let own = own.flat_map(|(head, dated)| dated.iter().map(|dated| Coming { head: Some(head), dated }));
        let mut all: Vec<Coming<'_>> =
            self.everywhere.iter().map(|dated| Coming { head: None, dated }).chain(own).collect();
        all.sort_by_key(|coming| coming.dated.on);
        all
    }
}

pub(crate) async fn show(app: web::Data<App>, jobs: web::Data<Jobs>, user: SignedIn, Query(query): Query) -> Page {
    let loaded = Loaded::of(&app, &jobs, &user, &query).await?;
    let (asked, coming) = (&loaded.asked, loaded.coming());
    let shown: Vec<Coming<'_>> = coming.iter().skip((asked.page - 1) * SIZE).take(SIZE).copied().collect();
    page(&AheadTemplate {
        shell: shell(&app, &user, View::Today, "ahead", Words.t("ahead-title"), "/ahead"),
        months: by_month(&shown),
        finder: Finder::of("/ahead", asked, [coming.len(), SIZE], "page", &[]),
        calendar_href: address("/ahead.ics", [("q", asked.text.as_str())]),
        count: coming.len(),
    })
}

/// The same as iCalendar.
pub(crate) async fn calendar(app: web::Data<App>, jobs: web::Data<Jobs>, user: SignedIn, Query(query): Query) -> Page {
    let loaded = Loaded::of(&app, &jobs, &user, &query).await?;
    let events: Vec<_> = loaded.coming().iter().map(Coming::event).collect();
    let text = dates_calendar(&user.user.account_name, &events, app.clock.now());
    attachment("text/calendar; charset=utf-8", "ahead.ics", text)
}
