#include "navigation/body_size.hpp"

namespace gaze {
namespace {

BodySize body_of(const Level& level, const Openings& openings, const Somebody& who,
                 double altitude) {
  const Kind& kind = level.kinds[who.kind];
  const Move move = completed(level, kind);
  BodySize body;
  body.radius = kind.radius;
  body.height = kind.height;
  body.slope = move.slope;
  body.step_height = *move.step_height;
  for (std::uint32_t i = 0; i < openings.closed.size(); ++i) {
    if (openings.closed[i].means(who)) body.closed.push_back(i);
  }
  for (std::uint32_t i = 0; i < openings.opens.size(); ++i) {
    if (level.solids[i].form == Solid::Form::door && openings.opens_for(i, who))
      body.opens.push_back(i);
  }
  if (move.gait == Gait::hover) {
    body.step_height = 0.0;
    body.altitude = altitude;
    return body;
  }
  body.hop_height = *move.hop_height;
  body.hop_length = *move.hop_length;
  body.drop_height = *move.drop_height;
  return body;
}

std::uint32_t kind_number(const Level& level, const Kind& kind) {
  return static_cast<std::uint32_t>(&kind - level.kinds.data());
}

}  // namespace

double altitude_of(const Level& level, const Kind& kind, const Vector3d& at) {
  const Gait gait = kind.move ? kind.move->gait : Gait::fixed;
  if (gait != Gait::hover && gait != Gait::drop) return at.z();
  const Move move = completed(level, kind);
  return at.z() + (gait == Gait::hover ? *move.hover_height : *move.drop_height);
}

BodySize body_size(const Level& level, const Openings& openings, const Somebody& who) {
  const Kind& kind = level.kinds[who.kind];
  return body_of(level, openings, who, altitude_of(level, kind, level.agents[who.agent].position));
}

BodySize body_size(const Level& level, const Kind& kind) {
  const Openings openings(level);
  Somebody who;
  who.kind = kind_number(level, kind);
  who.tags = tag_bits(openings.tag_names, kind.tags);
  return body_of(level, openings, who,
                 altitude_of(level, kind, {0.0, 0.0, level.ground_height.value_or(0.0)}));
}

BodySize body_size(const Level& level, const Agent& agent) {
  const Openings openings(level);
  const auto number = static_cast<std::uint32_t>(&agent - level.agents.data());
  return body_size(level, openings,
                   {number, agent.kind, tag_bits(openings.tag_names, level.kind_of(agent).tags)});
}

}  // namespace gaze
