#include "navigation/triangle_fan.hpp"

#include <algorithm>
#include <array>

namespace gaze {
namespace {

MeshPoint beyond(const MeshPoint& from, const MeshPoint& at) {
  return {2.0 * at.x - from.x, 2.0 * at.y - from.y};
}

}  // namespace

TriangleFan::TriangleFan(const NavigationMesh::Data& mesh) : mesh_(mesh) {
  ways_of_.resize(mesh.edges.size());
  out_.reserve(3 * mesh.edges.size());
  ways_.reserve(3 * mesh.edges.size());
  for (std::uint32_t face = 0; face < mesh.faces.size(); ++face) cut_face(face);
  const auto out = [&](std::size_t way) {
    if (!out_[way].is_edge) return out_[way].number;
    const std::uint32_t twin = mesh.edges[out_[way].number].twin;
    return twin == kNone ? kNone : ways_of_[twin];
  };
  for (std::size_t first = 0; first < ways_.size(); first += 3) {
    for (std::size_t k = 0; k < 3; ++k) {
      ways_[first + k].right = out(first + (k + 1) % 3);
      ways_[first + k].left = out(first + (k + 2) % 3);
    }
  }
  out_ = {};
}

// Cuts one corner off after the other, the first that can be. Faces may have vertices in the midst
// of a straight side: no triangle is flat, and so is not what is left.
void TriangleFan::cut_face(std::uint32_t number) {
  const MeshFace& face = mesh_.faces[number];
  ring_.clear();
  for (std::uint32_t e = face.first; e < face.first + face.count; ++e)
    ring_.push_back({e, {e, true}});
  const auto is_left_turn = [&](std::size_t i, std::size_t skipped) {
    const std::size_t count = ring_.size();
    std::size_t before = (i + count - 1) % count;
    std::size_t after = (i + 1) % count;
    if (before == skipped) before = (before + count - 1) % count;
    if (after == skipped) after = (after + 1) % count;
    return turn(at(before), at(i), at(after)) > 0.0;
  };
  const auto can_be_cut = [&](std::size_t i) {
    if (!is_left_turn(i, ring_.size())) return false;
    for (std::size_t k = 0; k < ring_.size(); ++k) {
      if (k != i && is_left_turn(k, i)) return true;
    }
    return false;
  };
  while (ring_.size() > 3) {
    std::size_t i = 1;
    while (i < ring_.size() && !can_be_cut(i)) ++i;
    cut_corner(number, i < ring_.size() ? i : 1);
  }
  add_triangle(number, {ring_[0], ring_[1], ring_[2]});
}

// The triangle of the ring's vertex `i` and those beside it; the ring goes past it then.
void TriangleFan::cut_corner(std::uint32_t face, std::size_t i) {
  Vertex& before = ring_[i - 1];
  const Vertex after{ring_[(i + 1) % ring_.size()].edge, {kNone, false}};
  add_triangle(face, {before, ring_[i], after});
  before.out = {static_cast<std::uint32_t>(ways_.size() - 1), false};
  ring_.erase(ring_.begin() + static_cast<std::ptrdiff_t>(i));
}

// What lies beyond a side may come later.
void TriangleFan::add_triangle(std::uint32_t face, const std::array<Vertex, 3>& corners) {
  const bool has_crossings = !mesh_.crossings_of(face).empty();
  for (std::size_t k = 0; k < 3; ++k) {
    const auto way = static_cast<std::uint32_t>(ways_.size());
    const MeshEdge& apex = mesh_.edges[corners[(k + 2) % 3].edge];
    const Out& out = corners[k].out;
    const bool enters = out.is_edge && has_crossings;
    ways_.push_back({apex.from, kNone, kNone, apex.corner, enters ? face : kNone});
    out_.push_back(out);
    if (out.is_edge) {
      ways_of_[out.number] = way;
    } else if (out.number != kNone) {
      out_[out.number] = {way, false};
    }
  }
}

const std::vector<std::uint32_t>& TriangleFan::look(std::uint32_t corner, Hand side) {
  const MeshCorner& its = mesh_.corners[corner];
  root_ = its.at;
  seen_.clear();
  views_.clear();
  reach2_ = 0.0;
  // As for a `CornerFan`.
  right_ = side == Hand::right ? its.after : beyond(its.after, its.at);
  left_ = side == Hand::right ? beyond(its.before, its.at) : its.before;
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
    take_crossings(mesh_.edges[edge].polygon, right_, left_);
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
  if ((!is_right_in && !meets(right_)) || (!is_left_in && !meets(left_))) return;
  const View view{is_right_in ? right : right_, is_left_in ? left : left_, ways_of_[twin]};
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
      const Way& way = ways_[view.way];
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
  return turn(root_, right_, p) >= -kTouching && turn(root_, left_, p) <= kTouching;
}

void TriangleFan::take(std::uint32_t corner) {
  if (corner == kNone) return;
  const MeshCorner& its = mesh_.corners[corner];
  if (its.at.x == root_.x && its.at.y == root_.y) return;
  if (const auto side = touches(root_, its)) {
    seen_.push_back(2 * corner + static_cast<std::uint32_t>(*side));
  }
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
