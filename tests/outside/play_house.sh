#!/usr/bin/env bash
# Plays the example that is a game, in a screen of its own and with real keys: up for a while, which the wall of the
# house does not stop at its gate; a pebble; the senses shown.
#   play_house.sh PROGRAM LEVEL [PICTURE]
set -euo pipefail
shopt -s inherit_errexit
work=$(mktemp -d)
# The screen finds a free number by itself, and says which.
Xvfb -displayfd 3 -screen 0 1280x800x24 3>"$work/number" >/dev/null 2>&1 &
screen=$!
trap 'kill $screen; rm -rf "$work"' EXIT
for _ in $(seq 100); do [ -s "$work/number" ] && break; sleep 0.1; done
export DISPLAY=:$(cat "$work/number") SDL_VIDEODRIVER=x11

"$1" "$2" 60 >"$work/log" &
game=$!
window=$(timeout 30 xdotool search --sync --name "The propagation house" | head -1)
xdotool windowfocus "$window" mousemove 700 400
xdotool keydown w
for _ in $(seq 300); do grep -q "thorn-reed-1 noticed player" "$work/log" && break; sleep 0.1; done
sleep 0.5
xdotool keyup w key space key Tab
for _ in $(seq 300); do grep -q "listener-1 heard the pebble of player" "$work/log" && break; sleep 0.1; done
if [ -n "${3:-}" ]; then import -window root "$3"; fi
xdotool key Escape
wait "$game"

grep -q "thorn-reed-1 noticed player by feeler" "$work/log"  # it has walked in past it
grep -q "listener-1 heard the pebble of player" "$work/log"
tail -1 "$work/log" | grep -E '^at 2\.50, [0-9.]+; pebbles thrown: 1; senses shown$'
