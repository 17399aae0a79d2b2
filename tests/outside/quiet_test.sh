#!/usr/bin/env bash
# The library itself never prints, aborts or exits: its objects ask for none of these.
#   quiet_test.sh LIBRARY...
set -euo pipefail
symbols=$(nm --undefined-only --demangle "$@" | awk '$1 == "U" { $1 = ""; print substr($0, 2) }' | sort -u)
[ "$(wc -l <<<"$symbols")" -gt 50 ]  # it did list something
if grep -nxE '(printf|puts|putchar|fputs|fputc|fwrite|abort|exit|_exit|quick_exit)(@.*)?|std::(cout|cerr|clog)(@.*)?' <<<"$symbols"; then
  echo "the library prints, aborts or exits" >&2
  exit 1
fi
echo quiet
