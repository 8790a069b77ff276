//! Pages as they are sent, without what stands round them: forms and lists.

use askama::Template;
use chrono::TimeDelta;
use upland_core::controller::{Controller, Preset};
use upland_formats::site::Site;
use uuid::Uuid;

use super::fixture::{Half, context, days, moment, shell};
use super::html::check;
use super::{CASES, each};
use crate::context::{Person, Role, SessionRecord, TypedNormals, Versioned, WaitingUpload};
use crate::form::Form;
use crate::pages::account::{AccountTemplate, session_lines};
use crate::pages::company::{CompanyTemplate, LinkShown, filled_usual, person_lines, role_choices, usual_fields};
use crate::pages::controller_form::{self, ControllerFormTemplate, base_months, preset_links};
use crate::pages::normals::{By, NormalsFormTemplate, airs, filled_normals, normal_fields, warmths};
use crate::pages::place_form::{self, PlaceFormTemplate, unit_choices};
use crate::pages::reference::{ReferenceTemplate, defaults, methods};
use crate::pages::sign_in::{ResumeTemplate, SignInTemplate};
use crate::pages::site::SitePreviewTemplate;
use crate::pages::spine::{Spine, Step};
use crate::pages::temporary::{self, TemporaryTemplate, week_proposals};
use crate::pages::waiting::waiting_files;
use crate::pages::weather::{PlaceWeatherTemplate, series_rows, share_lines};
use crate::pages::{places, water_windows};
use crate::show::{Measure, Units};
use crate::words::Words;

/// The page between its masthead and its foot, checked as a whole.
pub(super) fn main_of(page: &impl Template) -> String {
    let html = page.render().unwrap();
    check(&html);
    let (_, main) = html.split_once("<main").unwrap();
    main.split_once("</main>").unwrap().0.to_owned()
}

#[test]
fn the_company_with_an_error_beside_a_person() {
    each("company", |half, units| {
        let now = moment(half);
        let person = |id: u128, name: &str, role, used_at, link_until| Person {
            id: Uuid::from_u128(id),
            name: name.into(),
            email: format!("{}@averstane.example", name.to_lowercase()),
            role,
            used_at,
            link_until,
        };
        let people = [
            person(1, "Oda", Role::Lead, Some(now), None),
            person(2, "Ulf", Role::Technician, Some(now - TimeDelta::days(3)), None),
            person(3, "Wim", Role::Reader, None, Some(now + TimeDelta::days(6))),
        ];
        let error = Some((people[0].id, Words.t("company-last-lead")));
        let mut form = Form::default();
        filled_usual(&mut form, None, units);
        form.set("yard", "47.5, 12.2");
        form.set("log_years", "5");
        form.set("email", "nobody");
        form.fail("email", "An e-mail address has an @");
        main_of(&CompanyTemplate {
            shell: shell(units),
            people: person_lines(&people, people[0].id, error, now),
            roles: role_choices(),
            usual: usual_fields(),
            link: Some(LinkShown { name: "Wim".into(), address: "https://upland.example/set-password/x".into() }),
            action: "an action".into(),
            form,
        })
    });
}

#[test]
fn the_account_with_two_sessions() {
    let now = moment(Half::North);
    let session = |id: u128, device: &str, network: &str, days| SessionRecord {
        session_id: Uuid::from_u128(id),
        began_at: now - TimeDelta::days(days),
        used_at: now - TimeDelta::days(days / 2),
        device: device.into(),
        network: network.into(),
    };
    let sessions = [session(1, "computer", "192.0.2.1", 9), session(2, "phone", "", 0)];
    let page = AccountTemplate {
        shell: shell(Units::Metric),
        form: Form::default(),
        email: "oda@averstane.example".into(),
        role: "Lead".into(),
        is_changed: true,
        sessions: session_lines(&sessions, sessions[1].session_id, now),
    };
    insta::assert_snapshot!("account", main_of(&page));
}

#[test]
fn what_was_typed_is_kept_over_a_sign_in() {
    let fields = vec![("name".to_owned(), "Gate <b>".to_owned()), ("action".to_owned(), "an action".to_owned())];
    let page = SignInTemplate::again("/places".into(), fields);
    let html = page.render().unwrap();
    assert!(html.contains(r#"name="kept.name" value="Gate &#60;b&#62;""#), "{html}");
    // Signed in, the same fields are sent on, and a person is shown what they typed and nothing else.
    let mut form = Form::default();
    form.set("resume", "/places");
    form.set("kept.name", "Gate <b>");
    form.set("kept.action", "an action");
    let resumed = ResumeTemplate::of(&form, "token".into(), "/places".into()).render().unwrap();
    check(&resumed);
    assert!(resumed.contains(r#"name="name" value="Gate &#60;b&#62;""#), "{resumed}");
    assert!(resumed.contains(r#"name="action" value="an action""#));
    assert_eq!(resumed.matches("an action").count(), 1, "nobody typed the action");
}

fn place_form(form: Form, is_new: bool, units: Units) -> String {
    main_of(&PlaceFormTemplate {
        shell: shell(units),
        form,
        post_to: "/places".into(),
        is_new,
        height_unit: Measure::Height.unit(units),
        zones: vec!["Europe/Vienna".into()],
        units: unit_choices(),
        controllers: Vec::new(),
        weather_href: "/places/2/weather".into(),
        new_controller: "/places/2/controllers/new".into(),
        spine: None,
    })
}

#[test]
fn a_place_new_and_saved() {
    each("place_form", |half, units| {
        let place = context(half).at.place;
        let mut wrong = place_form::empty(units);
        wrong.set("latitude", "95");
        assert_eq!(place_form::read(&mut wrong, units, None), None);
        let saved = place_form::filled(&place.value, place.version, units);
        format!("{}\n\n{}", place_form(wrong, true, units), place_form(saved, false, units))
    });
}

fn controller_page(form: Form, of: Option<&Controller>, preset: Preset) -> ControllerFormTemplate {
    ControllerFormTemplate {
        shell: shell(Units::Metric),
        form,
        post_to: "/controllers/1".into(),
        is_new: of.is_none(),
        place: "Library Terraces".into(),
        place_href: "/places/2".into(),
        presets: if of.is_none() { preset_links(Uuid::from_u128(2), preset) } else { Vec::new() },
        base_months: base_months(),
        windows: water_windows::rows(),
        links: vec![("/controllers/1/log".into(), "Log".into())],
        spine: None,
        log: Vec::new(),
    }
}

#[test]
fn a_controller_new_and_saved() {
    let context = context(Half::North);
    let new = controller_form::filled(&Controller::new(String::new(), Preset::Valve.capability()), 0);
    let mut saved = controller_form::filled(context.controller(), 3);
    saved.set("percent_max", "5");
    assert_eq!(controller_form::read(&mut saved, context.controller()), None);
    let pages = [
        main_of(&controller_page(new, None, Preset::Valve)),
        main_of(&controller_page(saved, Some(context.controller()), Preset::Monthly)),
    ];
    insta::with_settings!({filters => vec![(r#"value="[0-9a-f-]{36}""#, r#"value="an action""#)]}, {
        insta::assert_snapshot!("controller_form", pages.join("\n\n"));
    });
}

#[test]
fn every_preset_is_offered_and_its_form_is_sound() {
    for preset in Preset::ALL {
        let links = preset_links(Uuid::nil(), preset);
        assert_eq!(links.iter().filter(|link| link.current).count(), 1);
        assert_eq!(links.len(), Preset::ALL.len());
        let controller = Controller::new("Gate".into(), preset.capability());
        let mut form = controller_form::filled(&controller, 0);
        assert_eq!(controller_form::read(&mut form, &controller), Some(controller.clone()), "{preset:?}");
        check(&controller_page(form, None, preset).render().unwrap());
    }
}

#[test]
fn normals_typed_in_each_way() {
    each("normals", |half, units| {
        let latitude = if half == Half::North { 47.5 } else { -47.5 };
        let mut typed = Form::default();
        typed.set("action", "an action");
        let normals = *context(half).normals().unwrap();
        filled_normals(&mut typed, &TypedNormals::of(normals), units);
        let mut by_words = Form::default();
        by_words.set("action", "an action");
        for (field, value) in [("by", "climate"), ("air", "arid"), ("summer", "warm"), ("winter", "cool")] {
            by_words.set(field, value);
        }
        let mut by_air = Form::default();
        by_air.set("action", "an action");
        by_air.set("by", "temperatures");
        let pages = [typed, by_words, by_air].map(|form| {
            main_of(&NormalsFormTemplate {
                shell: shell(units),
                by: By::of(&form),
                airs: airs(),
                warmths: warmths(),
                months: normal_fields(&form, latitude, units),
                form,
                post_to: "/places/2/weather/normals".into(),
                back: "/places/2/weather".into(),
                et0_unit: Words.t1("a-day", Measure::DepthADay.unit(units)),
                rain_unit: Measure::Depth.unit(units),
                temperature_unit: Measure::Temperature.unit(units),
                spine: None,
            })
        });
        pages.join("\n\n")
    });
}

#[test]
fn the_weather_of_a_place() {
    each("place_weather", |half, units| {
        let context = context(half);
        let at = &context.at;
        let weather = at.weather.as_ref().unwrap();
        let upload = WaitingUpload {
            id: Uuid::from_u128(8),
            file_name: "hill.csv".into(),
            bytes: 220_000,
            user_name: "Oda".into(),
            at: moment(half) - TimeDelta::hours(3),
        };
        let series = [(weather.series.clone(), weather.revision.clone())];
        main_of(&PlaceWeatherTemplate {
            shell: shell(units),
            rows: series_rows(&series, Some((&at.place.value, half.today())), |_| Vec::new(), units),
            shares: share_lines(weather, &[]),
            place: at.place.value.place.name.clone(),
            place_id: at.place.id.to_string(),
            version: at.place.version,
            action: "an action".into(),
            post_to: "/places/2/weather".into(),
            file_error: "The file has no rows under its header".into(),
            waiting: waiting_files(&[upload], "/places/2/weather/files", moment(half)),
            normals_href: "/places/2/weather/normals".into(),
            controllers: Vec::<places::ControllerLink>::new(),
            spine: Some(Spine::of(&context, Step::Weather)),
            most_bytes: 32 << 20,
        })
    });
}

#[test]
fn what_is_set_for_a_while() {
    each("temporary", |half, units| {
        let context = context(half);
        let c = context.controller();
        let today = half.today();
        let mut form = temporary::empty(today);
        form.set("action", "an action");
        form.fail("until", "The last day is before the first");
        main_of(&TemporaryTemplate {
            shell: shell(units),
            spine: Spine::of(&context, Step::Week),
            strip: None,
            href: "/controllers/1/temporary".into(),
            version: context.controller.version,
            form,
            kinds: temporary::kinds(c),
            programs: temporary::programs(c),
            sensors: temporary::sensors(c),
            lines: temporary::lines(c, today),
            weeks: week_proposals(&context, &days(half), today - TimeDelta::days(7), today, units),
            gauge: Some("/weather/3#reading-h".into()),
        })
    });
}

#[test]
fn a_site_file_before_it_is_imported() {
    each("site_preview", |half, units| {
        let context = context(half);
        let at = &context.at.place.value;
        let site = Site {
            place: at.place.clone(),
            rules: at.rules.clone(),
            weather: Some(("Airfield".into(), *context.normals().unwrap())),
            controllers: vec![context.controller().clone()],
            as_found: Vec::new(),
        };
        let mut page = SitePreviewTemplate::of(
            shell(units),
            "/places/import/1".into(),
            "library.json".into(),
            &site,
            half.today(),
            units,
        );
        page.action = "an action".into();
        main_of(&page)
    });
}

#[test]
fn methods_and_defaults_with_their_sources() {
    each("reference", |_, units| {
        main_of(&ReferenceTemplate { shell: shell(units), methods: methods(), defaults: defaults(units) })
    });
}

/// The same place is as far from a series however the list is asked for, and a series that ended long ago is history.
#[test]
fn what_a_series_is_good_for() {
    for (_, half, units) in CASES {
        let at = context(half).at;
        let weather = at.weather.unwrap();
        let good_for = |change: &dyn Fn(&mut Versioned<_>, &mut _), from: bool| {
            let (mut series, mut revision) = (weather.series.clone(), weather.revision.clone());
            change(&mut series, &mut revision);
            let from = from.then_some((&at.place.value, half.today()));
            series_rows(&[(series, revision)], from, |_| Vec::new(), units)[0].good_for.clone()
        };
        let until = |day| move |_: &mut Versioned<_>, r: &mut crate::context::RevisionSummary| r.last_day = Some(day);
        let yesterday = half.today() - TimeDelta::days(1);
        let near = |s: &mut Versioned<crate::context::SeriesRecord>, r: &mut crate::context::RevisionSummary| {
            s.value.position = at.place.value.place.position;
            r.last_day = Some(yesterday);
        };
        let ended = good_for(&until(half.today() - TimeDelta::days(61)), true);
        assert_eq!(good_for(&|_, _| {}, true).split_once(' ').unwrap().0, ended.split_once(' ').unwrap().0);
        assert_ne!(good_for(&until(half.today() - TimeDelta::days(60)), true), ended);
        assert_eq!(good_for(&until(yesterday), true), Words.t("good-far"));
        assert_eq!(good_for(&near, true), Words.t("good-near"));
        assert_eq!(good_for(&until(yesterday), false), Words.t("good-unknown"));
        let gauge = |s: &mut Versioned<_>, r: &mut crate::context::RevisionSummary| {
            near(s, r);
            r.method.clear();
        };
        assert_eq!(good_for(&gauge, true), Words.t("good-rain-near"));
    }
}
