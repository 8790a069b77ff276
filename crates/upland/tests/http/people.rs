//! The people of a company, and what was typed before a session ended.

use std::io::Write;
use std::process::{Command, Stdio};

use upland_journeys::{PASSWORD, Server};

use crate::client::{Answer, Client, binary};

const EMAIL: &str = "oda@example.com";

/// The address of the link that a page shows.
fn link(page: &Answer) -> String {
    let address = page.link("http://", "");
    address[address.find("/password/").unwrap_or_else(|| panic!("{address}"))..].to_owned()
}

fn add(lead: &Client, name: &str, email: &str) -> Answer {
    let form = lead.get("/company").form("/company/people");
    lead.submit("/company/people", form, &[("name", name), ("email", email), ("role", "technician")])
}

#[tokio::test(flavor = "multi_thread")]
async fn a_person_comes_in_by_a_link_that_works_once() {
    let server = Server::start(binary()).await;
    let lead = Client::signed_in(&server, EMAIL);
    let added = add(&lead, "Tam Quillan", " Tam@Example.com ");
    assert_eq!(added.status, 200, "{}", added.brief());
    let (link, visitor) = (link(&added), Client::new(&server));
    let page = visitor.get(&link);
    assert!(page.body.contains("Tam Quillan"), "{}", page.brief());
    let differs = visitor.post(&link, &[("new", PASSWORD), ("again", "another password")]);
    assert!(differs.status == 422 && differs.body.contains("The two new passwords differ"));
    assert!(visitor.post(&link, &[("new", "short"), ("again", "short")]).body.contains("10 to 200 characters"));
    assert_eq!(visitor.post(&link, &[("new", PASSWORD), ("again", PASSWORD)]).location(), "/sign-in");
    assert_eq!(visitor.get(&link).status, 409, "it is used up");
    assert_eq!(visitor.sign_in("tam@example.com", PASSWORD).status, 303);
    assert_eq!(visitor.get("/company").status, 403, "a technician");
    assert!(visitor.get("/places").status == 200 && !visitor.get("/account").body.contains("/company"));
}

/// The old password works until the link is used, and no session outlives it.
#[tokio::test(flavor = "multi_thread")]
async fn a_lead_resets_a_password() {
    let server = Server::start(binary()).await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let (lead, tam) = (Client::signed_in(&server, EMAIL), Client::signed_in(&server, "tam@example.com"));
    let page = lead.get("/company");
    let button = page.body.rfind("/link\"").unwrap();
    let start = page.body[..button].rfind("/company/people/").unwrap();
    let address = page.body[start..button + 5].to_owned();
    let shown = lead.submit(&address, page.form(&address), &[]);
    let again = lead.submit(&address, page.form(&address), &[]);
    assert_eq!(link(&shown), link(&again), "pressed twice, the same link");
    assert_eq!(tam.get("/places").status, 200);
    let visitor = Client::new(&server);
    assert_eq!(visitor.sign_in("tam@example.com", PASSWORD).status, 303);
    let new = "a new password of mine";
    assert_eq!(visitor.post(&link(&again), &[("new", new), ("again", new)]).location(), "/sign-in");
    assert_eq!(tam.get("/places").status, 303, "signed out");
    assert_eq!(visitor.sign_in("tam@example.com", PASSWORD).status, 422);
    assert_eq!(visitor.sign_in("tam@example.com", new).status, 303);
}

#[tokio::test(flavor = "multi_thread")]
async fn people_are_added_once_and_leave() {
    let server = Server::start(binary()).await;
    let lead = Client::signed_in(&server, EMAIL);
    let form = lead.get("/company").form("/company/people");
    let fields = [("name", "Nell"), ("email", "nell@example.com"), ("role", "reader")];
    let links: Vec<String> = (0..2).map(|_| link(&lead.submit("/company/people", form.clone(), &fields))).collect();
    assert_eq!(links[0], links[1], "pressed twice, the person is there once, with the same link");
    let taken = add(&lead, "Somebody else", "nell@example.com");
    assert!(taken.status == 422 && taken.body.contains("in use already"), "{}", taken.brief());
    assert_eq!(taken.field("name"), "Somebody else", "nothing typed is lost");
    for wrong in ["", "nobody", "a@b@c", "x y@example.com"] {
        assert_eq!(add(&lead, "Wrong", wrong).status, 422, "{wrong:?}");
    }
    let page = lead.get("/company");
    let leave = page.link("/company/people/", "/leave");
    let set = Client::new(&server).post(&links[0], &[("new", PASSWORD), ("again", PASSWORD)]);
    assert_eq!(set.status, 303);
    let nell = Client::signed_in(&server, "nell@example.com");
    for _ in 0..2 {
        assert_eq!(lead.submit(&leave, page.form(&leave), &[]).location(), "/company");
    }
    assert_eq!(nell.get("/places").status, 303);
    assert_eq!(nell.sign_in("nell@example.com", PASSWORD).status, 422);
    assert!(!lead.get("/company").body.contains("Nell"));
}

/// Whoever runs the server can make somebody a lead, as the doctor advises.
#[tokio::test(flavor = "multi_thread")]
async fn the_command_line_gives_a_role() {
    let server = Server::start(binary()).await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let tam = Client::signed_in(&server, "tam@example.com");
    assert_eq!(tam.get("/company").status, 403);
    let mut user = Command::new(binary())
        .args(["user", "--company", "Averstane Grounds", "--name", "Tam", "--email", "tam@example.com"])
        .args(["--role", "lead", "--database-url", &server.database_url])
        .stdin(Stdio::piped())
        .spawn()
        .unwrap();
    writeln!(user.stdin.take().unwrap(), "{PASSWORD}").unwrap();
    assert!(user.wait().unwrap().success());
    assert_eq!(tam.get("/places").status, 303, "a password given so ends the sessions");
    assert_eq!(Client::signed_in(&server, "tam@example.com").get("/company").status, 200);
}

#[tokio::test(flavor = "multi_thread")]
async fn the_last_lead_stays_one() {
    let server = Server::start(binary()).await;
    let lead = Client::signed_in(&server, EMAIL);
    let page = lead.get("/company");
    let role = page.link("/company/people/", "/role");
    let refused = lead.submit(&role, page.form(&role), &[("role", "reader")]);
    assert!(refused.status == 422 && refused.body.contains("needs a lead"), "{}", refused.brief());
    assert_eq!(lead.get("/company").status, 200);
}

#[tokio::test(flavor = "multi_thread")]
async fn how_long_the_log_is_kept_is_stated_or_not() {
    let server = Server::start(binary()).await;
    let lead = Client::signed_in(&server, EMAIL);
    for (typed, status, stands) in [("24", 303, "24"), ("0", 422, "24"), ("lots", 422, "24"), ("", 303, "")] {
        let form = lead.get("/company").form("/company/log");
        let answer = lead.submit("/company/log", form, &[("keep_log", typed)]);
        assert_eq!(answer.status, status, "{typed:?}");
        if status == 422 {
            assert_eq!(answer.field("keep_log"), typed, "nothing typed is lost");
        }
        assert_eq!(lead.get("/company").field("keep_log"), stands);
    }
}

/// With a yard Today lists visits in the order of a round; a position that is none is told at its place.
#[tokio::test(flavor = "multi_thread")]
async fn a_yard_is_stated_and_rounds_begin_there() {
    let server = Server::with_demo(binary()).await;
    let lead = Client::new(&server);
    assert_eq!(lead.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let today = lead.get("/");
    assert!(today.body.contains("2 stops, ") && today.body.contains(">from the desk<"), "{}", today.brief());
    // Averstane lies nearer to the yard than the cemetery does.
    let place = |page: &crate::client::Answer, name: &str| page.body.rfind(&format!(">{name}</a></span>")).unwrap();
    assert!(place(&today, "Averstane Library Terraces") < place(&today, "Grevane Hill Cemetery"));
    for (typed, status) in [("47.5", 422), ("95, 12", 422), ("47.6, -122.1", 303), ("", 303)] {
        let form = lead.get("/company").form("/company/yard");
        let answer = lead.submit("/company/yard", form, &[("yard", typed)]);
        assert_eq!(answer.status, status, "{typed:?}");
        let stands = if status == 422 { answer.field("yard") } else { lead.get("/company").field("yard") };
        assert_eq!(stands, typed);
    }
    let today = lead.get("/");
    assert!(!today.body.contains("2 stops, ") && today.body.contains("Say where your rounds begin"));
}

/// A form that comes after the session has ended is kept over the sign-in, and saved when its user says so.
#[tokio::test(flavor = "multi_thread")]
async fn what_was_typed_comes_back_after_signing_in_again() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, EMAIL);
    let place = client.make_place("Library");
    let form = client.get(&place).form(&place);
    let token = client.get("/account").field("token");
    client.post("/sign-out", &[("token", &token)]);
    let typed = "Library of \"Averstane\" <north>";
    let kept = client.submit(&place, form, &[("name", typed)]);
    assert_eq!(kept.status, 401, "{}", kept.brief());
    assert!(kept.body.contains("what you typed comes back"));
    // A wrong password in between loses nothing either.
    let wrong = client.submit("/sign-in", kept.form("/sign-in"), &[("email", EMAIL), ("password", "not this one")]);
    assert_eq!(wrong.status, 422);
    let back = client.submit("/sign-in", wrong.form("/sign-in"), &[("email", EMAIL), ("password", PASSWORD)]);
    assert_eq!(back.status, 200, "{}", back.brief());
    assert!(back.body.contains("What you typed is still here"), "{}", back.brief());
    let resumed = back.form(&place);
    assert!(resumed.iter().any(|(k, v)| k == "name" && v == typed), "{resumed:?}");
    assert_eq!(client.submit(&place, resumed, &[]).status, 303);
    assert!(client.get("/places").body.contains("&#60;north&#62;"));
}

/// A form that somebody else's page sends, or that scripts ask with, is not kept; no password ever is.
#[tokio::test(flavor = "multi_thread")]
async fn only_what_a_person_typed_on_our_page_is_kept() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    let fields = [("name", "x"), ("present", "secret")];
    assert_eq!(client.post_with("/places", &[("sec-fetch-site", "cross-site")], &fields).status, 303);
    assert_eq!(client.post_with("/places", &[("sec-fetch-mode", "cors")], &fields).location(), "/sign-in");
    assert_eq!(client.post("/account/password", &fields).location(), "/sign-in");
}

/// What is usual around a company fills the first line of a new worksheet in.
#[tokio::test(flavor = "multi_thread")]
async fn a_new_worksheet_begins_with_what_is_usual() {
    let server = Server::start(binary()).await;
    let lead = Client::signed_in(&server, "oda@example.com");
    let place = lead.make_place("Library");
    let controller = lead.make_controller(&place, "Shed");
    let stations = format!("{controller}/stations");
    let first = |client: &Client| client.get(&stations).form(&stations);
    let chosen = |form: &[(String, String)], name: &str| form.iter().find(|(n, _)| n == name).map(|(_, v)| v.clone());
    assert_eq!(chosen(&first(&lead), "s1_soil").as_deref(), Some("loam"));
    let form = lead.get("/company").form("/company/usual");
    let refused = lead.submit("/company/usual", form.clone(), &[("usual_soil", "lava")]);
    assert_eq!((refused.status, refused.body.matches("class=\"errm\"").count()), (422, 1), "{}", refused.brief());
    let usual = [("usual_soil", "clay"), ("usual_sprinkler", "drip"), ("usual_plant", "shrubs")];
    assert_eq!(lead.submit("/company/usual", form, &usual).location(), "/company");
    let form = first(&lead);
    let line = ["soil", "sprinkler", "plant", "name"].map(|field| chosen(&form, &format!("s1_{field}")).unwrap());
    assert_eq!(line, ["clay", "drip", "shrubs", ""]);
    assert_eq!(chosen(&lead.get("/company").form("/company/usual"), "usual_soil").as_deref(), Some("clay"));
    // Stations that are there stay as they are, and the next line begins with the one above it.
    let saved = lead.submit(&stations, form, &[("s1_name", "Bank"), ("s1_soil", "sand")]);
    assert_eq!(saved.status, 303, "{}", saved.brief());
    assert_eq!(chosen(&first(&lead), "s2_soil").as_deref(), Some("sand"));
}
