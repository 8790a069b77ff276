//! Views that answer the same question give the same answer.

use upland_journeys::Server;

use crate::client::{Client, binary};

/// What stands after "sunrise ", such as 05:12.
fn sunrise(page: &str) -> &str {
    let (_, after) = page.split_once(">sunrise ").expect("a page that tells the sunrise");
    after.split('<').next().unwrap()
}

#[tokio::test(flavor = "multi_thread")]
async fn today_the_week_and_the_head_of_a_page_tell_the_same_sunrise() {
    let server = Server::with_demo(binary()).await;
    let client = Client::new(&server);
    assert_eq!(client.sign_in("oda@averstane.example", "upland-demo").status, 303);
    let today = client.get("/");
    // The first controller is at the place whose sun Today shows.
    let controller = today.link("/controllers/", "").split('?').next().unwrap().replace("/year", "");
    let week = client.get(&format!("{controller}/week"));
    let told = sunrise(&today.body);
    assert_eq!(sunrise(&week.body), told);
    assert!(week.body.contains(&format!("<span>{told}</span>")), "the head tells another sunrise than {told}");
}
