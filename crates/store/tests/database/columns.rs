//! `schema.rs` against the tables: every column of every table can be selected.

use diesel_async::{AsyncConnection, AsyncPgConnection, SimpleAsyncConnection};
use upland_store::testing;

#[tokio::test(flavor = "multi_thread")]
async fn every_column_is_there() {
    let url = testing::fresh_database().await.unwrap();
    let mut connection = AsyncPgConnection::establish(&url).await.unwrap();
    let schema = include_str!("../../src/schema.rs");
    let mut tables = 0;
    for block in schema.split("diesel::table! {").skip(1) {
        let body = block.split("\n}").next().unwrap();
        let table = body.split_whitespace().next().unwrap();
        let columns: Vec<&str> = body.lines().filter_map(|l| l.trim().split_once(" -> ").map(|(c, _)| c)).collect();
        connection.batch_execute(&format!("SELECT {} FROM {table}", columns.join(", "))).await.unwrap();
        tables += 1;
    }
    assert_eq!(tables, 22);
}
