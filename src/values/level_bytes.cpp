#include "values/level_bytes.hpp"

#include "values/field_archive.hpp"

namespace gaze {
namespace {

template <typename Archive>
void archive_level(Archive& to, Level& level) {
  FieldArchive<Archive> of(to);
  const auto list = [&](auto& parts, auto&& one) {
    const std::size_t count = to.size(parts.size(), 1);
    if constexpr (Archive::kLoads) parts.assign(count, {});
    for (auto& part : parts) one(part);
  };
  archive(to, level.named_kinds);
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
  if constexpr (Archive::kLoads) {
    if (has_bounds) level.bounds.emplace();
  }
  if (level.bounds) fields(of, *level.bounds);
  list(level.agents, [&](Agent& agent) {
    archive(to, agent.is_spare);
    fields(of, agent);
  });
}

}  // namespace

std::string bytes_of_level(const Level& level) {
  std::string bytes;
  Saver to(bytes);
  archive_level(to, const_cast<Level&>(level));  // what is written is not changed
  return bytes;
}

Level level_of_bytes(std::string_view bytes) {
  Level level;
  Loader from(bytes);
  archive_level(from, level);
  if (from.left() > 0) throw Damaged{};
  return level;
}

}  // namespace gaze
