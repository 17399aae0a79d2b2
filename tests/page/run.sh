#!/usr/bin/env bash
# Checks the types of the page's modules, and tries the page in a browser as a person would.
#   run.sh COMMAND
set -euo pipefail
GAZE=$(realpath "$1")
export GAZE
cd "$(dirname "$0")"
PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund --loglevel=error
npm run --silent types
log=$(mktemp)
trap 'rm -f "$log"' EXIT
npm test --silent >"$log" 2>&1 || { cat "$log" >&2; exit 1; }
awk '$2 == "pass" { print "result: " $3 " tests" }' "$log"
