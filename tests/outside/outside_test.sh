#!/usr/bin/env bash
# Installs Gaze, moves the installed tree, and builds a program against it: found by CMake, then by
# pkg-config. Then runs the installed command's demo from another folder.
#   outside_test.sh BUILD_FOLDER COMPILER [FLAGS]
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

cmake --install "$1" --prefix "$work/first" >/dev/null
mv "$work/first" "$work/moved"

cmake -S "$here" -B "$work/build" -G Ninja -DCMAKE_CXX_COMPILER="$2" -DCMAKE_CXX_FLAGS="${3:-}" \
  -DCMAKE_PREFIX_PATH="$work/moved" >/dev/null
cmake --build "$work/build" >/dev/null
"$work/build/outside" | grep -x "outside works"

pc=$(find "$work/moved" -name gaze.pc -printf '%h')
export PKG_CONFIG_PATH=$pc
if grep -q "$work\|$1" "$pc/gaze.pc"; then echo "gaze.pc holds a path of this machine" >&2; exit 1; fi
"$2" -std=c++20 ${3:-} "$here/outside.cpp" -o "$work/by-pkg-config" $(pkg-config --cflags --libs gaze)
"$work/by-pkg-config" | grep -x "outside works"

(cd "$work" && moved/bin/gaze demo | grep -x "wrote gaze-demo/moment-1.png (.*)")
