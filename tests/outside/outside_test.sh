#!/usr/bin/env bash
# Installs Gaze, moves the installed tree, and builds programs against it: found by CMake, then by
# pkg-config; all of it, then the core alone, which drags in no other library. Then Gaze as a part of
# somebody's sources, the package for Debian, and the installed command's demo from another folder.
#   outside_test.sh BUILD_FOLDER COMPILER [FLAGS]
set -euo pipefail
shopt -s inherit_errexit
here=$(cd "$(dirname "$0")" && pwd)
build=$1 compiler=$2 flags=${3:-}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

cmake --install "$build" --prefix "$work/first" >/dev/null
mv "$work/first" "$work/moved"
pc=$(find "$work/moved" -name gaze.pc -printf '%h')
export PKG_CONFIG_PATH=$pc LD_LIBRARY_PATH=$pc/..
if grep -q "$work\|$build" "$pc"/*.pc; then echo "a .pc file holds a path of this machine" >&2; exit 1; fi

# by_cmake FOLDER COMPILER: builds a project of its own there, prints the program's folder.
by_cmake() {
  cmake -S "$here/$1" -B "$work/$1-$2" -G Ninja -DCMAKE_CXX_COMPILER="$2" -DCMAKE_CXX_FLAGS="$flags" \
    -DCMAKE_PREFIX_PATH="$work/moved" >/dev/null
  cmake --build "$work/$1-$2" >"$work/log" || { cat "$work/log" >&2; false; }
  echo "$work/$1-$2"
}

# needs_only_the_core PROGRAM
needs_only_the_core() {
  local needed
  needed=$(ldd "$1")
  grep -q libfmt <<<"$needed"  # it does list what the program needs
  if grep -E 'cairo|assimp|polyclipping|gaze_(files|studies|pictures)' <<<"$needed"; then
    echo "a program that only looks drags these in" >&2
    exit 1
  fi
}

program=$(by_cmake all "$compiler")
"$program/outside" | grep -x "outside works"
"$compiler" -std=c++20 $flags "$here/all/outside.cpp" -o "$work/outside" $(pkg-config --cflags --libs gaze)
"$work/outside" | grep -x "outside works"

# What sanitizers add is not the same in both compilers.
compilers=$compiler
[[ $flags == *-fsanitize* ]] || compilers=$(for one in g++ clang++; do command -v "$one" >/dev/null && echo "$one"; done)
for one in $compilers; do
  program=$(by_cmake looks "$one")
  "$program/looks" | grep -x "looks works"
  needs_only_the_core "$program/looks"
  "$one" -std=c++20 $flags "$here/looks/looks.cpp" -o "$work/looks" $(pkg-config --cflags --libs gaze-core)
  "$work/looks" | grep -x "looks works"
  needs_only_the_core "$work/looks"
done

if [[ $flags != *-fsanitize* ]]; then
  hosts=$(by_cmake hosts "$compiler")
  for host in made_in_code waves tuning rollback own_world own_mover overlay; do
    "$hosts/$host" | grep -x "$host works"
    needs_only_the_core "$hosts/$host"
  done
fi

# From C and from Python, with nothing but the installed library and its header; and the game with a screen of its own,
# where somebody walks in, throws a pebble and asks for the senses to be shown.
if [ -e "$pc/gaze-c.pc" ] && [[ $flags != *-fsanitize* ]]; then
  examples=$here/../../examples
  demo=$(find "$work/moved" -name propagation_house.toml)
  from_c() { gcc -std=c11 -Wall -Wextra -Wpedantic -Werror "$examples/$1/main.c" -o "$work/$1" $(pkg-config --cflags --libs gaze-c "${@:2}") -lm; }
  from_c from_c
  "$work/from_c" >"$work/log"
  grep -q "pruner-1 noticed player by sight" "$work/log"
  grep -q "pruner-1 has 100 health again" "$work/log"
  if ldd "$work/from_c" | grep -q 'gaze_core'; then [ -e "$pc/../libgaze_core.so" ]; fi
  python3 "$examples/from_python/main.py" "$pc/../libgaze_c.so" "$demo" 3 | grep -x "13 of 13 agents are up after 3 s"
  from_c house sdl2
  "$here/play_house.sh" "$work/house" "$demo"
fi

cmake -S "$here/inside" -B "$work/inside" -G Ninja -DGAZE="$here/../.." >/dev/null
cmake --install "$work/inside" --prefix "$work/nothing" >/dev/null
if [ -e "$work/nothing" ]; then echo "as a part of other sources Gaze installs something" >&2; exit 1; fi

cpack --config "$build/CPackConfig.cmake" -B "$work/package" >/dev/null
grep -q '\./usr/bin/gaze$' <<<"$(dpkg-deb --contents "$work"/package/gaze_*.deb)"

# Without optimisation its demo takes minutes.
[[ $flags == *-O0* ]] || (cd "$work" && moved/bin/gaze demo | grep -x "wrote gaze-demo/moment-1.png (.*)")

# What lays out Eigen's types in another way is refused with a reason while the host is compiled; and what a strict
# host that has neither exceptions nor type information reads gives no warning.
echo '#include <gaze/aim.hpp>' >"$work/odd.cpp"
if "$compiler" -std=c++20 -fsyntax-only -DEIGEN_MAX_ALIGN_BYTES=0 $(pkg-config --cflags gaze-core) "$work/odd.cpp" 2>"$work/log"; then
  echo "Eigen without alignment is not refused" >&2
  exit 1
fi
grep -q "usual alignment" "$work/log"
printf '#include <gaze/gaze.hpp>\nint main() { return gaze::Simulation(gaze::Level{}).tick() == 0 ? 0 : 1; }\n' >"$work/strict.cpp"
for one in $compilers; do
  "$one" -std=c++20 $flags -Wall -Wextra -Wpedantic -Wconversion -Wsign-conversion -Wshadow -Wold-style-cast -Wundef -Werror \
    -fno-exceptions -fno-rtti "$work/strict.cpp" -o "$work/strict" $(pkg-config --cflags --libs gaze-core)
  "$work/strict"
done
