# Read by the other scripts: what they share. Installs what is missing, configures, builds, takes the time.

cd "$(dirname "${BASH_SOURCE[0]}")/.." || exit 1

# wanted_packages PART: those of the list up to the end of that part.
wanted_packages() {
  awk -v last="[$1]" '/^\[/ { if (done) exit; done = ($0 == last); next }
                      { sub(/#.*/, "") } NF { print $1 }' scripts/packages.txt
}

missing_packages() {
  for package in $(wanted_packages "$1"); do
    dpkg-query -W -f='${db:Status-Status}' "$package" 2>/dev/null | grep -qx installed || echo "$package"
  done
}

# install_missing PART
install_missing() {
  local missing as_root=()
  missing=$(missing_packages "$1")
  [ -n "$missing" ] || return 0
  echo "Installing:" $missing
  [ "$(id -u)" -eq 0 ] || as_root=(sudo)
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive \
    apt-get install -y -qq --no-install-recommends $missing >/dev/null
}

# build PRESET [TARGET...]: the whole output only where it fails.
build() {
  local preset=$1 log
  shift
  log=$(mktemp)
  if ! { cmake --preset "$preset" && cmake --build --preset "$preset" ${1:+--target "$@"}; } >"$log" 2>&1; then
    cat "$log" >&2
    rm "$log"
    return 1
  fi
  rm "$log"
}

# part WHAT COMMAND...: says what begins, and afterwards how long it took.
part() {
  local what=$1 began=$SECONDS
  shift
  echo "== $what"
  "$@"
  echo "   $((SECONDS - began)) s: $what"
}

# all_tests FOLDER: those of the test program in eight parts, two at once. Starting it for each test, as ctest does,
# takes longer than most tests.
all_tests() {
  seq 0 7 | xargs -P 2 -I PART env GTEST_TOTAL_SHARDS=8 GTEST_SHARD_INDEX=PART "$1/tests/gaze_tests" --gtest_brief=1
}
