# Shared by the other scripts: installs missing packages, configures, builds, and reports each part on one line.

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
  # Debian's npm needs hundreds of packages. Other builds of Node.js include npm.
  [ "$1" != page ] || command -v npm >/dev/null || echo npm
}

# install_missing PART
install_missing() {
  local missing as_root=()
  missing=$(missing_packages "$1")
  [ -n "$missing" ] || return 0
  [ "$(id -u)" -eq 0 ] || as_root=(sudo)
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing
}

# packages PART: installs missing packages. Asks for the password of sudo first, because a part has no terminal.
packages() {
  [ "$(id -u)" -eq 0 ] || [ -z "$(missing_packages "$1")" ] || sudo -v
  part "packages" "30 s on a fresh machine" install_missing "$1"
}

# build PRESET TARGET...: prints what the compiler says only if it fails.
build() {
  local log
  log=$(mktemp)
  if ! { cmake --preset "$1" && cmake --build --preset "$1" --target "${@:2}"; } >"$log" 2>&1; then
    cat "$log" >&2
    rm "$log"
    return 1
  fi
  rm "$log"
}

declare -A part_process part_log
set -m # each part is a process group, so that all of it ends with the script
trap 'for process in "${part_process[@]}"; do kill -- "-$process" 2>/dev/null || true; done' EXIT

# begin_part NAME COMMAND...: starts a part beside the others. `end_part` waits for it.
begin_part() {
  local name=$1
  part_log[$name]=$(mktemp)
  ( set -euo pipefail; SECONDS=0; "${@:2}"; echo "took: $SECONDS" ) >"${part_log[$name]}" 2>&1 </dev/null &
  part_process[$name]=$!
}

# end_part NAME EXPECTED: prints one line: the name, the time that the part may take, the time that it took, and its last
# output of the form "result: ...". If the part has failed, prints all its output and ends the script.
end_part() {
  local name=$1 status=0 log=${part_log[$1]}
  printf '%s (%s) ... ' "$1" "$2"
  wait "${part_process[$name]}" || status=$?
  unset "part_process[$name]"
  if [ "$status" -ne 0 ]; then
    echo "failed"
    cat "$log" >&2
    rm "$log"
    exit 1
  fi
  echo "$(sed -n 's/^took: //p' "$log" | tail -1) s$(sed -n 's/^result: /, /p' "$log" | tail -1)"
  rm "$log"
}

# part NAME EXPECTED COMMAND...: runs a part to its end.
part() {
  begin_part "$1" "${@:3}"
  end_part "$1" "$2"
}

# Tests of levels at the size limits, and of all calls of a documentation page. Only scripts/check runs them.
long_tests=Limits.*:Soak.*:Pages.TryingALevelOutIsAsItSays:Command.DemoPlaysAndWritesItsPictures

# all_tests FOLDER: runs the test program in shards on all cores. Starting it once per test, as ctest does, takes longer
# than most tests. Prints the whole output of a shard that fails. Fails unless each test ran once.
all_tests() {
  local program=$1/tests/gaze_tests shards=48 folder expected ran
  folder=$(mktemp -d)
  export program shards folder
  seq 0 $((shards - 1)) | xargs -P "$(nproc)" -n 1 bash -c '
    GTEST_TOTAL_SHARDS=$shards GTEST_SHARD_INDEX=$0 "$program" --gtest_brief=1 >"$folder/$0" 2>&1 ||
      { cat "$folder/$0"; exit 1; }'
  expected=$("$program" --gtest_list_tests | grep -c '^  ')
  ran=$(awk '/^\[==========\] [0-9]+ tests? .*ran/ { count += $2 } END { print count + 0 }' "$folder"/*)
  rm -r "$folder"
  [ "$ran" -eq "$expected" ] || { echo "$ran tests ran, of $expected"; return 1; }
  echo "result: $ran tests"
}
