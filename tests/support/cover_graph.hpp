#pragma once

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

/// The shortest way over a mesh by a visibility graph that knows nothing of how polygons join: a
/// straight way is free if the polygons that it passes cover it from end to end. Slow; for any
/// places.
namespace gaze::testing {

class CoverGraph {
 public:
  static constexpr double kBeside = 1e-6;  ///< Metres: what is so near to a polygon is in it.

  explicit CoverGraph(const NavigationMesh& mesh) {
    for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
      std::vector<Vector2d> outline;
      for (const Vector3d& corner : mesh.polygon(i).corners) {
        outline.push_back(plan(corner));
        corners_.push_back(outline.back());
      }
      polygons_.push_back(std::move(outline));
    }
    const auto less = [](const Vector2d& a, const Vector2d& b) {
      return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y();
    };
    std::sort(corners_.begin(), corners_.end(), less);
    corners_.erase(std::unique(corners_.begin(), corners_.end()), corners_.end());
    seen_.resize(corners_.size() * corners_.size());
  }

  static Vector2d plan(const Vector3d& p) { return {p.x(), p.y()}; }

  /// Infinite if there is no way.
  double shortest(const Vector2d& from, const Vector2d& to) {
    std::vector<Vector2d> places = corners_;
    places.push_back(from);
    places.push_back(to);
    const std::size_t goal = places.size() - 1;
    std::vector<double> best(places.size(), std::numeric_limits<double>::infinity());
    std::vector<char> done(places.size());
    best[goal - 1] = 0.0;
    while (true) {
      std::size_t at = places.size();
      for (std::size_t i = 0; i < places.size(); ++i) {
        if (!done[i] && std::isfinite(best[i]) && (at == places.size() || best[i] < best[at]))
          at = i;
      }
      if (at == places.size() || at == goal) return best[goal];
      done[at] = 1;
      for (std::size_t i = 0; i < places.size(); ++i) {
        if (done[i]) continue;
        const double length = best[at] + (places[i] - places[at]).norm();
        if (length < best[i] && sees(places, at, i)) best[i] = length;
      }
    }
  }

  bool is_free(const Vector2d& p, const Vector2d& q) const {
    std::vector<std::pair<double, double>> covered;
    for (const std::vector<Vector2d>& outline : polygons_) {
      double enter = 0.0;
      double leave = 1.0;
      if (clip(outline, p, q, enter, leave)) covered.emplace_back(enter, leave);
    }
    std::sort(covered.begin(), covered.end());
    const double slack = kBeside / std::max((q - p).norm(), kBeside);
    double reached = 0.0;
    for (const auto& [enter, leave] : covered) {
      if (enter > reached + slack) return false;
      reached = std::max(reached, leave);
    }
    return !covered.empty() && reached >= 1.0 - slack;
  }

 private:
  bool sees(const std::vector<Vector2d>& places, std::size_t a, std::size_t b) {
    if (std::max(a, b) + 2 >= places.size()) return is_free(places[a], places[b]);
    char& known = seen_[a * corners_.size() + b];
    if (known == 0) known = is_free(places[a], places[b]) ? 1 : 2;
    return known == 1;
  }

  // The part of p to q that lies in a convex outline, grown by `kBeside`.
  static bool clip(const std::vector<Vector2d>& outline, const Vector2d& p, const Vector2d& q,
                   double& enter, double& leave) {
    for (std::size_t k = 0; k < outline.size(); ++k) {
      const Vector2d& a = outline[k];
      const Vector2d side = outline[(k + 1) % outline.size()] - a;
      const double length = side.norm();
      const auto inside = [&](const Vector2d& at) {
        return (side.x() * (at.y() - a.y()) - side.y() * (at.x() - a.x())) / length + kBeside;
      };
      const double at_p = inside(p);
      const double at_q = inside(q);
      if (at_p < 0.0 && at_q < 0.0) return false;
      if (at_p < 0.0) enter = std::max(enter, at_p / (at_p - at_q));
      if (at_q < 0.0) leave = std::min(leave, at_p / (at_p - at_q));
    }
    return enter <= leave;
  }

  std::vector<std::vector<Vector2d>> polygons_;
  std::vector<Vector2d> corners_;
  std::vector<char> seen_;  // by pair of corners: 0 not asked yet, 1 seen, 2 not
};

}  // namespace gaze::testing
