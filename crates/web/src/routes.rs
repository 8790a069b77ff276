//! The whole URL map: every address once, with whom it is for.

use actix_session::SessionMiddleware;
use actix_web::middleware::from_fn;
use actix_web::web::{self, ServiceConfig, get, post, resource, scope};
use actix_web::{Handler, Responder, Route};

use crate::assets;
use crate::error::PageError;
use crate::guard::access::Access;
use crate::guard::once::once;
use crate::guard::pairs::FORM_BYTES;
use crate::guard::sessions::DatabaseSessions;
use crate::handlers::{
    account, ahead, company, controllers, dial, door_card, feel, found, health, later, log, measure, places, reference,
    replay, round, rules, sensors, set_password, sign_in, site, stations, temporary, today, undo, units, ways, weather,
    week, why, year,
};

/// An address, what it answers, and whom it is for.
struct Address {
    path: &'static str,
    access: Access,
    page: Option<Route>,
    form: Option<Route>,
}

impl Address {
    const fn new(path: &'static str, access: Access) -> Self {
        Self { path, access, page: None, form: None }
    }

    /// What is shown when it is opened.
    fn page<F, Args>(mut self, handler: F) -> Self
    where
        F: Handler<Args>,
        Args: actix_web::FromRequest + 'static,
        F::Output: Responder + 'static,
    {
        self.page = Some(get().to(handler));
        self
    }

    /// What is done with a form that is sent there.
    fn form<F, Args>(mut self, handler: F) -> Self
    where
        F: Handler<Args>,
        Args: actix_web::FromRequest + 'static,
        F::Output: Responder + 'static,
    {
        self.form = Some(post().to(handler));
        self
    }

    fn register(self, config: &mut ServiceConfig) {
        let mut resource = resource(self.path).app_data(self.access);
        if let Some(form) = self.form {
            resource = resource.route(form);
        }
        // An address that only takes a form; opened in a browser, it leads to the page it belongs to.
        let page = self.page.unwrap_or_else(|| get().to(health::page_of_form));
        config.service(resource.route(page));
    }
}

/// What is at an address, for the tests that try them all.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct RouteFacts {
    /// The address, with names in braces for its keys.
    pub path: &'static str,
    /// Whether a page is shown there.
    pub has_page: bool,
    /// Whether it takes a form.
    pub takes_form: bool,
    /// Whom it is for.
    pub access: Access,
}

/// Every address of the application but its assets and `/healthz` and `/readyz`.
#[must_use]
pub fn route_facts() -> Vec<RouteFacts> {
    addresses()
        .map(|a| RouteFacts {
            path: a.path,
            has_page: a.page.is_some(),
            takes_form: a.form.is_some(),
            access: a.access,
        })
        .collect()
}

pub(crate) fn configure(config: &mut ServiceConfig, sessions: SessionMiddleware<DatabaseSessions>) {
    config
        .route("/healthz", get().to(health::healthz))
        .route("/readyz", get().to(health::readyz))
        .route("/assets/{hash}/{name}", get().to(assets::serve))
        .service(
            scope("")
                .wrap(from_fn(once))
                .wrap(sessions)
                .app_data(web::FormConfig::default().limit(FORM_BYTES))
                // An address that is no key is an address of nothing.
                .app_data(web::PathConfig::default().error_handler(|_, _| PageError::NotFound.into()))
                .configure(|config| addresses().for_each(|address| address.register(config)))
                .default_service(web::to(health::not_found)),
        );
}

fn addresses() -> impl Iterator<Item = Address> {
    let lists: [Vec<Address>; 6] =
        [people(), views(), places(), weather_of_a_place(), a_controller(), field_of_a_controller()];
    lists.into_iter().flatten()
}

fn people() -> Vec<Address> {
    use Access::{Anyone, Lead, Own, Work};
    vec![
        Address::new("/sign-in", Anyone).page(sign_in::show::show).form(sign_in::submit::submit),
        Address::new("/password/{key}", Anyone).page(set_password::show).form(set_password::set),
        Address::new("/sign-out", Own).form(sign_in::out::out),
        Address::new("/account", Own).page(account::show::show),
        Address::new("/account/password", Own).form(account::password::change),
        Address::new("/account/sessions", Own).form(account::sessions::end),
        Address::new("/units", Own).form(units::set),
        Address::new("/undo", Work).form(undo::undo),
        Address::new("/company", Lead).page(company::show::show),
        Address::new("/company/people", Lead).form(company::add::add),
        Address::new("/company/people/{person}/role", Lead).form(company::role::set),
        Address::new("/company/people/{person}/link", Lead).form(company::link::open),
        Address::new("/company/people/{person}/leave", Lead).form(company::leave::leave),
        Address::new("/company/log", Lead).form(company::log::keep),
        Address::new("/company/yard", Lead).form(company::yard::set),
        Address::new("/company/usual", Lead).form(company::usual::set),
    ]
}

fn views() -> Vec<Address> {
    use Access::Work;
    vec![
        Address::new("/", Work).page(today::show),
        Address::new("/jobs/later", Work).page(later::show::show).form(later::save::save),
        Address::new("/jobs/back", Work).form(later::wake::wake),
        Address::new("/ahead", Work).page(ahead::show),
        Address::new("/ahead.ics", Work).page(ahead::calendar),
        Address::new("/rounds", Work).page(round::list::list),
        Address::new("/replay", Work).page(replay::list::list),
        Address::new("/reference", Work).page(reference::show),
        Address::new("/reference/parts", Work).page(reference::parts),
        Address::new("/weather", Work).page(weather::list::list),
        Address::new("/weather/{series}", Work).page(weather::series::show),
        Address::new("/weather/{series}/decide", Work).form(weather::decide::decide),
        Address::new("/weather/{series}/station", Work).form(weather::station::update),
        Address::new("/weather/{series}/days.csv", Work).page(weather::export::export),
        Address::new("/weather/{series}/hours", Work).page(weather::hours::show),
        Address::new("/weather/{series}/hours.csv", Work).page(weather::export::export_hours),
    ]
}

fn places() -> Vec<Address> {
    use Access::Work;
    vec![
        Address::new("/places", Work).page(places::list::list).form(places::create::create),
        Address::new("/places/new", Work).page(places::new::new),
        Address::new("/places/import", Work).page(site::choose::choose).form(site::upload::upload),
        Address::new("/places/import/{file}", Work).page(site::preview::preview).form(site::import::import),
        Address::new("/places/import/{file}/discard", Work).form(site::discard::discard),
        Address::new("/places/{place}/replay", Work).page(replay::place::show),
        Address::new("/places/{place}", Work).page(places::edit::edit).form(places::update::update),
        Address::new("/places/{place}/rules", Work).page(rules::edit::edit).form(rules::update::update),
        Address::new("/places/{place}/site.json", Work).page(site::export::export),
        Address::new("/places/{place}/controllers/new", Work).page(controllers::new::new),
        Address::new("/places/{place}/controllers", Work).form(controllers::create::create),
    ]
}

fn weather_of_a_place() -> Vec<Address> {
    use Access::Work;
    vec![
        Address::new("/places/{place}/weather", Work).page(weather::of_place::show).form(weather::choose::choose),
        Address::new("/places/{place}/weather/normals", Work).page(weather::normals::show).form(weather::normals::save),
        Address::new("/places/{place}/weather/files", Work).form(weather::upload::upload),
        Address::new("/places/{place}/weather/files/{file}", Work)
            .page(weather::file::show)
            .form(weather::file::review),
        Address::new("/places/{place}/weather/files/{file}/import", Work).form(weather::import::import),
        Address::new("/places/{place}/weather/files/{file}/discard", Work).form(weather::discard::discard),
    ]
}

/// What a preview answers is changed by nobody: readers may try things out too.
fn a_controller() -> Vec<Address> {
    use Access::{Own, Work};
    vec![
        Address::new("/controllers/{controller}", Work).page(controllers::edit::edit).form(controllers::update::update),
        Address::new("/controllers/{controller}/stations", Work).page(stations::show::show).form(stations::save::save),
        Address::new("/controllers/{controller}/stations/compare", Work).page(stations::compare::show),
        Address::new("/controllers/{controller}/stations/{number}/feel", Work)
            .page(feel::show::show)
            .form(feel::save::save),
        Address::new("/controllers/{controller}/stations/{number}/measure", Work)
            .page(measure::show::show)
            .form(measure::save::save),
        Address::new("/controllers/{controller}/stations/{number}/measure/preview", Own)
            .form(measure::preview::preview),
        Address::new("/controllers/{controller}/stations/preview", Own).form(stations::preview::preview),
        Address::new("/controllers/{controller}/replay", Work).page(replay::show::show),
        Address::new("/controllers/{controller}/replay.csv", Work).page(replay::days::export),
        Address::new("/controllers/{controller}/replay.svg", Work).page(replay::drawing::export),
        Address::new("/controllers/{controller}/replay/preview", Own).form(replay::preview::preview),
        Address::new("/controllers/{controller}/replay/best", Own).form(replay::best::best),
        Address::new("/controllers/{controller}/replay/best/{search}", Own)
            .page(replay::best::show)
            .form(replay::best::cancel),
        Address::new("/controllers/{controller}/replay/apply", Work).form(replay::apply::apply),
        Address::new("/controllers/{controller}/year", Work).page(year::show::show),
        Address::new("/controllers/{controller}/year/preview", Own).form(year::preview::preview),
        Address::new("/controllers/{controller}/year/month", Work).form(year::month::save),
        Address::new("/controllers/{controller}/year/program", Work).form(year::program::save),
        Address::new("/controllers/{controller}/week", Work).page(week::show::show),
        Address::new("/controllers/{controller}/week/preview", Own).form(week::preview::preview),
        Address::new("/controllers/{controller}/ways", Work).page(ways::show::show),
        Address::new("/controllers/{controller}/by-hand", Work).page(ways::card::show),
        Address::new("/controllers/{controller}/week/proposals", Work).page(week::proposals::show),
        Address::new("/controllers/{controller}/week/change", Work).form(week::change::change),
        Address::new("/controllers/{controller}/sensors", Work).page(sensors::show::show).form(sensors::save::save),
        Address::new("/controllers/{controller}/sensors/preview", Own).form(sensors::preview::preview),
        Address::new("/controllers/{controller}/sensors/remove", Work).form(sensors::remove::remove),
        Address::new("/controllers/{controller}/runs.ics", Work).page(site::runs::runs),
        Address::new("/controllers/{controller}/why", Work).page(why::show),
        Address::new("/controllers/{controller}/log", Work).page(log::show),
        Address::new("/controllers/{controller}/log.csv", Work).page(log::export),
    ]
}

fn field_of_a_controller() -> Vec<Address> {
    use Access::{Own, Work};
    vec![
        Address::new("/controllers/{controller}/as-found", Work).page(found::show::show).form(found::save::save),
        Address::new("/controllers/{controller}/as-found/preview", Own).form(found::preview::preview),
        Address::new("/controllers/{controller}/as-found/adopt", Work).form(found::adopt::adopt),
        Address::new("/controllers/{controller}/temporary", Work).page(temporary::show::show).form(temporary::add::add),
        Address::new("/controllers/{controller}/temporary/put-back", Work).form(temporary::put_back::put_back),
        Address::new("/controllers/{controller}/dial-in", Work).page(dial::show::show).form(dial::save::save),
        Address::new("/controllers/{controller}/round", Work).page(round::show::show).form(round::save::save),
        Address::new("/controllers/{controller}/round/preview", Own).form(round::preview::preview),
        Address::new("/controllers/{controller}/door-card", Work).page(door_card::show),
    ]
}
