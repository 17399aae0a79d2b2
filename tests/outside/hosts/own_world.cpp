// A world of the host's own: a voxel grid answers rays for sight, hearing, and for a whole
// simulation.
#include "garden.hpp"

#include <array>
#include <cmath>
#include <memory>

namespace {

class Voxels : public gaze::RaySource {
 public:
  Voxels() {
    for (int y = 6; y <= 14; ++y)
      is_full_[14][y] = true;  // a wall of cells at x in [4, 5), y in [-4, 5)
  }

  void first_hits(std::span<const gaze::Segment> segments,
                  std::span<gaze::RayHit> hits) const override {
    for (std::size_t i = 0; i < segments.size(); ++i) hits[i] = walk(segments[i]);
  }

 private:
  gaze::RayHit walk(const gaze::Segment& segment) const {
    constexpr int kParts = 4000;
    for (int i = 0; i <= kParts; ++i) {
      const gaze::Vector3d p =
          segment.from + (segment.to - segment.from) * (static_cast<double>(i) / kParts);
      const int x = static_cast<int>(std::floor(p.x())) + 10;
      const int y = static_cast<int>(std::floor(p.y())) + 10;
      if (x < 0 || y < 0 || x >= kSide || y >= kSide || !is_full_[x][y]) continue;
      return {true, p, "voxel",
              (std::uint64_t{1} << 40U) + static_cast<std::uint64_t>(x * kSide + y)};
    }
    return {};
  }

  static constexpr int kSide = 40;
  std::array<std::array<bool, kSide>, kSide> is_full_{};
};

}  // namespace

int main() {
  const auto voxels = std::make_shared<const Voxels>();
  gaze::Level level = garden();
  level.solids.clear();  // the host has its own
  gaze::Agent guard;
  guard.id = "guard";
  level.agents.push_back(guard);
  gaze::Simulation game(gaze::Prepared(level), voxels);
  const gaze::AgentId player = game.agent("player");
  const gaze::AgentId eye = game.agent("guard");

  for (int i = 0; i < 30; ++i) {
    game.set_pose(player, {7.0, 0.0, 0.0}, {});
    game.step();
  }
  const gaze::Verdict hidden = game.look(eye, player);
  need(!hidden.sees && hidden.line.blocked_by_id > (std::uint64_t{1} << 40U),
       "a voxel is in the way");
  for (int i = 0; i < 30; ++i) {
    game.set_pose(player, {3.0, 0.0, 0.0}, {});
    game.step();
  }
  need(game.awareness(eye, player) == gaze::Awareness::noticed, "before the wall it is noticed");

  // The same asked alone, of many at once, with one call of the host for all rays.
  std::array<gaze::Looker, 2> lookers{game.looker(eye), game.looker(eye)};
  std::array<gaze::LookedAt, 2> others{game.looked(player), game.looked(player)};
  others[1].feet = {7.0, 0.0, 0.0};
  std::array<std::uint8_t, 4> sees{};
  gaze::LookScratch scratch;
  gaze::can_see_all(*voxels, gaze::Plane::ground, lookers, others, scratch, sees);
  need(sees == std::array<std::uint8_t, 4>{1, 0, 1, 0}, "each looker sees the first alone");

  gaze::Listener listener;
  listener.hearing.range = 10.0;
  need(!gaze::listen(*voxels, gaze::Plane::ground, listener, {{7.0, 0.0, 1.0}, 9.0}).hears,
       "the wall keeps sound off");
  need(gaze::listen(*voxels, gaze::Plane::ground, listener, {{3.0, 0.0, 1.0}, 9.0}).hears,
       "before it sound is heard");
  need(gaze::seen_area(*voxels, gaze::Plane::ground, lookers[0]).area() < 3.14159 * 64.0,
       "its area ends at the wall");
  std::printf("own_world works\n");
}
