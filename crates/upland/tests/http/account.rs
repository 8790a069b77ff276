//! One's own account: password, and sessions here and elsewhere.

use upland_journeys::{PASSWORD, Server};

use crate::client::{Answer, Client, binary};

const EMAIL: &str = "oda@example.com";
const NEW: &str = " four plain upland words ";

fn change(client: &Client, present: &str, new: &str, again: &str) -> Answer {
    let form = client.get("/account").form("/account/password");
    client.submit("/account/password", form, &[("present", present), ("new", new), ("again", again)])
}

#[tokio::test(flavor = "multi_thread")]
async fn a_new_password_holds_and_ends_the_sessions_elsewhere() {
    let server = Server::start(binary()).await;
    let (here, there) = (Client::signed_in(&server, EMAIL), Client::signed_in(&server, EMAIL));
    let old_token = here.get("/account").field("token");
    let changed = change(&here, PASSWORD, NEW, NEW);
    assert_eq!((changed.status, changed.location()), (303, "/account?password=changed"));
    let page = here.get(changed.location());
    assert!(page.body.contains("The password is changed"), "{}", page.brief());
    assert_ne!(page.field("token"), old_token, "the session has a new token");
    assert_eq!(there.get("/places").status, 303, "the other session has ended");
    assert_eq!(Client::new(&server).sign_in(EMAIL, PASSWORD).status, 422);
    // The spaces round it are part of it.
    assert_eq!(Client::new(&server).sign_in(EMAIL, NEW.trim()).status, 422);
    assert_eq!(Client::new(&server).sign_in(EMAIL, NEW).status, 303);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_password_that_cannot_be_taken_changes_nothing() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, EMAIL);
    for (present, new, again, said) in [
        (PASSWORD, NEW, "something else", "The two new passwords differ"),
        (PASSWORD, PASSWORD, PASSWORD, "This is the present password"),
        (PASSWORD, "short", "short", "A password has 10 to 200 characters"),
        ("a wrong password", NEW, NEW, "This is not the present password"),
    ] {
        let answer = change(&client, present, new, again);
        assert_eq!(answer.status, 422, "{said}");
        assert!(answer.body.contains(said), "{}", answer.brief());
        assert!(!answer.body.contains(new), "no password goes back");
    }
    assert_eq!(Client::new(&server).sign_in(EMAIL, PASSWORD).status, 303);
}

/// A session that was left open is no place to guess the password from.
#[tokio::test(flavor = "multi_thread")]
async fn guesses_at_the_present_password_are_counted() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, EMAIL);
    let said: Vec<bool> =
        (0..7).map(|_| change(&client, "a wrong password", NEW, NEW).body.contains("Too many attempts")).collect();
    assert_eq!(said, [false, false, false, false, false, true, true]);
}

#[tokio::test(flavor = "multi_thread")]
async fn sessions_are_listed_and_ended_by_their_user() {
    let server = Server::start(binary()).await;
    let clients: Vec<Client> = (0..4).map(|_| Client::signed_in(&server, EMAIL)).collect();
    let listed = |client: &Client| client.get("/account").body.matches("name=\"session\"").count();
    assert_eq!(listed(&clients[0]), 5, "four, and all others at once");
    let end = |client: &Client, which: &str| {
        let token = client.get("/account").field("token");
        client.post("/account/sessions", &[("token", &token), ("session", which)])
    };
    assert_eq!(end(&clients[0], "nonsense").status, 422);
    // The page's own session comes first in its list.
    let second = clients[1].get("/account").field("session");
    assert_eq!(end(&clients[0], &second).location(), "/account");
    assert_eq!(clients[1].get("/places").status, 303, "it was ended from elsewhere");
    assert_eq!(end(&clients[0], "others").location(), "/account");
    assert_eq!(clients[2].get("/places").status, 303);
    assert_eq!(listed(&clients[0]), 1);
    let own = clients[0].get("/account").field("session");
    assert_eq!(end(&clients[0], &own).location(), "/sign-in");
    assert_eq!(clients[0].get("/places").status, 303);
}

#[tokio::test(flavor = "multi_thread")]
async fn nobody_ends_the_session_of_another() {
    let server = Server::start(binary()).await;
    server.add_user("Pellor Gardens", "Una", "una@example.com");
    let (oda, una) = (Client::signed_in(&server, EMAIL), Client::signed_in(&server, "una@example.com"));
    let session = una.get("/account").field("session");
    let token = oda.get("/account").field("token");
    assert_eq!(oda.post("/account/sessions", &[("token", &token), ("session", &session)]).status, 303);
    assert_eq!(una.get("/places").status, 200);
}

/// Signing in gives a session another key and another token than the sign-in page had.
/// Signing in on top of a session begins another one.
#[tokio::test(flavor = "multi_thread")]
async fn signing_in_changes_key_and_token() {
    let server = Server::start(binary()).await;
    let client = Client::new(&server);
    let first = client.sign_in(EMAIL, PASSWORD);
    let token = client.get("/account").field("token");
    let second = client.sign_in(EMAIL, PASSWORD);
    let key = |answer: &Answer| answer.header("set-cookie").split(';').next().unwrap_or_default().to_owned();
    assert_ne!(key(&first), key(&second));
    assert_ne!(client.get("/account").field("token"), token);
}
