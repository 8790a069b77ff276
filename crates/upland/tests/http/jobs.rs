//! Today's jobs: by place, and put off with a reason and a date.

use upland_journeys::Server;

use crate::client::{Client, binary};

#[tokio::test(flavor = "multi_thread")]
async fn a_job_is_put_off_with_a_reason_and_brought_back() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let temporary = format!("{controller}/temporary");
    let off = [("kind", "off"), ("since", "2026-06-01"), ("until", "2026-06-05"), ("reason", "new lawn")];
    assert_eq!(client.submit(&temporary, client.get(&temporary).form(&temporary), &off).status, 303);
    let today = client.get("/");
    assert!(today.body.contains("the controller is Off"), "{}", today.brief());
    assert!(today.body.contains("class=\"jobplace\""), "jobs stand under their place");
    let id = controller.trim_start_matches("/controllers/");
    let address = format!("/jobs/later?controller={id}&job=ended.1");
    let page = client.get(&address);
    assert!(page.body.contains("the controller is Off"), "{}", page.brief());
    let form = || client.get(&address).form("/jobs/later");
    // Without a reason, for yesterday, for too long: said beside the field, nothing typed is lost.
    for (until, reason) in [("2026-06-20", ""), ("2026-06-11", "no key"), ("2027-06-11", "no key"), ("soon", "no key")]
    {
        let refused = client.submit("/jobs/later", form(), &[("until", until), ("reason", reason)]);
        assert_eq!((refused.status, refused.field("reason").as_str()), (422, reason), "{until}: {}", refused.brief());
    }
    for _ in 0..2 {
        let put_off = client.submit("/jobs/later", form(), &[("until", "2026-06-20"), ("reason", "no key")]);
        assert_eq!(put_off.location(), "/", "{}", put_off.brief());
    }
    let today = client.get("/");
    assert!(!today.body.contains("the controller is Off"), "{}", today.brief());
    assert!(today.body.contains("One job was put off."));
    let put_off = client.get("/?kind=snoozed");
    assert!(put_off.body.contains("Until 20 June: no key (Oda)"), "{}", put_off.brief());
    assert_eq!(client.submit("/jobs/back", put_off.form("/jobs/back"), &[]).location(), "/?kind=snoozed");
    assert!(client.get("/").body.contains("the controller is Off"));
    // A job that is not there, and a controller of nobody.
    assert_eq!(client.get(&format!("/jobs/later?controller={id}&job=ended.9")).status, 404);
    assert_eq!(client.get("/jobs/later?controller=x&job=dial").status, 404);
    assert_eq!(client.get(&format!("/jobs/later?controller={}&job=dial", uuid::Uuid::nil())).status, 404);
}

/// What is set for a while is to be set and to be put back: Today, the year ahead and its calendar say the same.
#[tokio::test(flavor = "multi_thread")]
async fn the_year_ahead_is_a_page_and_a_calendar() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let empty = client.get("/ahead");
    assert!(empty.body.contains("Nothing comes within a year"), "{}", empty.brief());
    assert!(!client.get("/ahead.ics").body.contains("BEGIN:VEVENT"));
    let (_, controller) = client.import_site("library-terraces");
    let temporary = format!("{controller}/temporary");
    let fifty = [
        ("kind", "percent"),
        ("percent", "50"),
        ("since", "2026-06-14"),
        ("until", "2026-07-20"),
        ("reason", "new lawn"),
    ];
    let set = client.submit(&temporary, client.get(&temporary).form(&temporary), &fifty);
    assert_eq!(set.status, 303, "{}", set.brief());
    // This panel keeps a percent for each month: on 1 July June goes back, and July is set.
    let (page, calendar) = (client.get("/ahead"), client.get("/ahead.ics"));
    let calendar_text = calendar.body.replace("\r\n ", "");
    assert_eq!(calendar.header("content-type"), "text/calendar; charset=utf-8");
    for date in ["20260614", "20260701", "20260721"] {
        let events = calendar_text.matches(&format!("DTSTART;VALUE=DATE:{date}")).count();
        assert_eq!(events, 1, "{date}: {calendar_text}");
    }
    assert!(page.body.contains("title=\"14 June 2026\"") && page.body.contains("title=\"21 July 2026\""));
    // The clocks of the place go back on 1 November 2026 (IANA, America/Los_Angeles).
    assert!(page.body.contains("title=\"1 November 2026\"") && page.body.contains("Clocks go one hour back"));
    assert_eq!(page.body.matches("<time title=").count(), calendar_text.matches("BEGIN:VEVENT").count());
    // Today says what comes within a week, in the same words.
    let today = client.get("/");
    let words = "Program A, June from 90\u{a0}% to 50\u{a0}%";
    assert!(today.body.contains(": to set on 14 June"), "{}", today.brief());
    assert_eq!([&page.body, &today.body].map(|body| body.contains(words)), [true, true], "{}", page.brief());
    let other = client.get("/ahead?q=nowhere");
    assert!(other.body.contains("Nothing is called that") && !other.body.contains("<time title="), "{}", other.brief());
}

/// Today lists what the Week, As found and Dial in would say, and no longer what was mended.
#[tokio::test(flavor = "multi_thread")]
async fn faults_of_the_week_and_of_a_panel_as_found_are_on_todays_list() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let today = client.get("/");
    for said in [
        "Boiler-room cabinet: faults in the schedule",
        "A starts twice, and 2 more.",
        "Boiler-room cabinet: wrong on the panel as found",
        "Chapel wall needs a schedule",
        "Pump house needs stations",
    ] {
        assert!(today.body.contains(said), "{said}: {}", today.brief());
    }
    let faults = client.get("/?kind=fault");
    assert!(!faults.body.contains("Chapel wall needs a schedule"), "{}", faults.brief());
    // The key of such a job fits where what was put off is kept.
    let later = faults.link("/jobs/later?controller=", "").replace("&#38;", "&");
    let form = client.get(&later).form("/jobs/later");
    let put_off = client.submit("/jobs/later", form, &[("until", "2026-06-20"), ("reason", "no key")]);
    assert_eq!(put_off.location(), "/", "{}", put_off.brief());
    // All findings repaired: the list says so at once.
    let controller = today.body.split("/as-found").next().unwrap().rsplit('"').next().unwrap().to_owned();
    let change = format!("{controller}/week/change");
    let week = client.get(&format!("{controller}/week"));
    assert_eq!(client.submit(&change, week.form(&change), &[("do", "repair-all")]).status, 303);
    assert!(!client.get("/").body.contains("faults in the schedule"));
    // A schedule that was proposed and never dialled in.
    let (_, chapel) = today.body.split_once("Chapel wall needs a schedule").unwrap();
    let week = chapel.split(['"', '\'']).find(|href| href.ends_with("/week")).unwrap().to_owned();
    let propose = format!("{week}/change");
    let page = client.get(&week);
    assert_eq!(client.submit(&propose, page.form(&propose), &[("do", "propose")]).status, 303);
    let after = client.get("/");
    assert!(after.body.contains("Chapel wall: not dialled in yet"), "{}", after.brief());
    assert!(!after.body.contains("Chapel wall needs a schedule"));
}
