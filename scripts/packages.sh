# shellcheck shell=bash
# What is missing from Debian's packages. Sourced by `run`.

as_root() {
  if [ "$(id -u)" = 0 ]; then
    "$@"
  elif command -v sudo >/dev/null 2>&1; then
    sudo "$@"
  else
    fail "this takes an administrator once: $*"
  fi
}

# Installs packages, keeping Debian from making a cluster of its own on the usual port.
install_packages() {
  command -v apt-get >/dev/null 2>&1 || fail "these packages are missing and there is no apt-get: $*"
  say "installing from Debian's packages: $*"
  local rule=/etc/postgresql-common/createcluster.d/upland-almanac.conf
  as_root mkdir -p "$(dirname "$rule")"
  printf 'create_main_cluster = false\n' | as_root tee "$rule" >/dev/null
  as_root env DEBIAN_FRONTEND=noninteractive apt-get -qq update >"$LOG_DIR/packages.log" 2>&1 ||
    fail "Debian's package lists cannot be read; see $LOG_DIR/packages.log"
  as_root env DEBIAN_FRONTEND=noninteractive apt-get -qq install --no-install-recommends -y "$@" \
    >>"$LOG_DIR/packages.log" 2>&1 || fail "packages cannot be installed; see $LOG_DIR/packages.log"
}

postgres_bin() {
  local candidate
  for candidate in /usr/lib/postgresql/*/bin; do
    if [ -x "$candidate/initdb" ] && [ -x "$candidate/postgres" ]; then
      printf '%s\n' "$candidate"
      return
    fi
  done
  return 1
}

need_rust() {
  command -v cargo >/dev/null 2>&1 || fail "Rust is missing: install it with rustup (the version is in Cargo.toml)"
  command -v cc >/dev/null 2>&1 || install_packages gcc libc6-dev
}

need_postgres() {
  postgres_bin >/dev/null || install_packages postgresql
  POSTGRES_BIN=$(postgres_bin) || fail "PostgreSQL was installed but its programs cannot be found"
}

# The browser's real path: the wrapper in /usr/bin leaves browsers behind.
find_browser() {
  local candidate
  for candidate in /usr/lib/chromium/chromium-headless-shell /usr/lib/chromium/headless_shell /usr/lib/chromium/chromium; do
    if [ -x "$candidate" ]; then
      printf '%s\n' "$candidate"
      return
    fi
  done
  return 1
}

need_browser() {
  if ! find_browser >/dev/null || ! command -v chromedriver >/dev/null 2>&1; then
    install_packages chromium-headless-shell chromium-driver || install_packages chromium chromium-driver
  fi
  UPLAND_BROWSER=$(find_browser) || fail "Chromium was installed but cannot be found"
  export UPLAND_BROWSER
}
