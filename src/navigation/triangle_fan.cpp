#include "navigation/triangle_fan.hpp"

#include <algorithm>

namespace gaze {

const std::vector<std::uint32_t>& TriangleFan::look(std::uint32_t corner, Hand side) {
  const MeshCorner& its = mesh_.corners[corner];
  root_ = its.at;
  seen_.clear();
  views_.clear();
  reach2_ = 0.0;
  sides_ = sides_at(its, side);
  open(its.edge);
  if (!look_on()) {
    const std::size_t before = by_faces_.gaps_looked_through();
    const std::vector<std::uint32_t>& seen = by_faces_.look(mesh_, corner, side);
    gaps_looked_through_ += by_faces_.gaps_looked_through() - before;
    reach2_ = double{by_faces_.reach()} * double{by_faces_.reach()};
    return seen;
  }
  std::sort(seen_.begin(), seen_.end());
  seen_.erase(std::unique(seen_.begin(), seen_.end()), seen_.end());
  return seen_;
}

// All faces about the corner, from the rim behind it to the rim before it.
void TriangleFan::open(std::uint32_t edge) {
  while (true) {
    take_crossings(mesh_.edges[edge].polygon, sides_.right, sides_.left);
    std::uint32_t before = edge;
    for (std::uint32_t e = mesh_.next(edge); e != edge; e = mesh_.next(e)) {
      reach2_ = std::max(reach2_, squared_distance(root_, mesh_.edges[e].from));
      if (is_in(mesh_.edges[e].from)) take(mesh_.edges[e].corner);
      before = e;
    }
    for (std::uint32_t e = mesh_.next(edge); e != before; e = mesh_.next(e)) open_edge(e);
    const std::uint32_t twin = mesh_.edges[before].twin;
    if (twin == kNone) return;
    edge = twin;
  }
}

// The part of an edge that lies in the fan. An end that lies in the fan is kept wherever the other
// end is: that one may lie straight behind the corner.
void TriangleFan::open_edge(std::uint32_t edge) {
  const std::uint32_t twin = mesh_.edges[edge].twin;
  if (twin == kNone) return;
  const MeshPoint& right = mesh_.edges[edge].from;
  const MeshPoint& left = mesh_.edges[mesh_.next(edge)].from;
  const auto meets = [&](const MeshPoint& side) {
    return turn(root_, right, side) > 0.0 && turn(root_, side, left) > 0.0;
  };
  const bool is_right_in = is_in(right);
  const bool is_left_in = is_in(left);
  if ((!is_right_in && !meets(sides_.right)) || (!is_left_in && !meets(sides_.left))) return;
  const View view{is_right_in ? right : sides_.right, is_left_in ? left : sides_.left,
                  triangles_.through[twin]};
  if (turn(root_, view.right, view.left) > 0.0) views_.push_back(view);
}

// False if a view is split so often that its parts may come to the same places again and again, as
// where many corners stand that hide nothing.
bool TriangleFan::look_on() {
  constexpr std::size_t kManyTriangles = 2'000;
  constexpr std::size_t kTrianglesOfAGap = 2;  // a face has about as many
  std::size_t triangles = 0;
  while (!views_.empty()) {
    View view = views_.back();
    views_.pop_back();
    while (view.way != kNone) {
      if (++triangles > kManyTriangles) return false;
      const TriangleWay& way = triangles_.ways[view.way];
      if (way.face != kNone) take_crossings(way.face, view.right, view.left);
      reach2_ = std::max(reach2_, squared_distance(root_, way.apex));
      const double from_right = turn(root_, view.right, way.apex);
      const double from_left = turn(root_, view.left, way.apex);
      if (from_right >= -kTouching && from_left <= kTouching) take(way.corner);
      if (from_right <= 0.0) {
        view.way = way.left;
      } else if (from_left >= 0.0) {
        view.way = way.right;
      } else {
        if (way.left != kNone) views_.push_back({way.apex, view.left, way.left});
        view.left = way.apex;
        view.way = way.right;
      }
    }
  }
  gaps_looked_through_ += triangles / kTrianglesOfAGap + 1;
  return true;
}

bool TriangleFan::is_in(const MeshPoint& p) const {
  return turn(root_, sides_.right, p) >= -kTouching && turn(root_, sides_.left, p) <= kTouching;
}

void TriangleFan::take(std::uint32_t corner) {
  if (const auto seen = turn_seen(mesh_, root_, corner)) seen_.push_back(*seen);
}

void TriangleFan::take_crossings(std::uint32_t face, const MeshPoint& right,
                                 const MeshPoint& left) {
  for (const std::uint32_t crossing : mesh_.crossings_of(face)) {
    const MeshPoint& at = mesh_.crossings[crossing].from;
    const bool is_here = at.x == root_.x && at.y == root_.y;
    if (is_here || turn(root_, right, at) < -kTouching || turn(root_, left, at) > kTouching)
      continue;
    seen_.push_back(static_cast<std::uint32_t>(2 * mesh_.corners.size()) + crossing);
  }
}

}  // namespace gaze
