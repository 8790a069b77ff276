# shellcheck shell=bash
# `./run demo`. Sourced by `run`.

DEMO_EMAIL=oda@averstane.example
DEMO_PASSWORD=upland-demo

# The database of the demo: the one stated, or a private server's.
demo_database() {
  if [ -n "${DATABASE_URL:-}" ]; then
    say "using the database of DATABASE_URL"
    return
  fi
  start_postgres postgres
  say "the private database is up"
  DATABASE_URL=$DATABASE_SERVER/postgres
  export DATABASE_URL
}

stop_demo() {
  trap - INT TERM EXIT
  if [ -n "${SERVER_PID:-}" ]; then
    kill -TERM "$SERVER_PID" 2>/dev/null || true
    wait "$SERVER_PID" 2>/dev/null || true
  fi
  stop_postgres
  say "stopped; the data stays"
}

run_demo() {
  local fresh=
  [ "${1:-}" = --fresh ] && fresh=1
  need_rust
  trap stop_demo INT TERM EXIT
  if [ -n "$fresh" ] && [ -z "${DATABASE_URL:-}" ]; then
    need_postgres
    choose_data_dir postgres
    as_owner "$POSTGRES_BIN/pg_ctl" -D "$PG_DIR/cluster" -m fast -s stop >/dev/null 2>&1 || true
    say "starting over: the demo data in $PG_DIR is thrown away"
    rm -rf "${PG_DIR:?}/cluster" "$PG_DIR/port"
  fi
  demo_database
  say "building (minutes the first time, seconds after)"
  cargo build --release --locked --package upland
  local upland=target/release/upland
  "$upland" migrate
  if [ -n "$fresh" ]; then "$upland" demo --fresh; else "$upland" demo; fi
  [ -f "$DATA_DIR/session.key" ] || (umask 077 && head -c 64 /dev/urandom >"$DATA_DIR/session.key")
  # Somebody else may have the usual port; then any free one does.
  local listen=${UPLAND_LISTEN:-127.0.0.1:8087}
  if [ -z "${UPLAND_LISTEN:-}" ] && (exec 3<>/dev/tcp/127.0.0.1/8087) 2>/dev/null; then listen=127.0.0.1:0; fi
  RUST_LOG=${RUST_LOG:-warn} "$upland" serve --listen "$listen" --key-file "$DATA_DIR/session.key" &
  SERVER_PID=$!
  say "sign in as $DEMO_EMAIL with the password $DEMO_PASSWORD; Ctrl-C stops everything"
  wait "$SERVER_PID"
}
