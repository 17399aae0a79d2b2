#pragma once

#include <cstdio>
#include <cstdlib>
#include <gaze/gaze.hpp>
#include <string>

// What the seven programs share: a garden with a hedge, made in code, and a check that says what
// failed.

inline void need(bool holds, const char* what) {
  if (holds) return;
  std::printf("failed: %s\n", what);
  std::exit(1);
}

inline gaze::Kind pruner() {
  gaze::Kind kind;
  kind.name = "pruner";
  kind.team = 0;
  kind.health = 30.0;
  kind.sight.emplace().range = 8.0;
  kind.sight->field_of_view = gaze::Angle::from_degrees(360.0);
  kind.sight->remember = gaze::Duration::from_seconds(1.0);
  kind.move.emplace().speed = 2.0;
  gaze::Attack shears;
  shears.name = "shears";
  shears.range = 1.0;
  shears.damage = 10.0;
  shears.cooldown = gaze::Duration::from_seconds(0.5);
  kind.attacks = {shears};
  gaze::Rule chase;
  chase.cause = gaze::Cause::sees;
  chase.reaction.mode = gaze::Mode::chase;
  kind.when.rules = {chase};
  return kind;
}

inline gaze::Level garden() {
  gaze::Level level;
  level.name = "garden";
  level.teams = {{"caretakers", {1}, {}}, {"visitors", {}, {}}};
  gaze::Kind guest;
  guest.name = "guest";
  guest.team = 1;
  level.kinds = {pruner(), guest};
  gaze::Solid hedge;
  hedge.id = "hedge";
  hedge.form = gaze::Solid::Form::wall;
  hedge.points = {{4.0, -3.0}, {4.0, 3.0}};
  level.solids = {hedge};
  gaze::Agent player;
  player.id = "player";
  player.kind = 1;
  player.driver = gaze::Driver::host;
  player.position = {20.0, 0.0, 0.0};
  level.agents = {player};
  return level;
}
