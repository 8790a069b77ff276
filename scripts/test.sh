# shellcheck shell=bash
# `./run test`. Sourced by `run`.

run_tests() {
  need_rust
  trap stop_postgres EXIT
  say "format and lints"
  cargo fmt --all --check
  cargo clippy --workspace --all-targets --locked --quiet -- -D warnings
  say "the core is pure"
  cargo check --locked --quiet --package upland-core
  say "a throw-away database"
  # Nothing here has to outlive the tests, so the server may forget on power failure.
  start_postgres test-postgres -c fsync=off -c synchronous_commit=off -c full_page_writes=off -c max_connections=200
  export UPLAND_TEST_SERVER=$DATABASE_SERVER
  say "tests of the core, the formats, the store, the pages and the command line"
  cargo test --locked --quiet
  cargo test --locked --quiet --doc
  say "browser tests"
  need_browser
  cargo build --locked --quiet --package upland
  cargo test --locked --quiet --package upland-journeys
}
