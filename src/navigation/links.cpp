#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "geometry/plan.hpp"
#include "navigation/arc.hpp"
#include "navigation/arc_room.hpp"
#include "navigation/mesh.hpp"
#include "navigation/walkable.hpp"

namespace gaze {
namespace {

/// Metres. A hop ends at least this far away from a rim, and a drop keeps this far off its ledge.
constexpr double kFootRoom = 0.05;

/// A place on the rim of the mesh, and the direction that leads out over it.
struct RimPlace {
  Vector2d at{0.0, 0.0};
  Vector2d outward{0.0, 0.0};
  std::uint32_t face = 0;
};

Vector3d lifted(const NavigationMesh::Data& mesh, std::uint32_t face, const Vector2d& p) {
  return mesh.lift(face, {p.x(), p.y()});
}

bool hops(const NavigationMesh::Data& mesh) {
  return mesh.body.hop_height > 0.0 && mesh.body.hop_length > 0.0 && mesh.gravity > 0.0;
}
bool drops(const NavigationMesh::Data& mesh) {
  return mesh.body.drop_height > mesh.body.step_height && mesh.gravity > 0.0;
}

/// Finds the links that a body makes by itself: hops and drops.
class LinkFinder {
 public:
  LinkFinder(NavigationMesh::Data& mesh, const World& world)
      : mesh_(mesh), world_(world), body_(mesh.body) {}

  void find() {
    const bool may_hop = hops(mesh_);
    const bool may_drop = drops(mesh_);
    if (!may_hop && !may_drop) return;
    spacing_ = spacing();
    for (std::uint32_t e = 0; e < mesh_.edges.size(); ++e) {
      if (!is_rim(e)) continue;
      each_place(e, [&](const RimPlace& rim) {
        if (may_drop) drop(rim);
        if (may_hop) hop(rim);
      });
    }
  }

 private:
  // True for an edge beyond which the mesh ends, other than where endless ground is cut off.
  // Nothing lies beyond that, and how far away it is depends on whatever stands farthest out.
  bool is_rim(std::uint32_t e) const {
    if (mesh_.edges[e].twin != kNone) return false;
    const Surface& surface = mesh_.surfaces[mesh_.faces[mesh_.edges[e].polygon].surface];
    if (!surface.solids.empty()) return true;
    const PlanBox box = box_of(surface);
    const auto low = to_lattice(box.low);
    const auto high = to_lattice(box.high);
    const MeshPoint& a = mesh_.edges[e].from;
    const MeshPoint& b = mesh_.edges[mesh_.next(e)].from;
    const auto from = to_lattice({a.x, a.y});
    const auto to = to_lattice({b.x, b.y});
    const bool is_end = from.x == to.x && (from.x == low.x || from.x == high.x);
    const bool is_side = from.y == to.y && (from.y == low.y || from.y == high.y);
    return !is_end && !is_side;
  }

  double spacing() const {
    double all = 0.0;
    for (std::uint32_t e = 0; e < mesh_.edges.size(); ++e) {
      if (!is_rim(e)) continue;
      all += distance(mesh_.edges[e].from, mesh_.edges[mesh_.next(e)].from);
    }
    const double least = std::max(NavigationMesh::kLinkSpacing, 2.0 * body_.radius);
    return std::max(least, all / static_cast<double>(NavigationMesh::kMostLinkPlaces));
  }

  template <typename Visit>
  void each_place(std::uint32_t e, Visit&& visit) const {
    constexpr double kShortest = 0.1;  // metres: round corners are left out
    const MeshPoint& a = mesh_.edges[e].from;
    const MeshPoint& b = mesh_.edges[mesh_.next(e)].from;
    const double length = distance(a, b);
    const Vector2d along{(b.x - a.x) / length, (b.y - a.y) / length};
    const bool is_upright = mesh_.plane == Plane::upright;
    // In levels seen from the side ledges are strips. Only their ends lead anywhere.
    if (is_upright ? along.x() != 0.0 : length < kShortest) return;
    const int count = is_upright ? 1 : std::max(1, static_cast<int>(length / spacing_));
    for (int i = 0; i < count; ++i) {
      const double share = (i + 0.5) / count;
      const Vector2d at{a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share};
      visit(RimPlace{at, {along.y(), -along.x()}, mesh_.edges[e].polygon});
    }
  }

  // A drop: over the ledge as far as is needed not to touch it, and then down.
  void drop(const RimPlace& rim) {
    const Vector3d from = lifted(mesh_, rim.face, rim.at);
    const Vector2d beyond = rim.at + rim.outward * (body_.radius + kFootRoom);
    const auto landing =
        place_below(mesh_, {beyond.x(), beyond.y(), from.z() - body_.step_height - 1e-3}, 0.0);
    if (!landing || landing->place.z() < from.z() - body_.drop_height) return;
    const MeshLink link{MeshLink::What::drop, from, landing->place, 0};
    if (has_room_to_drop(world_, body_, link.from, link.to)) add(link, rim.face, landing->polygon);
  }

  // Hops to the nearest place of each other surface; and to that of the same surface, if the
  // straight way there is blocked.
  void hop(const RimPlace& rim) {
    nearest_.clear();
    const Vector3d from = lifted(mesh_, rim.face, rim.at);
    mesh_.grid.outward(
        rim.at,
        [&](std::uint32_t face) {
          if (face == rim.face) return;
          Vector2d on{0.0, 0.0};
          const double far2 = squared_distance(mesh_, face, rim.at, on);
          const double rise = lifted(mesh_, face, on).z() - from.z();
          if (far2 > body_.hop_length * body_.hop_length || !(far2 > 1e-6)) return;
          if (rise > body_.hop_height || -rise > body_.drop_height) return;
          const Vector2d way = on - rim.at;
          constexpr double kAhead = 0.5;  // of the way, straight out over the rim
          if (dot(way, rim.outward) < kAhead * std::sqrt(far2)) return;
          offer({face, on, far2});
        },
        [&](double metres) { return metres > body_.hop_length; });
    for (const Target& target : nearest_) {
      if (!is_walked(rim, target)) try_hop(rim, target);
    }
  }

  struct Target {
    std::uint32_t face = 0;
    Vector2d at{0.0, 0.0};
    double distance2 = 0.0;
  };

  void offer(const Target& target) {
    const std::uint32_t surface = mesh_.faces[target.face].surface;
    for (Target& known : nearest_) {
      if (mesh_.faces[known.face].surface != surface) continue;
      const bool is_nearer = target.distance2 < known.distance2 ||
                             (target.distance2 == known.distance2 && target.face < known.face);
      if (is_nearer) known = target;
      return;
    }
    nearest_.push_back(target);
  }

  bool is_walked(const RimPlace& rim, const Target& target) const {
    return is_straight_free(mesh_, rim.face, {rim.at.x(), rim.at.y()}, target.face,
                            {target.at.x(), target.at.y()});
  }

  // A hop begins as near to the rim as the way up allows. If that is too near, it begins farther
  // away and ends farther away.
  void try_hop(const RimPlace& rim, const Target& target) {
    const double gap = std::sqrt(target.distance2);
    const double spare = body_.hop_length - gap;
    const double run_up = needed_before(rim, target, gap) - gap;
    if (run_up + kFootRoom <= spare && try_from(rim, target, {run_up, kFootRoom})) return;
    for (const double share : {0.125, 0.25, 0.375, 0.5}) {
      const double more = spare * share;
      if (more > kFootRoom && try_from(rim, target, {more, more})) return;
    }
  }

  // How far before a higher place a hop has to begin, so that the body is high enough before its
  // front gets there.
  double needed_before(const RimPlace& rim, const Target& target, double gap) const {
    const Vector3d from = lifted(mesh_, rim.face, rim.at);
    const double rise = lifted(mesh_, target.face, target.at).z() - from.z();
    const auto arc =
        arc_between(from, from + Vector3d{0.0, 0.0, rise}, body_.hop_height, mesh_.gravity);
    if (!(rise > 0.0) || !arc) return gap;
    constexpr double kSpare = 0.02;  // metres
    const double share =
        time_to_height(*arc, std::min(rise + kSpare, body_.hop_height)) / arc->seconds;
    return std::max(gap, (body_.radius + share * kFootRoom) / (1.0 - share) + kSpare);
  }

  /// By how much farther away from the rim a hop begins, and by how much it ends beyond the nearest
  /// place.
  struct Room {
    double before = 0.0;
    double beyond = 0.0;
  };

  bool try_from(const RimPlace& rim, const Target& target, const Room& room) {
    const Vector2d way = (target.at - rim.at) / std::sqrt(target.distance2);
    const auto start = straight_on(rim.at, rim.face, way * -room.before);
    const auto end = straight_on(target.at, target.face, way * room.beyond);
    if (!start || !end) return false;
    const auto arc = arc_between(start->place, end->place, body_.hop_height, mesh_.gravity);
    if (!arc || !has_room_for(world_, body_, *arc)) return false;
    add({MeshLink::What::hop, start->place, end->place, 0}, start->polygon, end->polygon);
    return true;
  }

  // The place straight ahead of a place, if the way there is free.
  std::optional<MeshPlace> straight_on(const Vector2d& at, std::uint32_t face,
                                       const Vector2d& shift) const {
    const Vector3d there = lifted(mesh_, face, at + shift) + Vector3d{0.0, 0.0, body_.step_height};
    const auto place = place_below(mesh_, there, 0.0);
    if (!place) return std::nullopt;
    const MeshPoint to = mesh_.plan(place->place);
    const bool is_free = is_straight_free(mesh_, face, {at.x(), at.y()}, place->polygon, to) ||
                         is_straight_free(mesh_, place->polygon, to, face, {at.x(), at.y()});
    return is_free ? place : std::nullopt;
  }

  void add(const MeshLink& link, std::uint32_t from, std::uint32_t to) {
    const Vector3d way = link.to - link.from;
    const auto number = static_cast<std::uint32_t>(mesh_.links.size());
    mesh_.crossings.push_back({mesh_.plan(link.from), mesh_.plan(link.to), from, to,
                               std::sqrt(way.squaredNorm()), number});
    mesh_.links.push_back(link);
  }

  NavigationMesh::Data& mesh_;
  const World& world_;
  const BodySize& body_;
  double spacing_ = NavigationMesh::kLinkSpacing;  ///< Of the places at which links begin, metres.
  std::vector<Target> nearest_;                    ///< By surface.
};

// A ladder may stand nearer to a wall than the body can. Then the nearest place beside it will do.
std::optional<MeshPlace> end_of_made(const NavigationMesh::Data& mesh, const Vector3d& at) {
  const double raised = at.z() + std::max(mesh.body.step_height, 0.01);
  const auto place = place_below(mesh, {at.x(), at.y(), raised}, 2.0 * mesh.body.radius);
  const double most = mesh.body.step_height + 0.01;
  return place && place->place.z() >= at.z() - most ? place : std::nullopt;
}

void add_made(NavigationMesh::Data& mesh, std::uint32_t number, const MeshPlace& from,
              const MeshPlace& to) {
  const Vector3d way = to.place - from.place;
  mesh.crossings.push_back({mesh.plan(from.place), mesh.plan(to.place), from.polygon, to.polygon,
                            std::sqrt(way.squaredNorm()),
                            static_cast<std::uint32_t>(mesh.links.size())});
  mesh.links.push_back({MeshLink::What::made, from.place, to.place, number});
}

}  // namespace

bool makes_links(const NavigationMesh::Data& mesh) {
  return hops(mesh) || drops(mesh);
}

void find_links(NavigationMesh::Data& mesh, const Level& level, const World& world) {
  if (mesh.body.altitude) return;
  for (std::uint32_t i = 0; i < level.links.size(); ++i) {
    const Link& link = level.links[i];
    const auto from = end_of_made(mesh, link.from);
    const auto to = end_of_made(mesh, link.to);
    if (!from || !to) continue;
    add_made(mesh, i, *from, *to);
    if (link.both_ways) add_made(mesh, i, *to, *from);
  }
  LinkFinder(mesh, world).find();
}

}  // namespace gaze
