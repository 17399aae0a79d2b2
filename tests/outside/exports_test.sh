#!/usr/bin/env bash
# Every function that shared libraries of Gaze offer is one of the public headers.
#   exports_test.sh LIBRARY...
set -euo pipefail
headers=$(cd "$(dirname "$0")/../../include/gaze" && pwd)
names=$(nm --dynamic --defined-only --demangle "$@" | sed -nE 's/^[0-9a-f]+ T (gaze::[^(]*).*/\1/p' |
  sed -E 's/.*:://; s/\[abi.*//; s/^~//' | sort -u)
[ "$(wc -l <<<"$names")" -gt 100 ]  # it did list something
for name in $names; do
  case $name in operator*) continue ;; esac
  grep -rqw "$name" "$headers" || { echo "offered, but in no public header: $name" >&2; fault=1; }
done
exit ${fault:-0}
