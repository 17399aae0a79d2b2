#include <fmt/format.h>

#include <map>
#include <tuple>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;
using Corner = std::tuple<double, double, double>;

Corner corner(const Vector3d& p) {
  return {p.x(), p.y(), p.z()};
}

/// How many triangles share each edge, by the places of its ends.
std::map<std::pair<Corner, Corner>, int> count_edges(const Solid& solid) {
  std::map<std::pair<Corner, Corner>, int> edges;
  for (const Triangle& triangle : solid.triangles) {
    for (std::size_t i = 0; i < 3; ++i) {
      const auto ends = std::minmax({corner(triangle[i]), corner(triangle[(i + 1) % 3])});
      ++edges[{ends.first, ends.second}];
    }
  }
  return edges;
}

void judge_mesh(Bench& bench, const Solid& solid) {
  if (solid.left_out > 0) {
    bench.say(Severity::warning, "mesh-without-area", solid.place,
              worded("{} of the {} triangles of {} have no area and are left out", solid.left_out,
                     solid.left_out + solid.triangles.size(), solid.id));
  }
  int shared = 0;
  Corner first;
  for (const auto& [ends, count] : count_edges(solid)) {
    if (count <= 2) continue;
    if (shared++ == 0) first = ends.first;
  }
  if (shared == 0) return;
  bench.say(Severity::warning, "mesh-not-manifold", solid.place,
            worded("{} edges of {} are shared by more than two triangles, the first at "
                   "{}: it has no clear inside there",
                   shared, solid.id,
                   place_text(Plane::space,
                              {std::get<0>(first), std::get<1>(first), std::get<2>(first)})));
}

}  // namespace

void judge_meshes(Bench& bench) {
  for (const Solid& solid : bench.level().solids) {
    if (solid.form == Solid::Form::mesh) judge_mesh(bench, solid);
  }
}

}  // namespace gaze
