//! What stands between the network and the pages.

use upland_journeys::{PASSWORD, Server};

use crate::client::{Client, binary};

/// Every address that changes something.
const CHANGES: [&str; 36] = [
    "/sign-in",
    "/sign-out",
    "/account/password",
    "/account/sessions",
    "/units",
    "/undo",
    "/places",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/controllers",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/weather",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/weather/normals",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/weather/files/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/weather/files/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/import",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/stations",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/stations/preview",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/year/preview",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/year/month",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/year/program",
    "/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/rules",
    "/places/import/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/as-found",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/as-found/preview",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/week/preview",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/week/change",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/sensors",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/sensors/preview",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/sensors/remove",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/temporary",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/temporary/put-back",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/dial-in",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/replay/preview",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/replay/best",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/replay/apply",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/round",
    "/controllers/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/round/preview",
];

#[tokio::test(flavor = "multi_thread")]
async fn no_change_goes_through_without_its_token() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    for path in CHANGES {
        for token in ["", "wrong", "00000000000000000000000000000000"] {
            let answer = client.post(path, &[("token", token), ("name", "x")]);
            assert_eq!(answer.status, 403, "{path} with {token:?}: {}", answer.brief());
        }
    }
    let file =
        client.send_file("/places/5c0b9dbb-4f0e-4c34-9e3a-0f6f0a0b0c0d/weather/files", "wrong", "x.csv", b"a,b\n1,2\n");
    assert_eq!(file.status, 403);
    assert_eq!(client.send_file("/places/import", "wrong", "x.json", b"{}").status, 403);
    // Nobody was signed out by all that.
    assert_eq!(client.get("/places").status, 200);
}

/// The list above is the URL map's: as many posts there as here, and the two that send files.
#[test]
fn every_change_is_in_the_list() {
    let routes = include_str!("../../../web/src/routes.rs");
    assert_eq!(routes.matches("post().to(").count(), CHANGES.len() + 2);
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_is_shown_to_nobody() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    for path in
        ["/", "/places", "/places/new", "/places/import", "/rounds", "/weather", "/reference", "/reference/parts"]
    {
        let answer = client.get(path);
        assert_eq!((answer.status, answer.location()), (303, format!("/sign-in?next={path}").as_str()));
    }
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
    let cookie = Client::new(&server).get("/sign-in");
    let set = cookie.header("set-cookie");
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
        let token = client.get("/sign-in").field("token");
        let fields = [("token", token.as_str()), ("email", "oda@example.com"), ("password", PASSWORD), ("next", next)];
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
