#include "values/level_bytes.hpp"

#include "values/field_archive.hpp"

namespace gaze {

std::string bytes_of_level(const Level& as_given) {
  std::string bytes;
  Saver to(bytes);
  FieldArchive<Saver> of(to);
  Level& level = const_cast<Level&>(as_given);  // what is written is not changed
  const auto list = [&](auto& parts, auto&& one) {
    to.size(parts.size(), 1);
    for (auto& part : parts) one(part);
  };
  fields(of, level);
  list(level.materials, [&](Material& material) {
    archive(to, material.name);
    fields(of, material);
  });
  list(level.teams, [&](Team& team) { archive_all(to, team.name, team.hostile); });
  list(level.kinds, [&](Kind& kind) {
    archive(to, kind.name);
    fields(of, kind);
  });
  list(level.solids, [&](Solid& solid) {
    archive(to, solid.form);
    fields(of, solid);
  });
  list(level.zones, [&](Zone& zone) { fields(of, zone); });
  list(level.links, [&](Link& link) { fields(of, link); });
  list(level.starts, [&](Start& start) { fields(of, start); });
  bool has_bounds = level.bounds.has_value();
  archive_all(to, level.round.ends_when_caught, level.round.ends_without, level.round.resets,
              has_bounds);
  if (level.bounds) fields(of, *level.bounds);
  list(level.agents, [&](Agent& agent) {
    archive(to, agent.is_leftover);
    fields(of, agent);
  });
  return bytes;
}

}  // namespace gaze
