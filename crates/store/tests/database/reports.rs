//! The views for people who ask with SQL.

use diesel::sql_types::{Double, Integer, Nullable, Text};
use diesel::{QueryableByName, sql_query};
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use upland_store::{Store, testing};

use crate::fixture::company;

#[derive(QueryableByName)]
struct StationLine {
    #[diesel(sql_type = Text)]
    place: String,
    #[diesel(sql_type = Integer)]
    number: i32,
    #[diesel(sql_type = Text)]
    name: String,
    #[diesel(sql_type = Nullable<Double>)]
    uniformity: Option<f64>,
}

#[derive(QueryableByName)]
struct Counted {
    #[diesel(sql_type = Integer)]
    n: i32,
}

#[tokio::test(flavor = "multi_thread")]
async fn stations_programs_and_sensors_are_rows() {
    let url = testing::fresh_database().await.unwrap();
    let store = Store::new(&url, 2).unwrap();
    company(&store, "one").await.furnish().await;
    let mut connection = AsyncPgConnection::establish(&url).await.unwrap();
    let stations: Vec<StationLine> =
        sql_query("SELECT place, number, name, (fields ->> 'uniformity')::float8 AS uniformity FROM station_report")
            .load(&mut connection)
            .await
            .unwrap();
    assert_eq!(stations.len(), 1);
    let first = &stations[0];
    assert_eq!((first.place.as_str(), first.number, first.name.as_str()), ("Library", 2, "Steps"));
    assert_eq!(first.uniformity, Some(0.8));
    for (view, rows) in [("program_report", 2), ("sensor_report", 4)] {
        let counted: Vec<Counted> =
            sql_query(format!("SELECT count(*)::integer AS n FROM {view}")).load(&mut connection).await.unwrap();
        assert_eq!(counted[0].n, rows, "{view}");
    }
}
