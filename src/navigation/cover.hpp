#pragma once

#include <algorithm>
#include <functional>
#include <span>
#include <utility>
#include <vector>

#include "geometry/lattice.hpp"
#include "navigation/mesh.hpp"

/// How a part of the plan becomes faces of a mesh: it is cut along lines, and of what lies between
/// them each region is free or not.
namespace gaze {

using LatticeOutline = std::vector<LatticePoint>;

/// An outline on the lattice, without points that fall together; empty if it has no area there.
[[nodiscard]] LatticeOutline on_lattice(const Polygon& outline);

/// A convex outline on the lattice; without corners if it has no area there.
struct ConvexOutline {
  LatticeOutline corners;      ///< Anticlockwise.
  std::uint32_t leftmost = 0;  ///< The leftmost corner; the lower one of two.
};

/// Rounds a convex outline to the lattice. Removes corners that would make it concave: rounding may
/// swap corners that are nearer to each other than the lattice spacing.
[[nodiscard]] ConvexOutline convex_on_lattice(const Polygon& outline);

/// Returns whether an outline contains a point. Its boundary counts. Cost: O(log corners).
[[nodiscard]] bool covers(const ConvexOutline& outline, const Vector2d& p);

/// The lines along which a part of the plan is cut.
class Lines {
 public:
  void add(const LatticeOutline& outline);
  void add(const LatticePoint& from, const LatticePoint& to);
  void add(const Lines& lines);

  bool empty() const { return ends_.empty(); }
  const std::vector<LatticePoint>& points() const { return points_; }
  /// Each line from one of the points to another.
  const std::vector<std::pair<std::uint32_t, std::uint32_t>>& ends() const { return ends_; }

 private:
  std::vector<LatticePoint> points_;
  std::vector<std::pair<std::uint32_t, std::uint32_t>> ends_;
};

/// What faces of one class have in common.
struct Ground {
  double cost = 1.0;
  std::uint32_t patch = 0;
  bool operator==(const Ground&) const = default;
};

/// Numbers what is the same alike.
template <typename Value>
std::uint32_t number_of(const Value& value, std::vector<Value>& known) {
  const auto at = std::find(known.begin(), known.end(), value);
  const auto number = static_cast<std::uint32_t>(at - known.begin());
  if (at == known.end()) known.push_back(value);
  return number;
}

/// Covers a part of a surface by faces, which are put at the end of the mesh.
///
/// @param class_at  Of a place between the lines; kNone: nobody can be there.
/// @param grounds   By class; may grow while `class_at` is asked.
void cover(NavigationMesh::Data& mesh, std::uint32_t surface, const Lines& lines,
           const std::function<std::uint32_t(const Vector2d&)>& class_at,
           const std::vector<Ground>& grounds);

}  // namespace gaze
