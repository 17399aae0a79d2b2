#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <set>
#include <utility>
#include <vector>

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

/// The shortest way by a visibility graph over the rim of a mesh: slow, and by whole numbers.
namespace gaze::testing {

/// A point in steps of 1 / 4096 metre, on which all vertices of a mesh lie.
struct Step {
  std::int64_t x = 0;
  std::int64_t y = 0;
  auto operator<=>(const Step&) const = default;
};

inline Step to_step(const Vector3d& p) {
  return {std::llround(p.x() * 4096.0), std::llround(p.y() * 4096.0)};
}

inline double apart(const Step& a, const Step& b) {
  return std::hypot(double(b.x - a.x), double(b.y - a.y)) / 4096.0;
}

class VisibilityGraph {
 public:
  explicit VisibilityGraph(const NavigationMesh& mesh) {
    std::set<Step> corners;
    for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
      const MeshPolygon polygon = mesh.polygon(i);
      std::vector<Step> outline;
      for (const Vector3d& corner : polygon.corners) outline.push_back(to_step(corner));
      for (std::size_t k = 0; k < outline.size(); ++k) {
        if (polygon.beyond[k]) continue;
        rim_.emplace_back(outline[k], outline[(k + 1) % outline.size()]);
        has_pinch_ |= !corners.insert(outline[k]).second;
      }
      polygons_.push_back(std::move(outline));
    }
    corners_.assign(corners.begin(), corners.end());
    known_.resize(corners_.size() * corners_.size());
  }

  /// Two parts of the free space meet in a single point: this graph would lead through it, where
  /// nothing fits.
  bool has_pinch() const { return has_pinch_; }

  /// Infinite if there is no way.
  double shortest(const Step& from, const Step& to) {
    std::vector<Step> places = corners_;
    places.push_back(from);
    places.push_back(to);
    const std::size_t goal = places.size() - 1;
    const auto sees = [&](std::size_t a, std::size_t b) {
      if (std::max(a, b) + 2 >= places.size()) return is_visible(places[a], places[b]);
      char& known = known_[a * corners_.size() + b];
      if (known == 0) known = is_visible(places[a], places[b]) ? 1 : 2;
      return known == 1;
    };
    std::vector<double> best(places.size(), std::numeric_limits<double>::infinity());
    std::vector<bool> done(places.size());
    best[goal - 1] = 0.0;
    while (true) {
      std::size_t at = places.size();
      for (std::size_t i = 0; i < places.size(); ++i) {
        if (!done[i] && std::isfinite(best[i]) && (at == places.size() || best[i] < best[at]))
          at = i;
      }
      if (at == places.size() || at == goal) return best[goal];
      done[at] = true;
      for (std::size_t i = 0; i < places.size(); ++i) {
        const double length = best[at] + apart(places[at], places[i]);
        if (!done[i] && length < best[i] && sees(at, i)) best[i] = length;
      }
    }
  }

  /// True if the straight way stays in the closed free space.
  bool is_visible(const Step& p, const Step& q) const {
    std::vector<double> cuts{0.0, 1.0};
    for (const auto& [a, b] : rim_) {
      const std::int64_t pa = side(p, q, a);
      const std::int64_t pb = side(p, q, b);
      const std::int64_t ap = side(a, b, p);
      const std::int64_t aq = side(a, b, q);
      if ((pa > 0) != (pb > 0) && pa != 0 && pb != 0 && (ap > 0) != (aq > 0) && ap != 0 &&
          aq != 0) {
        return false;
      }
      for (const Step& end : {a, b}) {
        if (side(p, q, end) == 0) cuts.push_back(share(p, q, end));
      }
    }
    std::sort(cuts.begin(), cuts.end());
    for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
      if (cuts[i] < 0.0 || cuts[i + 1] > 1.0 || cuts[i + 1] - cuts[i] < 1e-12) continue;
      const double middle = (cuts[i] + cuts[i + 1]) / 2.0;
      const double x = double(p.x) + double(q.x - p.x) * middle;
      const double y = double(p.y) + double(q.y - p.y) * middle;
      if (!is_free(x, y)) return false;
    }
    return true;
  }

 private:
  static constexpr double kRounding = 1e-7;  // steps

  static std::int64_t side(const Step& a, const Step& b, const Step& c) {
    return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  }
  static double share(const Step& p, const Step& q, const Step& at) {
    const double x = double(q.x - p.x);
    const double y = double(q.y - p.y);
    const double length2 = x * x + y * y;
    return length2 == 0.0 ? 0.0 : (double(at.x - p.x) * x + double(at.y - p.y) * y) / length2;
  }
  // In or on some polygon.
  bool is_free(double x, double y) const {
    for (const std::vector<Step>& outline : polygons_) {
      bool inside = true;
      for (std::size_t k = 0; k < outline.size() && inside; ++k) {
        const Step& a = outline[k];
        const Step& b = outline[(k + 1) % outline.size()];
        const double across =
            double(b.x - a.x) * (y - double(a.y)) - double(b.y - a.y) * (x - double(a.x));
        inside = across >= -kRounding * std::hypot(double(b.x - a.x), double(b.y - a.y));
      }
      if (inside) return true;
    }
    return false;
  }

  std::vector<std::pair<Step, Step>> rim_;
  std::vector<std::vector<Step>> polygons_;
  std::vector<Step> corners_;
  bool has_pinch_ = false;
  std::vector<char> known_;  // by pair of corners: 0 not asked yet, 1 seen, 2 not
};

}  // namespace gaze::testing
