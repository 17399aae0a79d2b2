#!/usr/bin/env bash
# Checks the types of the page and tries it in a browser, as a person would.
#   run.sh COMMAND
set -euo pipefail
GAZE=$(realpath "$1")
export GAZE
cd "$(dirname "$0")"
command -v npm >/dev/null || { apt-get install -y -qq --no-install-recommends npm >/dev/null; }
PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund --loglevel=error
npm run --silent types
log=$(mktemp)
trap 'rm -f "$log"' EXIT
if ! npm test --silent >"$log" 2>&1; then
  cat "$log" >&2
  exit 1
fi
grep -E '^# (tests|pass) ' "$log"
