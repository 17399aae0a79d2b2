#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/seen_area.hpp"
#include "gaze/simulation.hpp"
#include "gaze/tools/spots.hpp"

/// By whom each spot of a level is seen.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Where a body can stand: the plan inside the bounds of the level's solids, agents and patrols,
/// less what solids that stop bodies take from a body of some radius (1 mm to the round at
/// corners).
struct FreeFloor {
  Vector2d low{0.0, 0.0};  ///< The bounds.
  Vector2d high{0.0, 0.0};
  std::vector<std::vector<Vector2d>> taken;  ///< What solids take of it; holes run clockwise.
  double area = 0.0;                         ///< Square metres.
  SpotGrid grid;
  std::vector<std::uint8_t> is_free;  ///< By spot.
  /// The body that stands there, and the height of the floor, metres.
  double radius = 0.0;
  double height = 0.0;
  std::vector<double> body_points;
  double floor_height = 0.0;
};

struct FloorOptions {
  static constexpr std::size_t kMostSpots = 100'000'000;

  double radius = 0.35;      ///< Of the body, metres.
  double height = 1.7;       ///< Solids above it are no hindrance.
  double step_height = 0.3;  ///< Solids up to this height are stepped on, and are no hindrance.
  double spot_size = 0.25;   ///< Metres.
  std::vector<double> body_points{0.0, 0.5, 1.0};  ///< Shares of the height that others look at.
  /// Low and high corner of a part of the plan, metres. If set, the grid has only spots in that
  /// part. Areas are still those of the whole floor.
  std::optional<std::array<Vector2d, 2>> part;
  /// Largest number of spots, at least 1. If `spot_size` makes more, the spots are made larger.
  std::optional<std::size_t> larger_above;
  /// Team whose agents must be able to reach the floor; kNoTeam: the agents of any team.
  std::uint32_t team = kNoTeam;
};

/// Counts the floor within the bounds that agents of a team can reach with all doors open. Counts
/// all floor if an agent of the team hovers or hops: it may cross obstacles.
/// In ground and space levels at the height of the ground. In an upright level the plan is a wall
/// of air: all of it that is free. Throws UsageError if that makes more than `kMostSpots` and
/// `larger_above` is not set.
[[nodiscard]] FreeFloor free_floor(const Level& level, const World& world,
                                   const FloorOptions& options);

/// A connected part of the floor that no agent ever sees.
struct UnseenPatch {
  double area = 0.0;  ///< Square metres, of the exact polygon. All patches add up to the total.
  /// Centre of a cell inside, near the centre of its bounding box. A corner if no cell fits.
  Vector2d place{0.0, 0.0};
};

/// What a `Cover` keeps of one looker from one moment to the next: where enough points of a body
/// are in line of sight, in all directions. It holds as long as neither the eye nor the solids
/// change.
struct ClearView {
  Vector3d eye{0.0, 0.0, 0.0};
  double reach = 0.0;      ///< Metres from the eye, in the plan.
  std::size_t solids = 0;  ///< Count of solids in the level.
  std::vector<bool> gone;  ///< By solid that can go.
  std::vector<std::vector<Vector2d>> clear;
};

/// Whose views a `Cover` collects.
struct CoverAgent {
  AgentId agent;
  double seen_area = 0.0;  ///< Square metres of the free floor; over a run the mean.
};

/// Collects, at one moment or at many, where on the floor a body is seen: where `can_see` holds for
/// a body that stands there, with its body points, below beams and behind sills. In levels seen
/// from the side its feet may be anywhere in the air. Areas are those of exact polygons
/// (arcs as chords less than 1 mm off, corners to 1 micrometre); spots say how many see a body on
/// their middle.
class Cover {
 public:
  explicit Cover(FreeFloor floor);

  /// Adds what living, waking agents with sight see now; if a team is given, only of those hostile
  /// to it.
  void add(const Simulation& simulation, std::uint32_t looked_for = kNoTeam);

  const FreeFloor& floor() const { return floor_; }
  int moments() const { return moments_; }
  std::vector<CoverAgent> agents() const;
  double seen_share() const;        ///< Of the floor; the mean of all moments.
  double never_seen_share() const;  ///< Of the floor: seen by nobody at any of them.

  /// For each spot: by how many it was seen at once at most, and in which share of the moments by
  /// anybody.
  const std::vector<std::uint16_t>& most_seen_by() const { return most_; }
  double seen_time(std::size_t spot) const;

  /// Whether one of `agents()`, by its number there, saw a spot at any of the moments.
  bool has_seen(std::size_t agent_number, std::size_t spot) const {
    return seen_by_[agent_number][spot];
  }

  /// The largest first.
  std::vector<UnseenPatch> unseen_patches() const;

 private:
  FreeFloor floor_;
  int moments_ = 0;
  double seen_sum_ = 0.0;
  std::vector<AgentId> agents_;
  std::vector<ClearView> views_;  ///< By agent.
  std::vector<double> agent_sum_;
  std::vector<std::vector<bool>> seen_by_;  ///< By agent and spot.
  std::vector<std::vector<Vector2d>> ever_seen_;
  std::vector<std::uint16_t> most_;
  std::vector<std::uint32_t> times_;
  std::vector<std::uint16_t> now_;
};

}  // namespace gaze
GAZE_PUBLIC_END
