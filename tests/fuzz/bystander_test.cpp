// An agent that no agent looks for, and that touches no agent, changes no event of other agents.

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <gtest/gtest.h>

#include "fuzz/level_writer.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

struct Played {
  std::vector<std::string> events;  ///< Events of all agents except the bystander.
  bool is_bystander_met = false;
};

Played played(const Level& level) {
  Simulation simulation(level);
  Played result;
  // Not so long that who wanders comes to the end of endless ground, 64 m beyond all that there is.
  const int steps = std::min(120, 20 * level.ticks_per_second);
  for (int step = 0; step < steps; ++step) {
    simulation.step();
    for (const Event& event : simulation.events()) {
      const std::string& who = simulation.id_of(event.agent);
      if (who == "bystander") continue;
      result.is_bystander_met |= event.other && simulation.id_of(*event.other) == "bystander";
      result.events.push_back(fmt::format("{} {} {} {} {:.4f} {:.4f} {:.4f}", event.tick,
                                          name_of(event.what), who, event.attack, event.place.x(),
                                          event.place.y(), event.place.z()));
    }
  }
  return result;
}

/// Returns a position far from all agents, or a storey above or below one of them.
Vector3d place_aside(const Level& level, fuzz::Choices& choices) {
  const double side = choices.one_in(2) ? 1.0 : -1.0;
  const Vector3d near =
      level.agents[choices.below(static_cast<std::uint32_t>(level.agents.size()))].position;
  if (level.plane == Plane::space && choices.one_in(2)) {
    double tallest = 0.0;
    for (const Kind& kind : level.kinds) tallest = std::max(tallest, kind.height);
    return near +
           Vector3d{choices.between(-1.0, 1.0), choices.between(-1.0, 1.0), side * (tallest + 1.5)};
  }
  const double distance = choices.of<double>({100.0, 500.0, 6000.0});
  if (level.plane == Plane::upright) return near + Vector3d{side * distance, 0.0, 0.0};
  return near + Vector3d{side * distance, choices.between(-300.0, 300.0), 0.0};
}

std::optional<Level> with_bystander(Level level, fuzz::Choices& choices) {
  Kind kind;
  kind.name = "bystander";
  kind.team = kNoTeam;
  kind.radius = 0.3;
  kind.height = 1.0;
  level.kinds.push_back(kind);
  Agent agent;
  agent.id = "bystander";
  agent.kind = static_cast<std::uint32_t>(level.kinds.size() - 1);
  agent.position = place_aside(level, choices);
  level.agents.push_back(agent);
  if (!validate(level).empty()) return std::nullopt;  // out of bounds
  return level;
}

// The point at which a path crosses the boundary of an area is found by iteration, to a micrometre.
bool has_areas(const Level& level) {
  return std::any_of(level.zones.begin(), level.zones.end(),
                     [](const Zone& zone) { return zone.cost != 1.0 || !zone.closed_to.empty(); });
}

// An agent avoids bodies that it can meet within a second.
bool is_anybody_fast(const Level& level) {
  return std::any_of(level.kinds.begin(), level.kinds.end(),
                     [](const Kind& kind) { return kind.move && kind.move->speed > 50.0; });
}

bool is_left_out(const Level& level) {
  return level.agents.empty() || !level.starts.empty() || level.bounds || has_areas(level) ||
         is_anybody_fast(level);
}

TEST(Bystander, ChangesNothingForOthers) {
  std::vector<std::string> others;
  std::size_t all = 0;
  std::size_t events = 0;
  for (std::uint64_t seed = 60'000; all < testing::rounds(400); ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level || is_left_out(*level)) continue;
    fuzz::Choices choices(seed);
    const auto with = with_bystander(*level, choices);
    if (!with) continue;
    const Played together = played(*with);
    if (together.is_bystander_met) continue;  // an agent looks for the bystander
    const Played alone = played(*level);
    ++all;
    events += alone.events.size();
    if (alone.events != together.events) others.push_back(std::to_string(seed));
  }
  EXPECT_EQ(others, std::vector<std::string>{});
  EXPECT_GT(events, all);
}

}  // namespace
}  // namespace gaze
