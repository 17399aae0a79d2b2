#include <algorithm>

#include "gaze/navigation.hpp"

namespace gaze {
namespace {

BodySize hovering_at(const Level& level, const Kind& kind, double altitude) {
  BodySize body = body_size(level, kind);
  body.altitude = altitude;
  return body;
}

}  // namespace

double altitude_of(const Kind& kind, const Vector3d& at) {
  const Move& move = kind.move;
  if (move.gait == Gait::hover) return at.z() + move.hover_height;
  return move.gait == Gait::drop ? at.z() + move.drop_height : at.z();
}

BodySize body_size(const Level& level, const Kind& kind) {
  const Move& move = kind.move;
  BodySize body;
  body.radius = kind.radius;
  body.height = kind.height;
  body.slope = move.slope;
  body.step_height = move.step_height;
  for (std::uint32_t i = 0; i < level.zones.size(); ++i) {
    const auto& names = level.zones[i].closed_to;
    const bool is_closed = std::any_of(names.begin(), names.end(), [&](const std::string& name) {
      return goes_by(level, kind, name);
    });
    if (is_closed) body.closed.push_back(i);
  }
  for (std::uint32_t i = 0; i < level.solids.size(); ++i) {
    const Solid& solid = level.solids[i];
    const bool is_door = solid.form == Solid::Form::door;
    if (is_door && opens_for(level, solid, kind)) body.opens.push_back(i);
  }
  if (move.gait == Gait::hover) {
    body.step_height = 0.0;
    body.altitude = altitude_of(kind, {0.0, 0.0, level.ground_height.value_or(0.0)});
    return body;
  }
  body.hop_height = move.hop_height;
  body.hop_length = move.hop_length;
  body.drop_height = move.drop_height;
  return body;
}

BodySize body_size(const Level& level, const Agent& agent) {
  const Kind& kind = level.kind_of(agent);
  if (kind.move.gait != Gait::hover) return body_size(level, kind);
  return hovering_at(level, kind, altitude_of(kind, agent.position));
}

}  // namespace gaze
