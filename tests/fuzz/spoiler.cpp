#include "fuzz/spoiler.hpp"

namespace gaze::fuzz {
namespace {

void visit_all(Spoiler& spoiler, Level& level) {
  fields(spoiler, level);
  for (Material& material : level.materials) {
    spoiler.text("", material.name);
    fields(spoiler, material);
  }
  for (Team& team : level.teams) {
    spoiler.text("", team.name);
    for (std::uint32_t& other : team.hostile) spoiler.team("", other);
  }
  for (Kind& kind : level.kinds) {
    spoiler.text("", kind.name);
    fields(spoiler, kind);
  }
  for (Solid& solid : level.solids) {
    spoiler("", solid.form);
    fields(spoiler, solid);
  }
  for (Zone& zone : level.zones) fields(spoiler, zone);
  for (Link& link : level.links) fields(spoiler, link);
  for (Start& start : level.starts) fields(spoiler, start);
  if (level.bounds) fields(spoiler, *level.bounds);
  for (std::uint32_t& team : level.round.ends_without) spoiler.team("", team);
  for (Agent& agent : level.agents) fields(spoiler, agent);
  for (Figure& figure : level.figures) fields(spoiler, figure);
  for (Expectation& one : level.expectations) fields(spoiler, one);
}

}  // namespace

void spoil(Level& level, scenes::Random& random) {
  Level copy = level;
  Spoiler counts(random, static_cast<std::size_t>(-1));
  visit_all(counts, copy);
  Spoiler spoiler(random, random.next() % std::max<std::size_t>(1, counts.count()));
  visit_all(spoiler, level);
}

}  // namespace gaze::fuzz
