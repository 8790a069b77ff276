//! The whole URL map.

use actix_session::SessionMiddleware;
use actix_web::web::{self, ServiceConfig, get, post, resource, scope};
use actix_web::{Resource, Route};

use crate::assets;
use crate::error::PageError;
use crate::guard::posted::FORM_BYTES;
use crate::guard::sessions::DatabaseSessions;
use crate::handlers::{
    account, controllers, dial, door_card, found, health, log, places, reference, replay, round, rules, sensors,
    sign_in, site, stations, temporary, today, undo, units, weather, week, why, year,
};

pub(crate) fn configure(config: &mut ServiceConfig, sessions: SessionMiddleware<DatabaseSessions>) {
    config
        .route("/healthz", get().to(health::healthz))
        .route("/readyz", get().to(health::readyz))
        .route("/assets/{hash}/{name}", get().to(assets::serve))
        .service(
            scope("")
                .wrap(sessions)
                .app_data(web::FormConfig::default().limit(FORM_BYTES))
                // An address that is no key is an address of nothing.
                .app_data(web::PathConfig::default().error_handler(|_, _| PageError::NotFound.into()))
                .configure(signing)
                .configure(pages)
                .default_service(web::to(health::not_found)),
        );
}

/// An address that only takes a form; opened in a browser, it leads to the page it belongs to.
fn posted(path: &str, route: Route) -> Resource {
    resource(path).route(route).route(get().to(health::page_of_form))
}

fn signing(config: &mut ServiceConfig) {
    config
        .service(resource("/sign-in").route(get().to(sign_in::show::show)).route(post().to(sign_in::submit::submit)))
        .service(posted("/sign-out", post().to(sign_in::out::out)))
        .route("/account", get().to(account::show::show))
        .service(posted("/account/password", post().to(account::password::change)))
        .service(posted("/account/sessions", post().to(account::sessions::end)))
        .service(posted("/units", post().to(units::set)))
        .service(posted("/undo", post().to(undo::undo)));
}

fn pages(config: &mut ServiceConfig) {
    config
        .route("/", get().to(today::show))
        .route("/rounds", get().to(round::list::list))
        .route("/replay", get().to(replay::list::list))
        .route("/reference", get().to(reference::show))
        .route("/reference/parts", get().to(reference::parts))
        .service(resource("/places").route(get().to(places::list::list)).route(post().to(places::create::create)))
        .route("/places/new", get().to(places::new::new))
        .service(
            resource("/places/import").route(get().to(site::choose::choose)).route(post().to(site::upload::upload)),
        )
        .service(
            resource("/places/import/{file}")
                .route(get().to(site::preview::preview))
                .route(post().to(site::import::import)),
        )
        .service(
            resource("/places/{place}").route(get().to(places::edit::edit)).route(post().to(places::update::update)),
        )
        .service(
            resource("/places/{place}/rules")
                .route(get().to(rules::edit::edit))
                .route(post().to(rules::update::update)),
        )
        .route("/places/{place}/site.json", get().to(site::export::export))
        .route("/places/{place}/controllers/new", get().to(controllers::new::new))
        .service(posted("/places/{place}/controllers", post().to(controllers::create::create)))
        .configure(weather_of_a_place)
        .route("/weather", get().to(weather::list::list))
        .route("/weather/{series}", get().to(weather::series::show))
        .configure(a_controller);
}

fn weather_of_a_place(config: &mut ServiceConfig) {
    config
        .service(
            resource("/places/{place}/weather")
                .route(get().to(weather::of_place::show))
                .route(post().to(weather::choose::choose)),
        )
        .service(
            resource("/places/{place}/weather/normals")
                .route(get().to(weather::normals::show))
                .route(post().to(weather::normals::save)),
        )
        .service(posted("/places/{place}/weather/files", post().to(weather::upload::upload)))
        .service(
            resource("/places/{place}/weather/files/{file}")
                .route(get().to(weather::file::show))
                .route(post().to(weather::file::review)),
        )
        .service(posted("/places/{place}/weather/files/{file}/import", post().to(weather::import::import)));
}

fn a_controller(config: &mut ServiceConfig) {
    config
        .service(
            resource("/controllers/{controller}")
                .route(get().to(controllers::edit::edit))
                .route(post().to(controllers::update::update)),
        )
        .service(
            resource("/controllers/{controller}/stations")
                .route(get().to(stations::show::show))
                .route(post().to(stations::save::save)),
        )
        .service(posted("/controllers/{controller}/stations/preview", post().to(stations::preview::preview)))
        .route("/controllers/{controller}/replay", get().to(replay::show::show))
        .route("/controllers/{controller}/replay.csv", get().to(replay::days::export))
        .service(posted("/controllers/{controller}/replay/preview", post().to(replay::preview::preview)))
        .service(posted("/controllers/{controller}/replay/best", post().to(replay::best::best)))
        .service(posted("/controllers/{controller}/replay/apply", post().to(replay::apply::apply)))
        .route("/controllers/{controller}/year", get().to(year::show::show))
        .service(posted("/controllers/{controller}/year/preview", post().to(year::preview::preview)))
        .service(posted("/controllers/{controller}/year/month", post().to(year::month::save)))
        .service(posted("/controllers/{controller}/year/program", post().to(year::program::save)))
        .service(
            resource("/controllers/{controller}/as-found")
                .route(get().to(found::show::show))
                .route(post().to(found::save::save)),
        )
        .service(posted("/controllers/{controller}/as-found/preview", post().to(found::preview::preview)))
        .service(
            resource("/controllers/{controller}/sensors")
                .route(get().to(sensors::show::show))
                .route(post().to(sensors::save::save)),
        )
        .service(posted("/controllers/{controller}/sensors/preview", post().to(sensors::preview::preview)))
        .service(posted("/controllers/{controller}/sensors/remove", post().to(sensors::remove::remove)))
        .service(
            resource("/controllers/{controller}/temporary")
                .route(get().to(temporary::show::show))
                .route(post().to(temporary::add::add)),
        )
        .service(posted("/controllers/{controller}/temporary/put-back", post().to(temporary::put_back::put_back)))
        .service(
            resource("/controllers/{controller}/dial-in")
                .route(get().to(dial::show::show))
                .route(post().to(dial::save::save)),
        )
        .service(
            resource("/controllers/{controller}/round")
                .route(get().to(round::show::show))
                .route(post().to(round::save::save)),
        )
        .service(posted("/controllers/{controller}/round/preview", post().to(round::preview::preview)))
        .route("/controllers/{controller}/runs.ics", get().to(site::runs::runs))
        .route("/controllers/{controller}/why", get().to(why::show))
        .route("/controllers/{controller}/log", get().to(log::show))
        .route("/controllers/{controller}/week", get().to(week::show::show))
        .service(posted("/controllers/{controller}/week/preview", post().to(week::preview::preview)))
        .service(posted("/controllers/{controller}/week/change", post().to(week::change::change)))
        .route("/controllers/{controller}/door-card", get().to(door_card::show));
}
