# shellcheck shell=bash
# One way of telling what goes on. Sourced by `run`.

say() { printf '%s\n' "· $*"; }
fail() {
  printf '%s\n' "Upland Almanac: $*" >&2
  exit 1
}
