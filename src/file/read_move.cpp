#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "file/read.hpp"

namespace gaze {
namespace {

// What gets about by hops alone has to get somewhere.
void check_above_zero(TableReader& reader, const std::string& key, double value) {
  const Node* node = reader.table().find(key);
  if (node == nullptr || value > 0.0) return;
  reader.fault(node->place,
               fmt::format("{} is {}; above 0 to 1000 m is allowed for the gait \"hop\"",
                           reader.path_of(key), found(*node)));
}

// In a ground level points have no height of their own; what hovers or hangs needs one.
void read_hops(TableReader& reader, Move& move, Plane plane) {
  const bool hops = move.gait == Gait::hop;
  const bool is_raised = plane == Plane::ground;
  move.hop_height = reader.number("hop_height", hops ? 0.5 : 0.0);
  move.hop_length = reader.number("hop_length", 2.0 * move.hop_height);
  if (hops) {
    check_above_zero(reader, "hop_height", move.hop_height);
    check_above_zero(reader, "hop_length", move.hop_length);
  }
  move.hop_rest = reader.duration("hop_rest", hops ? 0.5 : 0.0);
  const bool hangs = move.gait == Gait::drop;
  const double usual_drop = hangs ? (is_raised ? 2.0 : 0.0) : move.hop_height;
  move.drop_height = reader.number("drop_height", usual_drop);
  const double usual_hover = move.gait == Gait::hover && is_raised ? 1.5 : 0.0;
  move.hover_height = reader.number("hover_height", usual_hover);
}

// Two degrees, the lesser first, about the placed facing or the level.
std::array<double, 2> read_limits(TableReader& reader, const std::string& key) {
  const Allowed& allowed = reader.key(key).allowed;
  const std::array<double, 2> all{allowed.low, allowed.high};
  const auto limits = reader.numbers(key);
  if (!limits) return all;
  if ((*limits)[0] <= (*limits)[1]) return {(*limits)[0], (*limits)[1]};
  reader.fault(reader.table().find(key)->place,
               fmt::format("{} is [{:g}, {:g}]; the lesser angle comes first", reader.path_of(key),
                           (*limits)[0], (*limits)[1]));
  return all;
}

// Only what stands on its post has a facing to turn about.
void read_turret(TableReader& reader, Move& move) {
  move.turn_limits = read_limits(reader, "turn_limits");
  move.tilt_limits = read_limits(reader, "tilt_limits");
  if (move.gait == Gait::fixed) return;
  for (const char* key : {"turn_limits", "tilt_limits"}) {
    const Node* given = reader.table().find(key);
    if (given == nullptr) continue;
    reader.fault(given->place, fmt::format("{} is for the gait \"fixed\"", reader.path_of(key)));
  }
}

}  // namespace

Move read_move(ReadContext& context, const Node& table, const std::string& path, double height,
               Plane plane) {
  TableReader reader(context, table, path, kMoveKeys);
  Move move;
  move.gait = reader.word_as<Gait>("gait");
  move.speed = reader.number("speed");
  move.turn_rate = reader.degrees("turn_rate");
  move.stop_distance = reader.optional_number("stop_distance");
  move.step_height = reader.number("step_height", std::min(0.3, height / 2.0));
  move.step_reach = reader.number("step_reach");
  move.quiet_reach = reader.number("quiet_reach");
  move.stride = reader.number("stride");
  move.route = reader.word_as<RouteStyle>("route");
  move.slope = reader.degrees("slope");
  move.repath_distance = reader.number("repath_distance");
  move.stuck_time = reader.duration("stuck_time");
  move.no_path = reader.word_as<NoPath>("no_path");
  move.acceleration = reader.number("acceleration", 0.0);
  move.face = reader.word_as<Face>("face");
  move.chase = reader.word_as<ChaseStyle>("chase");
  move.keep_away = reader.number("keep_away");
  move.pace = reader.number("pace", 0.0);
  if (reader.find("pace_of") != nullptr) move.pace_of = reader.needed_name("pace_of");
  move.follows = reader.names("follows");
  move.follow_distance = reader.number("follow_distance");
  move.flee_distance = reader.number("flee_distance");
  move.flee_to = reader.word_as<FleeStyle>("flee_to");
  read_hops(reader, move, plane);
  read_turret(reader, move);
  move.search_radius = reader.number("search_radius");
  reader.finish();
  const Node* pace = table.find("pace");
  if ((pace != nullptr) != (table.find("pace_of") != nullptr)) {
    reader.fault(pace != nullptr ? pace->place : table.find("pace_of")->place,
                 fmt::format("{}.pace and {}.pace_of go together", path, path));
  }
  const Node* step = table.find("step_height");
  if (step != nullptr && !(move.step_height < height)) {
    reader.fault(step->place,
                 fmt::format("{}.step_height is {}; below the height of {} m is allowed", path,
                             move.step_height, height));
  }
  return move;
}

Wander read_wander(ReadContext& context, const Node& table, const std::string& path) {
  TableReader reader(context, table, path, kWanderKeys);
  Wander wander;
  wander.style = reader.word_as<Wander::Style>("style");
  if (reader.find("area") != nullptr) wander.area = reader.needed_name("area");
  wander.pause = reader.duration("pause");
  reader.finish();
  return wander;
}

// A hopper gets on by whole hops; the rate is that of hops on level ground.
void set_hop_speeds(ReadContext& context, Level& level) {
  for (Kind& kind : level.kinds) {
    Move& move = kind.move;
    if (move.gait == Gait::hop && level.gravity == 0.0) {
      const Place place =
          level.origin(fmt::format("kind.{}.move.gait", kind.name)).value_or(kind.place);
      context.faults.add(place, fmt::format("kind.{}.move.gait is \"hop\" in a level without "
                                            "gravity: it would never come down",
                                            kind.name));
    }
    if (move.gait != Gait::hop || level.gravity == 0.0) continue;
    const double seconds = 2.0 * std::sqrt(2.0 * move.hop_height / level.gravity);
    move.speed = move.hop_length / (seconds + move.hop_rest.seconds());
  }
}

}  // namespace gaze
