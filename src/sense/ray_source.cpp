#include "gaze/ray_source.hpp"

#include "sense/field.hpp"
#include "sense/look.hpp"
#include "world/lengths.hpp"

namespace gaze {
namespace {

// The lines of sight of a pair.
void add_rays(Plane plane, const Looker& looker, const LookedAt& other, std::size_t pair,
              LookScratch& scratch) {
  const Vector3d eye = eye_of(plane, looker);
  for (const double share : other.body_points) {
    scratch.segments.push_back({eye, body_point(other, share)});
    scratch.pairs.push_back(static_cast<std::uint32_t>(pair));
  }
}

/// Pairs of lookers and others: one looker with one other, or each with each.
struct Pairs {
  std::span<const Looker> lookers;
  std::span<const LookedAt> others;
  bool is_each_with_each = false;

  std::size_t count() const {
    return is_each_with_each ? lookers.size() * others.size() : lookers.size();
  }
  const Looker& looker(std::size_t pair) const {
    return lookers[is_each_with_each ? pair / others.size() : pair];
  }
  const LookedAt& other(std::size_t pair) const {
    return others[is_each_with_each ? pair % others.size() : pair];
  }
};

Pairs one_by_one(std::span<const Looker> lookers, std::span<const LookedAt> others) {
  need_as_many(lookers.size(), others.size());
  return {lookers, others, false};
}

// Lines of sight of the pairs that pass the other tests; what these measure is kept for all.
void gather(Plane plane, const Pairs& pairs, LookScratch& scratch,
            std::span<QuickVerdict> sighted) {
  need_as_many(pairs.count(), sighted.size());
  scratch.segments.clear();
  scratch.pairs.clear();
  for (std::size_t i = 0; i < pairs.count(); ++i) {
    const DistanceAndAngle measured = measure(plane, pairs.looker(i), pairs.other(i));
    sighted[i] = {false, 0.0, measured.distance, measured.angle_deg};
    if (may_see(plane, pairs.looker(i), pairs.other(i))) {
      add_rays(plane, pairs.looker(i), pairs.other(i), i, scratch);
    }
  }
}

template <typename IsClear>
void count(const Pairs& pairs, const LookScratch& scratch, std::span<QuickVerdict> sighted,
           IsClear&& is_clear) {
  for (std::size_t ray = 0; ray < scratch.segments.size();) {
    const std::uint32_t pair = scratch.pairs[ray];
    const std::size_t points = pairs.other(pair).body_points.size();
    std::size_t reached = 0;
    for (std::size_t i = 0; i < points; ++i, ++ray) reached += is_clear(ray);
    sighted[pair].visible = static_cast<double>(reached) / static_cast<double>(points);
    sighted[pair].sees = is_enough(pairs.looker(pair), sighted[pair].visible);
  }
}

void look_at(const World& world, const Pairs& pairs, LookScratch& scratch,
             std::span<QuickVerdict> sighted) {
  gather(world.plane(), pairs, scratch, sighted);
  scratch.clear.resize(scratch.segments.size());
  world.are_clear(std::span<const Segment>(scratch.segments), Stops::sight, scratch.clear);
  count(pairs, scratch, sighted, [&](std::size_t ray) { return scratch.clear[ray] != 0; });
}

void look_at(const RaySource& world, Plane plane, const Pairs& pairs, LookScratch& scratch,
             std::span<QuickVerdict> sighted) {
  gather(plane, pairs, scratch, sighted);
  scratch.hits.assign(scratch.segments.size(), {});
  world.first_hits(scratch.segments, scratch.hits);
  count(pairs, scratch, sighted, [&](std::size_t ray) { return !scratch.hits[ray].is_hit; });
}

}  // namespace

void look(const World& world, std::span<const Looker> lookers, std::span<const LookedAt> others,
          LookScratch& scratch, std::span<QuickVerdict> sighted) {
  look_at(world, one_by_one(lookers, others), scratch, sighted);
}

void look_all(const World& world, std::span<const Looker> lookers, std::span<const LookedAt> others,
              LookScratch& scratch, std::span<QuickVerdict> sighted) {
  look_at(world, {lookers, others, true}, scratch, sighted);
}

void look_all(const RaySource& world, Plane plane, std::span<const Looker> lookers,
              std::span<const LookedAt> others, LookScratch& scratch,
              std::span<QuickVerdict> sighted) {
  look_at(world, plane, {lookers, others, true}, scratch, sighted);
}

void can_see(const World& world, std::span<const Looker> lookers, std::span<const LookedAt> others,
             std::span<std::uint8_t> sees) {
  need_as_many(lookers.size(), others.size());
  need_as_many(lookers.size(), sees.size());
  for (std::size_t i = 0; i < lookers.size(); ++i) {
    sees[i] = can_see(world, lookers[i], others[i]);
  }
}

void can_see_all(const World& world, std::span<const Looker> lookers,
                 std::span<const LookedAt> others, std::span<std::uint8_t> sees) {
  need_as_many(lookers.size() * others.size(), sees.size());
  auto answer = sees.begin();
  for (const Looker& looker : lookers) {
    for (const LookedAt& other : others) *answer++ = can_see(world, looker, other);
  }
}

void can_see_all(const RaySource& world, Plane plane, std::span<const Looker> lookers,
                 std::span<const LookedAt> others, LookScratch& scratch,
                 std::span<std::uint8_t> sees) {
  need_as_many(lookers.size() * others.size(), sees.size());
  scratch.segments.clear();
  scratch.pairs.clear();
  for (std::size_t pair = 0; pair < sees.size(); ++pair) {
    const Looker& looker = lookers[pair / others.size()];
    const LookedAt& other = others[pair % others.size()];
    sees[pair] = 0;
    if (may_see(plane, looker, other)) add_rays(plane, looker, other, pair, scratch);
  }
  scratch.hits.assign(scratch.segments.size(), {});
  world.first_hits(scratch.segments, scratch.hits);
  for (std::size_t ray = 0; ray < scratch.segments.size();) {
    const std::uint32_t pair = scratch.pairs[ray];
    const std::size_t points = others[pair % others.size()].body_points.size();
    std::size_t reached = 0;
    for (std::size_t i = 0; i < points; ++i, ++ray) reached += !scratch.hits[ray].is_hit;
    const double visible = static_cast<double>(reached) / static_cast<double>(points);
    sees[pair] = is_enough(lookers[pair / others.size()], visible);
  }
}

void look(const RaySource& world, Plane plane, std::span<const Looker> lookers,
          std::span<const LookedAt> others, LookScratch& scratch, std::span<QuickVerdict> sighted) {
  look_at(world, plane, one_by_one(lookers, others), scratch, sighted);
}

Verdict look(const RaySource& world, Plane plane, const Looker& looker, const LookedAt& other) {
  Verdict verdict = look_without_rays(plane, looker, other);
  const std::size_t points = other.body_points.size();
  verdict.line.points = static_cast<int>(points);
  if (points == 0) return verdict;
  std::vector<Segment> segments;
  for (const double share : other.body_points) {
    segments.push_back({eye_of(plane, looker), body_point(other, share)});
  }
  std::vector<RayHit> hits(points);
  world.first_hits(segments, hits);
  std::size_t reached = 0;
  std::size_t stopped = points;
  for (std::size_t i = points; i-- > 0;) {
    reached += !hits[i].is_hit;
    if (hits[i].is_hit) stopped = i;
  }
  if (hits[middle_point(other.body_points)].is_hit) stopped = middle_point(other.body_points);
  verdict.line.visible = static_cast<double>(reached) / static_cast<double>(points);
  verdict.line.pass = is_enough(looker, verdict.line.visible);
  if (stopped < points) {
    verdict.line.blocked_by = hits[stopped].name;
    verdict.line.blocked_by_id = hits[stopped].id;
    verdict.line.blocked_at = hits[stopped].place;
  }
  verdict.sees = verdict.range.pass && verdict.field.pass && verdict.line.pass &&
                 (!verdict.vertical || verdict.vertical->pass);
  verdict.evidence = rate_of(looker, other, verdict.range.value, verdict.line.visible);
  return verdict;
}

void feel(const RaySource& world, Plane plane, std::span<const FeelerQuestion> questions,
          LookScratch& scratch, std::span<HostFelt> felt) {
  need_as_many(questions.size(), felt.size());
  scratch.segments.clear();
  for (const FeelerQuestion& question : questions) {
    scratch.segments.push_back(
        feeler_path(plane, question.feeler, question.feet, question.facing).path);
  }
  scratch.hits.assign(questions.size(), {});
  world.first_hits(scratch.segments, scratch.hits);
  for (std::size_t i = 0; i < questions.size(); ++i) {
    felt[i] = {std::nullopt, scratch.hits[i]};
    if (scratch.hits[i].is_hit) {
      felt[i].distance = (scratch.hits[i].place - scratch.segments[i].from).norm();
    }
  }
}

namespace {

/// The directions in which a seen area is asked for, degrees, one after the other.
struct Fan {
  double first = 0.0;
  double step = 0.0;
  int count = 0;  ///< One more than gaps, but all round.
  bool is_round = false;

  double degrees(int i) const { return first + step * i; }
};

Fan fan_of(const PlanField& field, int rays) {
  const double middle = angle_of(field.middle).degrees();
  if (field.half->degrees() >= 180.0) return {middle, 360.0 / rays, rays, true};
  const double half = field.half->degrees();
  return {middle - half, 2.0 * half / (rays - 1), rays, false};
}

SeenEdge edge_between(const SeenArea& area, const Fan& fan, int i, const Vector2d& from,
                      const Vector2d& to, bool at_range) {
  SeenEdge edge{from, to, at_range, {}, {}, kOfHost};
  if (!at_range) return edge;
  double start = std::remainder(fan.degrees(i), 360.0);
  if (start < 0.0) start += 360.0;
  edge.start = Angle::from_degrees(start);
  edge.end = Angle::from_degrees(start + fan.step);
  const auto on_arc = [&](const Angle& at) {
    const SineCosine way = sine_cosine(at);
    return Vector2d(area.eye + area.range * Vector2d{way.cosine, way.sine});
  };
  edge.from = on_arc(edge.start);
  edge.to = on_arc(edge.end);
  return edge;
}

}  // namespace

SeenArea seen_area(const RaySource& world, Plane plane, const Looker& looker, int rays) {
  if (rays < 3) throw UsageError("a seen area of less than 3 rays");
  const Vector3d eye = eye_of(plane, looker);
  SeenArea area;
  area.eye = plan_part(plane, eye);
  area.range = range_of(looker);
  const PlanField field = plan_field(plane, looker);
  if (!field.half) return area;
  const Fan fan = fan_of(field, rays);
  std::vector<Segment> segments;
  for (int i = 0; i < fan.count; ++i) {
    const SineCosine way = sine_cosine(Angle::from_degrees(fan.degrees(i)));
    const Vector3d along = plane == Plane::upright ? Vector3d{way.cosine, 0.0, way.sine}
                                                   : Vector3d{way.cosine, way.sine, 0.0};
    segments.push_back({eye, eye + along * area.range});
  }
  std::vector<RayHit> hits(segments.size());
  world.first_hits(segments, hits);
  const auto place = [&](std::size_t i) {
    return plan_part(plane, hits[i].is_hit ? hits[i].place : segments[i].to);
  };
  for (int i = 0; i + (fan.is_round ? 0 : 1) < fan.count; ++i) {
    const auto own = static_cast<std::size_t>(i);
    const std::size_t next = (own + 1) % hits.size();
    const bool at_range = !hits[own].is_hit && !hits[next].is_hit;
    area.edges.push_back(edge_between(area, fan, i, place(own), place(next), at_range));
  }
  return area;
}

}  // namespace gaze
