#pragma once

#include <map>

#include "gaze/drawing.hpp"
#include "gaze/seen_area.hpp"
#include "geometry/plan.hpp"

/// Puts shapes together.
namespace gaze {

/// The marks of a drawing as they come, and what all who make them need.
struct MarkList {
  const Simulation& simulation;
  const Level& level;
  Layers layers;
  double tolerance = 0.01;
  std::vector<Mark> marks;
  std::vector<Mark> texts;
  /// What senses have to say beside whom they belong to.
  std::map<AgentId, std::string> notes;

  MarkList(const Simulation& the_simulation, Layers the_layers, double the_tolerance)
      : simulation(the_simulation),
        level(the_simulation.level()),
        layers(the_layers),
        tolerance(the_tolerance) {}

  Vector2d plan(const Vector3d& p) const { return plan_part(level.plane, p); }
  double height_of(const Vector3d& p) const { return level.plane == Plane::upright ? 0.0 : p.z(); }

  /// The next mark, to be filled in.
  Mark& add(Mark::Form form, Layer layer, Meaning meaning, std::vector<Vector2d> points,
            double height);
  /// Words beside what they name.
  Mark& add_text(Layer layer, Meaning meaning, std::vector<Vector2d> points, double height,
                 std::string text);
};

/// Appends an arc about a point, from one direction anticlockwise to another, radians.
void cut_arc(std::vector<Vector2d>& points, const Vector2d& middle, double radius, double start,
             double end, double tolerance);

/// The outline of an area about its eye; from the eye if it is no whole round.
[[nodiscard]] std::vector<Vector2d> outline_of(const SeenArea& area, bool from_eye,
                                               double tolerance);

/// All marks of a layer.
void mark_level(MarkList& list);
void mark_senses(MarkList& list);
void mark_ways(MarkList& list);
void mark_harm(MarkList& list);
void mark_bodies(MarkList& list);

}  // namespace gaze
