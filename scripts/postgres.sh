# shellcheck shell=bash
# A private PostgreSQL server on loopback, in a folder of the project's own. Sourced by `run`.
# It never touches the system's cluster, and takes whatever port is free.

# Runs a program as the user that owns the data: PostgreSQL refuses to run as root.
as_owner() {
  if [ "$(id -u)" = 0 ]; then
    # From a folder that the server's user can be in; all paths here are whole ones.
    (cd / && exec setpriv --reuid=postgres --regid=postgres --init-groups --reset-env "$@")
  else
    "$@"
  fi
}

# The folder for the data: inside the project, unless root runs this and the server's user cannot
# get there.
choose_data_dir() {
  local name=$1 wanted=$DATA_DIR/$1
  if [ "$(id -u)" = 0 ]; then
    mkdir -p "$DATA_DIR"
    chmod 711 "$DATA_DIR"
    if ! as_owner test -x "$DATA_DIR"; then
      wanted=/var/lib/upland-almanac/$(printf '%s' "$PWD" | cksum | cut -d' ' -f1)/$name
      say "the server's user cannot enter $PWD; its data is kept in $wanted"
    fi
    mkdir -p "$wanted"
    chmod 711 "$(dirname "$wanted")"
    chown postgres:postgres "$wanted"
  else
    mkdir -p "$wanted"
  fi
  chmod 700 "$wanted"
  PG_DIR=$wanted
}

init_cluster() {
  [ -f "$PG_DIR/cluster/PG_VERSION" ] && return
  say "making a private database in $PG_DIR"
  local secret
  secret=$(head -c 24 /dev/urandom | base64 | tr -dc 'A-Za-z0-9')
  printf '%s\n' "$secret" | as_owner tee "$PG_DIR/password" >/dev/null
  as_owner chmod 600 "$PG_DIR/password"
  as_owner "$POSTGRES_BIN/initdb" -D "$PG_DIR/cluster" -U upland -A scram-sha-256 --pwfile="$PG_DIR/password" \
    -E UTF8 --locale=C.UTF-8 >"$LOG_DIR/initdb.log" 2>&1 || fail "the database cannot be made; see $LOG_DIR/initdb.log"
}

# start_postgres NAME [server options...]: sets DATABASE_SERVER, the address without a database.
start_postgres() {
  local name=$1 port tries
  shift
  need_postgres
  choose_data_dir "$name"
  init_cluster
  port=$(as_owner cat "$PG_DIR/port" 2>/dev/null || true)
  for tries in 1 2 3 4 5 6; do
    [ -n "$port" ] || port=$((20000 + RANDOM % 30000))
    if as_owner "$POSTGRES_BIN/pg_ctl" -D "$PG_DIR/cluster" -l "$PG_DIR/server.log" -w -t 30 -s \
      -o "-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories='' $*" start >"$LOG_DIR/pg_ctl.log" 2>&1; then
      printf '%s\n' "$port" | as_owner tee "$PG_DIR/port" >/dev/null
      PG_STARTED=1
      DATABASE_SERVER=postgres://upland:$(as_owner cat "$PG_DIR/password")@127.0.0.1:$port
      return
    fi
    if as_owner "$POSTGRES_BIN/pg_ctl" -D "$PG_DIR/cluster" status >/dev/null 2>&1; then
      fail "the private database in $PG_DIR runs already: another ./run is at work"
    fi
    # The port may be taken, or the lock file of a killed server not yet gone.
    port=
    sleep 0.3
  done
  fail "the database does not start after $tries tries; see $PG_DIR/server.log"
}

stop_postgres() {
  [ -n "${PG_STARTED:-}" ] || return 0
  PG_STARTED=
  as_owner "$POSTGRES_BIN/pg_ctl" -D "$PG_DIR/cluster" -m fast -w -s stop || true
}
