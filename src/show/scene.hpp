#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/seen_area.hpp"
#include "gaze/tools/picture.hpp"
#include "geometry/polygon.hpp"

/// What a picture shows, as plain shapes in the plan, metres. Nothing here knows how it is drawn.
namespace gaze {

struct SolidShape {
  std::string label;
  std::vector<Polygon> pieces;
  std::vector<std::pair<Vector2d, Vector2d>> rim;  ///< The sides that no two pieces share.
  std::uint32_t material = 0;
  bool is_walkway = false;                              ///< A floor, a ramp or stairs.
  std::optional<std::pair<Vector2d, Vector2d>> upward;  ///< Of those that rise: from low to high.
  Vector2d middle{0.0, 0.0};
  bool is_gone = false;       ///< An open door, or what has been broken.
  double least_extent = 0.0;  ///< The lesser side of its bounding box.
};

struct SeenShape {
  SeenArea area;
  Vector2d middle{1.0, 0.0};  ///< Of the field of view.
  double half_field_deg = 0.0;
  bool is_alert = false;  ///< It has noticed somebody.
};

struct SightLine {
  enum class Outcome { seen, outside_field, stopped } outcome = Outcome::seen;
  Vector2d from{0.0, 0.0};
  Vector2d to{0.0, 0.0};
  Vector2d stop{0.0, 0.0};  ///< Where a stopped ray ends.
  std::string label;
};

struct ShotShape {
  Vector2d place{0.0, 0.0};
  Vector2d velocity{0.0, 0.0};
  double radius = 0.0;
};

/// Where a projectile has flown, and what it met on the way.
struct TrackShape {
  std::vector<Vector2d> points;
  std::vector<Vector2d> hits;
  double radius = 0.0;
};

/// A blast, and what of its disc nothing shields.
struct BlastShape {
  SeenArea clear;
  std::string label;
};

struct BeamShape {
  Vector2d from{0.0, 0.0};
  Vector2d to{0.0, 0.0};
  double thickness = 0.0;
};

struct ZoneShape {
  std::string label;
  Polygon outline;
  Vector2d middle{0.0, 0.0};
  double dimness = 0.0;
};

struct FeelerShape {
  Vector2d from{0.0, 0.0};
  Vector2d to{0.0, 0.0};
  Vector2d stop{0.0, 0.0};  ///< Where it meets something; its far end if nothing is there.
  double thickness = 0.0;
  bool is_yes = false;
};

/// A circle about an agent or a noise.
struct RingShape {
  enum class What { nearness, noise } what = What::nearness;
  Vector2d middle{0.0, 0.0};
  double radius = 0.0;
  std::string label;
};

struct AgentShape {
  std::string id;
  std::string mode;
  std::uint32_t team = 0;  ///< kNoTeam if none.
  Vector2d low{0.0, 0.0};  ///< Of its body's box: seen from the side it is a rectangle.
  Vector2d high{0.0, 0.0};
  Vector2d place{0.0, 0.0};  ///< Its middle.
  Vector2d facing{1.0, 0.0};
  double health_share = 1.0;
  bool is_alive = true;
  bool has_target = false;
  std::vector<Vector2d> trail;
  std::vector<Vector2d> way;  ///< Ahead, from where it is; empty if it follows none.
  std::string note;           ///< That all whom it looks for are out of range.
};

struct Scene {
  std::string title;
  std::string moment;
  bool is_upright = false;
  std::optional<double> ground_height;
  Vector2d low{0.0, 0.0};  ///< What is to be shown at least.
  Vector2d high{0.0, 0.0};
  std::vector<std::string> materials;  ///< "brick: sight, bodies, shots, sound", by index.
  std::vector<bool> stops_sight;       ///< By material.
  std::vector<bool> material_in_use;
  std::vector<std::string> teams;
  std::vector<SolidShape> solids;
  std::vector<SeenShape> seen;
  std::vector<SightLine> lines;
  std::vector<ZoneShape> zones;
  Polygon bounds;  ///< Empty if the level has no end.
  std::vector<FeelerShape> feelers;
  std::vector<RingShape> rings;
  std::vector<ShotShape> shots;
  std::vector<TrackShape> tracks;
  std::vector<BlastShape> blasts;
  std::vector<BeamShape> beams;
  std::vector<AgentShape> agents;
};

/// Takes out what agents perceive and where they are going, for pictures of something else.
void leave_out_senses(Scene& scene);

[[nodiscard]] Scene make_scene(const Simulation& simulation, const Trails& trails);

}  // namespace gaze
