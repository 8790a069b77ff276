# shellcheck shell=bash
# `./run test`. Sourced by `run`.

run_tests() {
  need_rust
  need_browser
  trap stop_postgres EXIT
  # A checkout that is built once gains nothing from incremental files, which fill gigabytes.
  export CARGO_INCREMENTAL=0
  say "format and lints"
  cargo fmt --all --check
  cargo clippy --workspace --all-targets --locked --quiet -- -D warnings
  say "the core is pure"
  cargo check --locked --quiet --package upland-core
  say "a throw-away database"
  # Nothing here has to outlive the tests, so the server may forget on power failure.
  # Hundreds of small databases come and go: nothing is to be tidied up in them, or written out early.
  start_postgres test-postgres -c fsync=off -c synchronous_commit=off -c full_page_writes=off \
    -c max_connections=500 -c autovacuum=off -c max_wal_size=8GB
  export UPLAND_TEST_SERVER=$DATABASE_SERVER
  # One selection of packages for every test: another one would build the dependencies again.
  say "tests of every crate, and the journeys in a browser"
  cargo test --workspace --locked --quiet
}
