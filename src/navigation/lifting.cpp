#include "navigation/lifting.hpp"

#include <cmath>

#include "navigation/follow.hpp"

namespace gaze {
namespace {

/// Metres. Where surfaces pass through each other their common line is rounded to the lattice.
constexpr double kSameHeight = 0.001;

/// How the points of a way in the plan get the heights of the surfaces over which it leads.
class Lifting {
 public:
  Lifting(const NavigationMesh::Data& mesh, std::uint32_t face, Walked& walked, Path& path)
      : mesh_(mesh), face_(face), walked_(walked), path_(path), points_(path.points) {}

  void lift(const WayInPlan& way) {
    if (mesh_.is_even) {
      for (const MeshPoint& point : way.points) add(point);
      return;
    }
    add(way.points.front());
    auto crossing = way.crossings.begin();
    for (std::uint32_t i = 1; i < way.points.size(); ++i) {
      const MeshPoint& from = way.points[i - 1];
      const MeshPoint& to = way.points[i];
      if (crossing != way.crossings.end() && crossing->to_point == i) {
        cross(mesh_.crossings[crossing->crossing], to);
        ++crossing;
        continue;
      }
      path_.cost += (mesh_.faces[face_].cost - 1.0) * distance(from, to);
      walk(from, to);
      add(to);
    }
  }

 private:
  void cross(const Crossing& crossing, const MeshPoint& to) {
    face_ = crossing.from_face;
    if (crossing.link != kNone) add(crossing.from);
    face_ = crossing.to_face;
    add(to);
    if (crossing.link == kNone) return;
    path_.links.push_back({static_cast<std::uint32_t>(points_.size() - 1), crossing.link});
    path_.length += crossing.length - distance(crossing.from, crossing.to);
  }

  void walk(const MeshPoint& from, const MeshPoint& to) {
    walked_.begin(mesh_.faces.size());
    walked_.enter(face_, kNone);
    while (!holds(mesh_, walked_.steps.back().face, to)) {
      const std::uint32_t exit =
          exit_towards(mesh_, walked_.steps.back().face, from, to,
                       [&](std::uint32_t beyond) { return walked_.has_entered(beyond); });
      if (exit != kNone) {
        walked_.enter(mesh_.edges[mesh_.edges[exit].twin].polygon, exit);
      } else if (walked_.steps.size() > 1) {
        walked_.steps.pop_back();
      } else {
        return;
      }
    }
    double share = 0.0;
    for (const Walked::Step& step : walked_.steps) {
      if (mesh_.faces[step.face].surface != mesh_.faces[face_].surface) {
        share = crossing(from, to, step.through, share);
        const MeshPoint place{from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share};
        const double rise =
            mesh_.height_at(step.face, place.x, place.y) - mesh_.height_at(face_, place.x, place.y);
        add(place);
        face_ = step.face;
        if (std::abs(rise) > kSameHeight) add(place);
      }
      face_ = step.face;
    }
  }

  // At which share of a leg it leaves a face by an edge; not before it has entered that face. A leg
  // along the edge leaves as soon as it comes to the edge.
  double crossing(const MeshPoint& from, const MeshPoint& to, std::uint32_t edge,
                  double entered) const {
    const MeshPoint& a = mesh_.edges[edge].from;
    const MeshPoint& b = mesh_.edges[mesh_.next(edge)].from;
    const double at_from = turn(a, b, from);
    const double at_to = turn(a, b, to);
    const double share = at_from == at_to ? std::min(share_of(from, to, a), share_of(from, to, b))
                                          : at_from / (at_from - at_to);
    return std::clamp(share, entered, 1.0);
  }

  static double share_of(const MeshPoint& from, const MeshPoint& to, const MeshPoint& p) {
    const double x = to.x - from.x;
    const double y = to.y - from.y;
    const double length2 = x * x + y * y;
    return length2 > 0.0 ? ((p.x - from.x) * x + (p.y - from.y) * y) / length2 : 0.0;
  }

  void add(const MeshPoint& p) { add_point(points_, mesh_.lift(face_, p)); }

  const NavigationMesh::Data& mesh_;
  std::uint32_t face_;
  Walked& walked_;
  Path& path_;
  std::vector<Vector3d>& points_;
};

}  // namespace

void add_point(std::vector<Vector3d>& points, const Vector3d& p) {
  if (points.empty() || points.back() != p) points.push_back(p);
}

void lift_way(const NavigationMesh::Data& mesh, std::uint32_t face, Walked& walked, Path& path,
              const WayInPlan& way) {
  Lifting(mesh, face, walked, path).lift(way);
}

}  // namespace gaze
