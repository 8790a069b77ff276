//! What stands between the network and the pages.

use actix_web::http::Method;
use upland_journeys::{PASSWORD, Server};
use upland_store::Role;
use upland_web::{Access, RouteFacts, route_facts};

use crate::client::{Answer, Client, binary};

/// A key of nothing.
const KEY: &str = "5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d";

/// The addresses of the router's own list, with a key of nothing for each name in braces.
fn addresses() -> Vec<(String, RouteFacts)> {
    let filled = |path: &str| {
        let part = |p: &str| if p.starts_with('{') { KEY.to_owned() } else { p.to_owned() };
        path.split('/').map(part).collect::<Vec<_>>().join("/")
    };
    let list: Vec<_> = route_facts().into_iter().map(|facts| (filled(facts.path), facts)).collect();
    assert!(list.len() > 60);
    list
}

/// The two that take a file.
fn takes_file(path: &str) -> bool {
    path.ends_with("/import") && path.starts_with("/places/import") || path.ends_with("/files")
}

fn send(client: &Client, path: &str, token: &str) -> Answer {
    if takes_file(path) {
        return client.send_file(path, token, "x.csv", b"a,b\n1,2\n");
    }
    client.post(path, &[("token", token), ("name", "x")])
}

#[tokio::test(flavor = "multi_thread")]
async fn no_change_goes_through_without_its_token() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    for (path, facts) in addresses() {
        if !facts.takes_form || facts.access == Access::Anyone {
            continue;
        }
        for token in ["", "wrong", "00000000000000000000000000000000"] {
            let answer = send(&client, &path, token);
            assert_eq!(answer.status, 403, "{path} with {token:?}: {}", answer.brief());
        }
    }
    // Nobody was signed out by all that.
    assert_eq!(client.get("/places").status, 200);
}

/// Who is not signed in has no token: such a form must come from a page of ours.
#[tokio::test(flavor = "multi_thread")]
async fn no_form_is_taken_from_a_page_of_somebody_else() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let token = client.get("/account").field("token");
    for (path, facts) in addresses() {
        if facts.takes_form && !takes_file(&path) {
            let answer = client.post_with(&path, &[("sec-fetch-site", "cross-site")], &[("token", &token)]);
            assert_eq!(answer.status, 403, "{path}: {}", answer.brief());
        }
    }
}

/// Role by route by method: what an address needs is what it gets.
#[tokio::test(flavor = "multi_thread")]
async fn a_role_may_what_its_address_says() {
    let server = Server::start(binary()).await;
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    let lead = Client::signed_in(&server, "oda@example.com");
    let add = |name: &str, email: &str, role: &str| {
        let form = lead.get("/company").form("/company/people");
        let added = lead.submit("/company/people", form, &[("name", name), ("email", email), ("role", role)]);
        let link = added.link("http://", "").split_once("/password/").unwrap().1.to_owned();
        let set = format!("/password/{link}");
        let done = Client::new(&server).post(&set, &[("new", PASSWORD), ("again", PASSWORD)]);
        assert_eq!(done.location(), "/sign-in", "{}", done.brief());
        Client::signed_in(&server, email)
    };
    let reader = add("Nell", "nell@example.com", "reader");
    let technician = Client::signed_in(&server, "tam@example.com");
    let people = [(Role::Reader, &reader), (Role::Technician, &technician), (Role::Lead, &lead)];
    let mut refused = 0;
    for (path, facts) in addresses() {
        // These end the sessions that the test goes on with.
        if ["/sign-out", "/sign-in"].contains(&path.as_str()) {
            continue;
        }
        for (role, client) in people {
            for (method, is_there) in [(Method::GET, facts.has_page), (Method::POST, facts.takes_form)] {
                if !is_there {
                    continue;
                }
                let answer = if method == Method::GET {
                    client.get(&path)
                } else {
                    send(client, &path, &client.get("/account").field("token"))
                };
                let may = facts.access.needs(&method).is_none_or(|least| role >= least);
                let was_refused = answer.status == 403;
                assert_eq!(was_refused, !may, "{role:?} {method} {path}: {} {}", answer.status, answer.brief());
                refused += u32::from(was_refused);
            }
        }
    }
    assert!(refused > 30, "{refused}");
    let page = reader.get("/places");
    assert!(page.body.contains("only-reads") && page.body.contains("change nothing"), "{}", page.brief());
    assert!(!lead.get("/places").body.contains("only-reads"));
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_is_shown_to_nobody() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    for (path, facts) in addresses() {
        if facts.has_page && facts.access != Access::Anyone {
            let answer = client.get(&path);
            assert_eq!((answer.status, answer.location()), (303, format!("/sign-in?next={path}").as_str()));
        }
    }
}

/// Nothing is written, and no cookie given, to who only opens the sign-in page.
#[tokio::test(flavor = "multi_thread")]
async fn the_sign_in_page_keeps_no_session() {
    let server = Server::start(binary()).await;
    let answer = Client::new(&server).get("/sign-in");
    assert_eq!((answer.status, answer.header("set-cookie")), (200, ""));
}

#[tokio::test(flavor = "multi_thread")]
async fn every_answer_carries_the_secure_headers() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    for path in ["/", "/nowhere", "/healthz", "/sign-in", "/controllers/nonsense/year"] {
        let answer = client.get(path);
        let policy = answer.header("content-security-policy");
        assert!(policy.contains("default-src 'none'") && !policy.contains("unsafe"), "{path}: {policy}");
        assert_eq!(answer.header("x-content-type-options"), "nosniff", "{path}");
        assert_eq!(answer.header("x-request-id").len(), 36, "{path}");
    }
    let signed_in = Client::new(&server).sign_in("oda@example.com", PASSWORD);
    let set = signed_in.header("set-cookie");
    assert!(set.contains("HttpOnly") && set.contains("SameSite=Lax"), "{set}");
}

#[tokio::test(flavor = "multi_thread")]
async fn wrong_passwords_look_like_unknown_addresses_and_are_limited() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    let unknown = client.sign_in("nobody@example.com", "a wrong password");
    let wrong = client.sign_in("oda@example.com", "a wrong password");
    assert_eq!((unknown.status, wrong.status), (422, 422));
    assert!(unknown.body.contains("Wrong e-mail or password") && wrong.body.contains("Wrong e-mail or password"));
    for _ in 0..4 {
        client.sign_in("oda@example.com", "a wrong password");
    }
    let limited = client.sign_in("oda@example.com", PASSWORD);
    assert!(limited.body.contains("Too many attempts"), "{}", limited.brief());
    // Another address is not held up by it.
    server.add_user("Averstane Grounds", "Tam", "tam@example.com");
    assert_eq!(client.sign_in("tam@example.com", PASSWORD).status, 303);
}

/// Sixty guesses at once, a right one among them: five are tried, whichever they are, and none after.
#[tokio::test(flavor = "multi_thread")]
async fn guesses_at_once_do_not_pass_the_limit() {
    let server = Server::start(binary()).await;
    let guesses: Vec<_> = (0..60)
        .map(|n| {
            let client = Client::new(&server);
            tokio::task::spawn_blocking(move || {
                let password = format!("a wrong password {n}");
                client.sign_in("oda@example.com", &password).body.contains("Wrong e-mail or password")
            })
        })
        .collect();
    let mut tried = 0;
    for guess in guesses {
        tried += u32::from(guess.await.unwrap());
    }
    assert_eq!(tried, 5);
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_no_address_is_refused_before_anything_is_asked() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    for email in ["a\u{0}b@example.com", &"x".repeat(400), ""] {
        let answer = client.sign_in(email, "a wrong password");
        assert_eq!(answer.status, 422, "{email:?}: {}", answer.brief());
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn signing_in_goes_on_to_our_own_addresses_alone() {
    let server = Server::start(binary()).await;
    for (next, to) in [("/places", "/places"), ("https://example.com/", "/"), ("//example.com", "/")] {
        let client = Client::new(&server);
        let fields = [("email", "oda@example.com"), ("password", PASSWORD), ("next", next)];
        assert_eq!(client.post("/sign-in", &fields).location(), to);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn one_company_never_sees_anothers_pages() {
    let server = Server::start(binary()).await;
    let mine = Client::signed_in(&server, "oda@example.com");
    let place = mine.make_place("Library");
    let controller = mine.make_controller(&place, "Cabinet");
    server.add_user("Pellor Gardens", "Una", "una@example.com");
    let other = Client::signed_in(&server, "una@example.com");
    for path in [
        place.clone(),
        format!("{place}/weather"),
        format!("{place}/weather/normals"),
        format!("{place}/controllers/new"),
        format!("{place}/rules"),
        format!("{place}/site.json"),
        format!("{controller}/as-found"),
        format!("{controller}/sensors"),
        format!("{controller}/week"),
        format!("{controller}/why"),
        format!("{controller}/log"),
        format!("{controller}/temporary"),
        format!("{controller}/dial-in"),
        format!("{controller}/round"),
        format!("{controller}/runs.ics"),
        controller.clone(),
        format!("{controller}/stations"),
        format!("{controller}/year"),
        format!("{controller}/door-card"),
    ] {
        assert_eq!(other.get(&path).status, 404, "{path}");
        assert_eq!(mine.get(&path).status, 200, "{path}");
    }
    let token = other.get("/places").field("token");
    assert_eq!(other.post(&format!("{controller}/year/month"), &[("token", &token), ("month", "6")]).status, 404);
    assert!(!other.get("/places").body.contains("Library"));
}
