// Hundreds of levels, each at a few steps a second and at 240: everybody is at the same places at
// the same times, up to what goes by steps: each decision waits for the next one, and what it leads
// to for another.
//
// Left out by rule is what is drawn once a step or turns once a step (wandering, spread, homing),
// what the judge calls an error or an overlap (bodies inside solids and each other get out by
// steps), and who is faster than 20 m/s. Of a hundred levels one may differ: crowds that come to a
// gap at the same time, and hops that just reach a ledge.

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <gtest/gtest.h>

#include "fuzz/level_writer.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

constexpr int kHalves = 6;  ///< Half seconds that are played.

using Places = std::vector<Vector3d>;  ///< By half second and agent.

Places places_at(Level level, int rate) {
  level.ticks_per_second = rate;
  Simulation simulation(level);
  Places places;
  for (int half = 0; half < kHalves; ++half) {
    testing::play(simulation, rate / 2);
    for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
      places.push_back(simulation.state({i}).position);
    }
  }
  return places;
}

bool goes_by_steps(const Kind& kind) {
  const bool turns_by_steps =
      std::any_of(kind.attacks.begin(), kind.attacks.end(), [](const Attack& attack) {
        return attack.spread.degrees() > 0.0 || attack.homing_rate.degrees() > 0.0;
      });
  return turns_by_steps || kind.wander || kind.move->speed > 20.0 || *kind.move->hop_height > 20.0;
}

bool is_sound(const Level& level) {
  const std::vector<Finding> findings = judge(level);
  return std::none_of(findings.begin(), findings.end(), [](const Finding& finding) {
    return finding.severity == Finding::Severity::error || finding.code == "agents-overlap";
  });
}

// Four steps of its way, or of how fast it falls, and 5 cm.
bool are_near(const Level& level, const Places& places, const Places& others, int rate) {
  const std::size_t count = level.agents.size();
  for (std::size_t i = 0; i < places.size(); ++i) {
    const double went = i < count ? 0.0 : 2.0 * (others[i] - others[i - count]).norm();
    const double speed = std::max({1.0, went, level.kind_of(level.agents[i % count]).move->speed});
    if ((places[i] - others[i]).norm() > 4.0 * speed / rate + 0.05) return false;
  }
  return true;
}

TEST(SweptRates, BringEverybodyToTheSamePlaces) {
  std::vector<std::string> off;
  std::size_t all = 0;
  for (std::uint64_t seed = 60'000; all < testing::rounds(testing::is_sanitized() ? 50 : 150);
       ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level) continue;
    if (std::any_of(level->kinds.begin(), level->kinds.end(), goes_by_steps)) continue;
    if (!is_sound(*level)) continue;
    ++all;
    const Places fast = places_at(*level, 240);
    for (const int rate : {20, 30, 60, 144}) {
      if (testing::is_sanitized() && rate != 30) continue;
      if (are_near(*level, places_at(*level, rate), fast, rate)) continue;
      off.push_back(fmt::format("{} at {}", seed, rate));
    }
  }
  EXPECT_LE(off.size(), 4 * all / 100) << fmt::format("{}", fmt::join(off, ", "));
}

}  // namespace
}  // namespace gaze
