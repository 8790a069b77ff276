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
