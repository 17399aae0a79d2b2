#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "file/read.hpp"

namespace gaze {
namespace {

constexpr auto kWalk = static_cast<std::size_t>(Gait::walk);

// In a ground level points have no height of their own; what hovers or hangs needs one.
void read_hops(TableReader& reader, Move& move, Plane plane) {
  const bool hops = move.gait == Gait::hop;
  const bool is_raised = plane == Plane::ground;
  const Allowed metres{0.0, 1000.0, "m"};
  move.hop_height = reader.number("hop_height", hops ? 0.5 : 0.0, {0.0, 1000.0, "m", hops});
  move.hop_length = reader.number("hop_length", 2.0 * move.hop_height, {0.0, 1000.0, "m", hops});
  move.hop_rest = reader.duration("hop_rest", hops ? 0.5 : 0.0, {0.0, 3600.0, "s"});
  const bool hangs = move.gait == Gait::drop;
  const double usual_drop = hangs ? (is_raised ? 2.0 : 0.0) : move.hop_height;
  move.drop_height = reader.number("drop_height", usual_drop, metres);
  const double usual_hover = move.gait == Gait::hover && is_raised ? 1.5 : 0.0;
  move.hover_height = reader.number("hover_height", usual_hover, metres);
}

// Two degrees, the lesser first, about the placed facing or the level.
std::array<double, 2> read_limits(TableReader& reader, const std::string& key, double most) {
  const std::array<double, 2> all{-most, most};
  const Node* node = reader.find(key);
  if (node == nullptr) return all;
  const auto limits = reader.numbers(*node, reader.path_of(key), 2, {-most, most, "degrees"});
  if (!limits) return all;
  if ((*limits)[0] <= (*limits)[1]) return {(*limits)[0], (*limits)[1]};
  reader.fault(node->place, fmt::format("{} is [{:g}, {:g}]; the lesser angle comes first",
                                        reader.path_of(key), (*limits)[0], (*limits)[1]));
  return all;
}

// Only what stands on its post has a facing to turn about.
void read_turret(TableReader& reader, Move& move) {
  move.turn_limits = read_limits(reader, "turn_limits", 180.0);
  move.tilt_limits = read_limits(reader, "tilt_limits", 90.0);
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
  TableReader reader(context, table, path);
  Move move;
  move.gait = static_cast<Gait>(
      reader.word("gait", {"fixed", "walk", "hop", "hover", "drop"}).value_or(kWalk));
  move.speed = reader.number("speed", 2.0, {0.0, 1000.0, "m/s"});
  move.turn_rate =
      Angle::from_degrees(reader.number("turn_rate", 360.0, {0.0, 36'000.0, "degrees/s"}));
  move.stop_distance = reader.optional_number("stop_distance", {0.0, 1000.0, "m"});
  move.step_height = reader.number("step_height", std::min(0.3, height / 2.0), {0.0, 1000.0, "m"});
  move.step_reach = reader.number("step_reach", 0.0, kReach);
  move.quiet_reach = reader.number("quiet_reach", 0.0, kReach);
  move.stride = reader.number("stride", 0.75, {0.01, 1000.0, "m"});
  move.route = static_cast<RouteStyle>(reader.word("route", {"path", "straight"}).value_or(0));
  move.slope = Angle::from_degrees(reader.number("slope", 40.0, {0.0, 89.0, "degrees"}));
  move.repath_distance = reader.number("repath_distance", 1.0, {0.0, 1000.0, "m"});
  move.stuck_time = reader.duration("stuck_time", 1.5, {0.0, 3600.0, "s", true});
  move.no_path =
      static_cast<NoPath>(reader.word("no_path", {"nearest", "wait", "give up"}).value_or(0));
  move.acceleration = reader.number("acceleration", 0.0, {0.0, 10'000.0, "m/s2", true});
  move.face = static_cast<Face>(
      reader.word("face", {"target", "travel", "always target", "keep"}).value_or(0));
  move.chase = static_cast<ChaseStyle>(reader.word("chase", {"at", "ahead"}).value_or(0));
  move.keep_away = reader.number("keep_away", 0.0, {0.0, 1000.0, "m"});
  move.pace = reader.number("pace", 0.0, {0.0, 100.0, "", true});
  if (reader.find("pace_of") != nullptr) move.pace_of = reader.needed_name("pace_of");
  move.follows = reader.names("follows");
  move.follow_distance = reader.number("follow_distance", 2.0, {0.0, 1000.0, "m"});
  move.flee_distance = reader.number("flee_distance", 8.0, {0.0, 1000.0, "m", true});
  move.flee_to =
      static_cast<FleeStyle>(reader.word("flee_to", {"far side", "out of sight"}).value_or(0));
  read_hops(reader, move, plane);
  read_turret(reader, move);
  move.search_radius = reader.number("search_radius", 3.0, {0.0, 1000.0, "m"});
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
  TableReader reader(context, table, path);
  Wander wander;
  wander.style =
      static_cast<Wander::Style>(reader.word("style", {"to and fro", "free"}).value_or(0));
  if (reader.find("area") != nullptr) wander.area = reader.needed_name("area");
  wander.pause = reader.duration("pause", 0.3, {0.0, 3600.0, "s"});
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
