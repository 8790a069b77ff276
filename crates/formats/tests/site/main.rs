//! The site file: its schema, its round trip, and files that cannot be; runs as CSV and iCalendar.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod bad_files;
mod examples;
mod identical;
mod records;
mod runs;
mod upgrades;

/// An example of the documentation.
fn example(name: &str) -> Vec<u8> {
    let path = format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"));
    std::fs::read(path).expect(name)
}

const EXAMPLES: [&str; 3] = ["library-terraces", "hill-cemetery", "glasshouse"];
