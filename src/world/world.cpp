#include "gaze/world.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>

#include "geometry/plan.hpp"
#include "world/index.hpp"
#include "world/lengths.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

// Beyond this, metres, the boxes' float arithmetic could overflow; nothing lies there.
constexpr double kFarthestQuestion = 1e12;

bool is_askable(const Vector3d& p) {
  // One sum and one branch: the sum is not finite if any part is not.
  return std::abs(p.x()) + std::abs(p.y()) + std::abs(p.z()) <= kFarthestQuestion;
}

bool is_askable(const Segment& segment) {
  return is_askable(segment.from) && is_askable(segment.to);
}

bool is_askable(const BallPath& ball) {
  return is_askable(ball.path) && ball.radius >= 0.0 && ball.radius <= kFarthestQuestion;
}

bool is_askable(const Cylinder& cylinder, const Vector3d& motion) {
  return is_askable(cylinder.feet) && is_askable(motion) &&
         is_askable(Vector3d{cylinder.radius, cylinder.height, 0.0});
}

std::array<double, 3> around(double radius) {
  return {radius, radius, radius};
}

std::array<double, 3> around(const PlanBody& body) {
  return body.is_disc ? std::array{body.half_width, body.half_width, body.half_height}
                      : std::array{body.half_width, body.half_height, 0.0};
}

/// The nearest touch so far. Of equally near ones it is that of the solid that comes first in the
/// level.
struct Nearest {
  double share = 1.0;
  std::uint32_t piece = 0;
  std::uint32_t solid = 0;

  bool offer(double candidate, std::uint32_t its_piece, std::uint32_t its_solid) {
    if (candidate > share || (candidate == share && its_solid >= solid)) return false;
    share = candidate;
    piece = its_piece;
    solid = its_solid;
    return true;
  }
};

/// `touch(piece)` gives the share at which one piece is met, if at all.
template <typename TouchOne>
Nearest nearest_touch(const World& world, const PlanSegment& way,
                      const std::array<double, 3>& reach, Stops what, TouchOne&& touch) {
  const World::Index& index = index_of(world);
  Walker walker(way, reach);
  Nearest nearest;
  walk_nearest(index.tree, walker, [&](std::uint32_t piece) {
    if (!stops(world, piece, what)) return;
    const std::optional<double> share = touch(piece);
    if (share && nearest.offer(*share, piece, index.pieces[piece].solid))
      walker.look_up_to(nearest.share);
  });
  return nearest;
}

std::optional<Touch> to_touch(const Nearest& nearest, const Segment& way) {
  if (nearest.share >= 1.0) return std::nullopt;
  Touch touch;
  touch.share = nearest.share;
  touch.solid = {nearest.solid};
  touch.place = way.from + (way.to - way.from) * nearest.share;
  return touch;
}

RayHit host_hit(const World& world, const Segment& segment, Stops what) {
  RayHit hit;
  if (what == Stops::sight) {
    world.host()->first_hits({&segment, 1}, {&hit, 1});
  } else {
    world.host()->first_hits_of(what, {&segment, 1}, {&hit, 1});
  }
  return hit;
}

// The nearer of a touch among the level's solids and one in the host's world.
std::optional<Touch> with_hosts(const World& world, const Segment& way, Stops what,
                                const std::optional<Touch>& own) {
  if (world.host() == nullptr) return own;
  const RayHit hit = host_hit(world, way, what);
  const double length = length_of(Vector3d(way.to - way.from));
  if (!hit.is_hit || !(length > 0.0)) return own;
  const double share = length_of(Vector3d(hit.place - way.from)) / length;
  if (!(share < 1.0) || (own && own->share <= share)) return own;
  Touch touch;
  touch.share = share;
  touch.solid = kOfHost;
  touch.place = way.from + (way.to - way.from) * share;
  touch.host_id = hit.id;
  return touch;
}

template <typename Question, typename Answer, typename Ask>
void ask_each(std::span<const Question> questions, std::span<Answer> answers, Ask&& ask) {
  need_as_many(questions.size(), answers.size());
  for (std::size_t i = 0; i < questions.size(); ++i) answers[i] = ask(questions[i]);
}

}  // namespace

void World::set_gone(SolidId solid, bool is_gone) {
  if (gone_.empty()) {
    if (!is_gone) return;
    std::uint32_t most = solid.index;
    for (const Piece& piece : index_->pieces) most = std::max(most, piece.solid);
    gone_.assign(most + 1, 0);
  }
  if (solid.index < gone_.size()) gone_[solid.index] = is_gone ? 1 : 0;
}

World World::whole() const {
  World world = *this;
  world.gone_.clear();
  return world;
}

World World::with_host(std::shared_ptr<const RaySource> host) const {
  World world = *this;
  world.host_ = std::move(host);
  return world;
}

bool World::is_gone(SolidId solid) const noexcept {
  return solid.index < gone_.size() && gone_[solid.index] != 0;
}

bool is_stopped_in_tree(const World& world, const PlanSegment& way, Stops what) noexcept {
  const World::Index& index = index_of(world);
  const auto visit = [&](std::uint32_t piece) {
    return stops(world, piece, what) && first_touch(index, piece, way).has_value();
  };
  return walk_any(index.tree, Walker(way, around(0.0)), visit,
                  [&](std::uint32_t piece) { __builtin_prefetch(&index.pieces[piece]); });
}

bool World::is_clear(const Segment& segment, Stops what) const noexcept {
  if (!is_askable(segment)) return true;
  const PlanSegment way = to_plan(index_->plane, segment);
  const bool is_stopped = index_->grid.size > 0.0 ? stopped_in_grid(*this, {&way, 1}, what) != 0
                                                  : is_stopped_in_tree(*this, way, what);
  return !is_stopped && !(host_ != nullptr && host_hit(*this, segment, what).is_hit);
}

namespace {

std::size_t count_clear_one_by_one(const World& world, const Vector3d& from,
                                   std::span<const Vector3d> to, Stops what, std::size_t enough,
                                   std::size_t spare) {
  std::size_t clear = 0;
  std::size_t stopped = 0;
  for (const Vector3d& place : to) {
    if (clear >= enough || stopped > spare) break;
    (world.is_clear(Segment{from, place}, what) ? clear : stopped) += 1;
  }
  return clear;
}

}  // namespace

std::size_t count_clear(const World& world, const Vector3d& from, std::span<const Vector3d> to,
                        Stops what, std::size_t enough, std::size_t spare) noexcept {
  const World::Index& index = index_of(world);
  const bool share_a_plan = index.plane != Plane::upright && index.grid.size > 0.0 &&
                            world.host() == nullptr && !to.empty() && to.size() <= kMostHeights;
  const auto can_be_asked = [](const Vector3d& place) { return is_askable(place); };
  if (!share_a_plan || !is_askable(from) || !std::all_of(to.begin(), to.end(), can_be_asked)) {
    return count_clear_one_by_one(world, from, to, what, enough, spare);
  }
  std::array<PlanSegment, kMostHeights> ways;
  for (std::size_t i = 0; i < to.size(); ++i) ways[i] = to_plan(index.plane, Segment{from, to[i]});
  const unsigned stopped = stopped_in_grid(world, {ways.data(), to.size()}, what);
  return to.size() - static_cast<std::size_t>(std::popcount(stopped));
}

bool World::is_clear(const Ray& ray, Stops what) const noexcept {
  return is_clear(ray.segment(), what);
}

bool World::is_clear(const BallPath& ball, Stops what) const noexcept {
  if (!is_askable(ball)) return true;
  const PlanSegment way = to_plan(index_->plane, ball.path);
  const bool is_stopped =
      walk_any(index_->tree, Walker(way, around(ball.radius)), [&](std::uint32_t piece) {
        if (!stops(*this, piece, what)) return false;
        const PieceShape shape(*index_, piece);
        return gaze::first_touch(shape.prism(), way, ball.radius).has_value();
      });
  return !is_stopped && !(host_ != nullptr && host_hit(*this, ball.path, what).is_hit);
}

std::optional<Touch> World::first_touch(const Segment& segment, Stops what) const noexcept {
  if (!is_askable(segment)) return std::nullopt;
  const PlanSegment way = to_plan(index_->plane, segment);
  const Nearest nearest = nearest_touch(*this, way, around(0.0), what, [&](std::uint32_t piece) {
    return gaze::first_touch(*index_, piece, way);
  });
  return with_hosts(*this, segment, what, to_touch(nearest, segment));
}

std::optional<Touch> World::first_touch(const Ray& ray, Stops what) const noexcept {
  return first_touch(ray.segment(), what);
}

std::optional<Touch> World::first_touch(const BallPath& ball, Stops what) const noexcept {
  if (!is_askable(ball)) return std::nullopt;
  const PlanSegment way = to_plan(index_->plane, ball.path);
  const Nearest nearest =
      nearest_touch(*this, way, around(ball.radius), what, [&](std::uint32_t piece) {
        const PieceShape shape(*index_, piece);
        return gaze::first_touch(shape.prism(), way, ball.radius);
      });
  auto touch = with_hosts(*this, ball.path, what, to_touch(nearest, ball.path));
  if (!touch || touch->solid == kOfHost) return touch;
  const PieceShape shape(*index_, nearest.piece);
  const Vector3d away = from_plan(
      index_->plane, gaze::offset_from(shape.prism(), to_plan(index_->plane, touch->place)));
  const double length = length_of(away);
  if (length > 0.0) touch->normal = away / length;
  return touch;
}

bool World::overlaps(const Cylinder& cylinder, Stops what) const noexcept {
  if (!is_askable(cylinder, {0.0, 0.0, 0.0})) return false;
  const PlanBody body = to_plan(index_->plane, cylinder);
  return walk_any(index_->tree, Walker({body.middle, body.middle}, around(body)),
                  [&](std::uint32_t piece) {
                    if (!stops(*this, piece, what)) return false;
                    const PieceShape shape(*index_, piece);
                    return gaze::overlaps(shape.prism(), body);
                  });
}

std::optional<SolidId> World::first_overlap(const Cylinder& cylinder, Stops what) const noexcept {
  if (!is_askable(cylinder, {0.0, 0.0, 0.0})) return std::nullopt;
  const PlanBody body = to_plan(index_->plane, cylinder);
  std::optional<SolidId> first;
  walk_any(index_->tree, Walker({body.middle, body.middle}, around(body)),
           [&](std::uint32_t piece) {
             const std::uint32_t solid = index_->pieces[piece].solid;
             if (!stops(*this, piece, what) || (first && solid >= first->index)) return false;
             const PieceShape shape(*index_, piece);
             if (gaze::overlaps(shape.prism(), body)) first = SolidId{solid};
             return false;
           });
  return first;
}

std::optional<Touch> World::sweep(const Cylinder& cylinder, const Vector3d& motion,
                                  Stops what) const noexcept {
  if (!is_askable(cylinder, motion)) return std::nullopt;
  const PlanBody body = to_plan(index_->plane, cylinder);
  const PlanPoint way = to_plan(index_->plane, motion);
  const PlanPoint end{body.middle.plan + way.plan, body.middle.across + way.across};
  const Nearest nearest =
      nearest_touch(*this, {body.middle, end}, around(body), what, [&](std::uint32_t piece) {
        const PieceShape shape(*index_, piece);
        const auto contact = first_entry(shape.prism(), body, way);
        return contact ? std::optional(contact->share) : std::nullopt;
      });
  auto touch = to_touch(nearest, {cylinder.feet, cylinder.feet + motion});
  if (touch) {
    const PieceShape shape(*index_, nearest.piece);
    const auto contact = first_entry(shape.prism(), body, way);
    touch->normal = from_plan(index_->plane, contact->normal);
  }
  return touch;
}

void World::are_clear(std::span<const Segment> segments, Stops what,
                      std::span<std::uint8_t> clear) const {
  if (host_ != nullptr || index_->grid.size > 0.0) {
    return ask_each(segments, clear, [&](const Segment& one) { return is_clear(one, what); });
  }
  need_as_many(segments.size(), clear.size());
  if (index_->tree.nodes.empty()) {
    std::fill(clear.begin(), clear.end(), std::uint8_t{1});
    return;
  }
  const auto start = [&](std::size_t i) {
    return is_askable(segments[i])
               ? std::optional(Walker(to_plan(index_->plane, segments[i]), around(0.0)))
               : std::nullopt;
  };
  const auto visit = [&](std::size_t i, std::uint32_t piece) {
    return stops(*this, piece, what) &&
           gaze::first_touch(*index_, piece, to_plan(index_->plane, segments[i])).has_value();
  };
  walk_any_by_turns(index_->tree, segments.size(), start, visit,
                    [&](std::size_t i, bool found) { clear[i] = found ? 0 : 1; });
}

void World::are_clear(std::span<const Ray> rays, Stops what, std::span<std::uint8_t> clear) const {
  ask_each(rays, clear, [&](const Ray& ray) { return is_clear(ray, what); });
}

void World::are_clear(std::span<const BallPath> balls, Stops what,
                      std::span<std::uint8_t> clear) const {
  ask_each(balls, clear, [&](const BallPath& ball) { return is_clear(ball, what); });
}

void World::first_touches(std::span<const Segment> segments, Stops what,
                          std::span<std::optional<Touch>> touches) const {
  ask_each(segments, touches, [&](const Segment& segment) { return first_touch(segment, what); });
}

void World::first_touches(std::span<const Ray> rays, Stops what,
                          std::span<std::optional<Touch>> touches) const {
  ask_each(rays, touches, [&](const Ray& ray) { return first_touch(ray, what); });
}

void World::first_touches(std::span<const BallPath> balls, Stops what,
                          std::span<std::optional<Touch>> touches) const {
  ask_each(balls, touches, [&](const BallPath& ball) { return first_touch(ball, what); });
}

void World::overlap(std::span<const Cylinder> cylinders, Stops what,
                    std::span<std::uint8_t> overlapping) const {
  ask_each(cylinders, overlapping,
           [&](const Cylinder& cylinder) { return overlaps(cylinder, what); });
}

void World::sweeps(std::span<const Cylinder> cylinders, std::span<const Vector3d> motions,
                   Stops what, std::span<std::optional<Touch>> touches) const {
  need_as_many(cylinders.size(), motions.size());
  need_as_many(cylinders.size(), touches.size());
  for (std::size_t i = 0; i < cylinders.size(); ++i) {
    touches[i] = sweep(cylinders[i], motions[i], what);
  }
}

}  // namespace gaze
