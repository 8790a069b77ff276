//! A station's soil, told by feel.

use upland_journeys::Server;

use crate::client::{Client, binary};

#[tokio::test(flavor = "multi_thread")]
async fn a_texture_is_taken_for_the_station_and_for_those_alike() {
    let server = Server::start(binary()).await;
    let client = Client::signed_in(&server, "oda@example.com");
    let (_, controller) = client.import_site("library-terraces");
    let sheet = format!("{controller}/stations/4/feel");
    let page = client.get(&sheet);
    for texture in ["sand", "loamy sand", "sandy clay loam", "silty clay"] {
        assert!(page.body.contains(texture), "{texture}: {}", page.brief());
    }
    let chosen = |soil: &str| {
        let option = format!("<option value=\"{soil}\" selected>");
        client.get(&format!("{controller}/stations")).body.matches(&option).count()
    };
    let loams = chosen("loam");
    let form = page.form(&sheet);
    let saved = client.submit(&sheet, form.clone(), &[("soil", "silty_clay_loam"), ("same_6", "yes")]);
    assert_eq!(saved.location(), format!("{controller}/stations?station=4"), "{}", saved.brief());
    assert_eq!((chosen("silty_clay_loam"), chosen("loam")), (2, loams - 2));
    client.undo(&sheet);
    assert_eq!((chosen("silty_clay_loam"), chosen("loam")), (0, loams));
    // Another word than a texture's takes nothing; a terminal without a station has no soil.
    let form = client.get(&sheet).form(&sheet);
    assert_eq!(client.submit(&sheet, form, &[("soil", "peat")]).status, 404);
    assert_eq!(client.get(&format!("{controller}/stations/40/feel")).status, 404);
}
