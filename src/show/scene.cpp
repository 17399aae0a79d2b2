#include "show/scene.hpp"

#include "gaze/acquaintance.hpp"
#include "gaze/going.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "geometry/plan.hpp"
#include "geometry/prism.hpp"
#include "level/numbers.hpp"
#include "sense/field.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

using Edge = std::pair<Vector2d, Vector2d>;

std::vector<Edge> edges_of(const std::vector<Polygon>& pieces) {
  std::vector<Edge> edges;
  for (const Polygon& piece : pieces) {
    for (std::size_t i = 0; i < piece.size(); ++i) {
      edges.emplace_back(piece[i], piece[(i + 1) % piece.size()]);
    }
  }
  return edges;
}

// Neighbouring pieces run along their shared edge in opposite directions.
std::vector<Edge> rim_of(const std::vector<Polygon>& pieces) {
  const std::vector<Edge> edges = edges_of(pieces);
  std::vector<Edge> rim;
  std::copy_if(edges.begin(), edges.end(), std::back_inserter(rim), [&](const Edge& edge) {
    return std::find(edges.begin(), edges.end(), Edge{edge.second, edge.first}) == edges.end();
  });
  return rim;
}

class SceneMaker {
 public:
  SceneMaker(const Simulation& simulation, const Trails& trails)
      : simulation_(simulation), level_(simulation.level()), trails_(trails) {}

  Scene make() {
    describe_level();
    add_bounds();
    add_zones();
    add_solids();
    const std::vector<AgentId> agents = simulation_.agents();
    for (const AgentId agent : agents) add_agent(agent);
    for (const AgentId agent : agents) add_bodily(agent);
    for (const Projectile& shot : simulation_.projectiles()) {
      scene_.shots.push_back({plan(shot.position), plan(shot.velocity), shot.radius});
    }
    add_tracks();
    for (const BeamRay& beam : simulation_.beams()) {
      scene_.beams.push_back({plan(beam.from), plan(beam.to), 2.0 * beam.radius});
    }
    if (scene_.low.x() > scene_.high.x()) scene_.low = scene_.high = {0.0, 0.0};
    return std::move(scene_);
  }

 private:
  Vector2d plan(const Vector3d& p) const { return plan_part(level_.plane, p); }

  void include(const Vector2d& p) {
    scene_.low = scene_.low.cwiseMin(p);
    scene_.high = scene_.high.cwiseMax(p);
  }

  void describe_level() {
    constexpr double kInfinity = std::numeric_limits<double>::infinity();
    scene_.low = {kInfinity, kInfinity};
    scene_.high = -scene_.low;
    scene_.title = level_.name;
    scene_.moment = fmt::format("{:.2f} s", simulation_.seconds());
    scene_.is_upright = level_.plane == Plane::upright;
    scene_.ground_height = level_.ground_height;
    scene_.material_in_use.resize(level_.materials.size(), false);
    for (const Team& team : level_.teams) scene_.teams.push_back(team.name);
    for (const Material& material : level_.materials) {
      std::string stops;
      for (std::size_t i = 0; i < kStopsNames.size(); ++i) {
        if (material.stops.test(i))
          stops += (stops.empty() ? "" : ", ") + std::string(kStopsNames[i]);
      }
      scene_.materials.push_back(
          fmt::format("{}: stops {}", material.name, stops.empty() ? "nothing" : stops));
      scene_.stops_sight.push_back(material.stops.test(0));
    }
  }

  void add_bounds() {
    if (!level_.bounds) return;
    scene_.bounds = level_.bounds->outline;
    for (const Vector2d& corner : scene_.bounds) include(corner);
  }

  void add_zones() {
    for (const Zone& zone : level_.zones) {
      ZoneShape shape;
      shape.label = zone.dimness > 0.0 ? worded("{}, dim {}", zone.id, zone.dimness) : zone.id;
      shape.outline = zone.outline;
      shape.dimness = zone.dimness;
      for (const Vector2d& corner : zone.outline) {
        include(corner);
        shape.middle += corner / double(zone.outline.size());
      }
      scene_.zones.push_back(std::move(shape));
    }
  }

  bool is_recent(std::int64_t tick) const {
    return 2 * (simulation_.tick() - tick) < level_.ticks_per_second;
  }

  void add_tracks() {
    for (const ShotTrack& track : trails_.tracks()) {
      TrackShape shape;
      shape.radius = track.radius;
      for (const Vector3d& place : track.places) shape.points.push_back(plan(place));
      for (const Vector3d& place : track.hits) shape.hits.push_back(plan(place));
      scene_.tracks.push_back(std::move(shape));
    }
  }

  // Feelers and nearness of those awake, and the blasts and noises of the last half second.
  void add_bodily(AgentId id) {
    const AgentState state = simulation_.state(id);
    const Kind& kind = level_.kind_of(level_.agents[id.index]);
    const auto blast = simulation_.last_blast(id);
    if (blast && is_recent(blast->tick)) {
      scene_.blasts.push_back(
          {clear_area(simulation_.world(), blast->place, blast->radius, Stops::shots),
           worded("{}, {} m", blast->attack, blast->radius)});
    }
    if (!state.is_alive) return;
    if (const auto made = simulation_.last_noise(id)) {
      if (is_recent(made->tick)) {
        scene_.rings.push_back({RingShape::What::noise, plan(made->place), made->reach,
                                worded("{}, {} m", made->noise, made->reach)});
      }
    }
    if (!state.is_awake) return;
    if (kind.nearness) {
      scene_.rings.push_back(
          {RingShape::What::nearness, plan(state.position), kind.nearness->range, ""});
    }
    if (kind.feelers.empty()) return;
    const Acquaintance knows = acquaintance(simulation_, id, neighbour(id));
    for (std::size_t i = 0; i < kind.feelers.size(); ++i) {
      const BallPath path =
          feeler_path(level_.plane, kind.feelers[i], state.position,
                      kind.feelers[i].turns_with_head ? state.head : state.facing);
      const FeelerAnswer& answer = knows.feelers[i];
      scene_.feelers.push_back({plan(path.path.from), plan(path.path.to), plan(answer.felt.place),
                                kind.feelers[i].thickness, answer.is_yes});
    }
  }

  // Feelers are asked about somebody; whom does not matter here.
  AgentId neighbour(AgentId id) const {
    for (const AgentId other : simulation_.agents()) {
      if (other != id) return other;
    }
    return id;
  }

  void add_solids() {
    const World::Index& index = index_of(simulation_.world());
    scene_.solids.resize(level_.solids.size());
    for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
      Polygon polygon;
      for (const PrismEdge& edge : index.prism(piece).edges) polygon.emplace_back(edge.x, edge.y);
      for (const Vector2d& corner : polygon) include(corner);
      scene_.solids[index.pieces[piece].solid].pieces.push_back(std::move(polygon));
    }
    for (std::size_t i = 0; i < scene_.solids.size(); ++i) finish_solid(i);
  }

  std::string label_of(const Solid& solid) const {
    if (scene_.is_upright) return solid.id;
    switch (solid.form) {
      case Solid::Form::floor:
        return worded("{}, top at {} m", solid.id, *solid.base + solid.height);
      case Solid::Form::ramp:
      case Solid::Form::stairs:
        return worded("{}, {} to {} m", solid.id, std::min(solid.from.z(), solid.to.z()),
                      std::max(solid.from.z(), solid.to.z()));
      default:
        if (solid.base == level_.ground_height.value_or(0.0)) {
          return worded("{} {} m", solid.id, solid.height);
        }
        return worded("{}, {} to {} m", solid.id, *solid.base, *solid.base + solid.height);
    }
  }

  // What a straight way goes over, of all that would stop it if it were higher: the first.
  std::string passed_over(const Vector3d& from, const Vector3d& to) const {
    if (scene_.is_upright) return "";
    const World::Index& index = index_of(simulation_.world());
    double first = 1.0;
    std::string text;
    for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
      const Solid& solid = level_.solids[index.pieces[piece].solid];
      if (!stops(simulation_.world(), piece, Stops::sight) || is_walkway(solid.form)) continue;
      // In the plan alone: through the middle of its height.
      const Prism prism = index.prism(piece);
      const double middle = (prism.low + prism.high) / 2.0;
      const auto share = first_touch(prism, PlanSegment{{plan(from), middle}, {plan(to), middle}});
      if (!share || *share >= first) continue;
      const double top = *solid.base + solid.height;
      if (top > from.z() + (to.z() - from.z()) * *share) continue;
      first = *share;
      text = worded(", over {} ({} m)", solid.id, top);
    }
    return text;
  }

  void finish_solid(std::size_t i) {
    const Solid& solid = level_.solids[i];
    SolidShape& shape = scene_.solids[i];
    shape.material = solid.material;
    scene_.material_in_use[solid.material] = true;
    shape.label = label_of(solid);
    shape.is_walkway = is_walkway(solid.form);
    shape.is_gone = simulation_.world().is_gone({static_cast<std::uint32_t>(i)});
    if (shape.is_gone) shape.label += solid.form == Solid::Form::door ? " (open)" : " (broken)";
    if (solid.form == Solid::Form::ramp || solid.form == Solid::Form::stairs) {
      const bool rises = solid.from.z() < solid.to.z();
      shape.upward = {plan(rises ? solid.from : solid.to), plan(rises ? solid.to : solid.from)};
    }
    if (shape.pieces.empty()) return;
    shape.rim = rim_of(shape.pieces);
    Vector2d low = shape.pieces[0][0];
    Vector2d high = low;
    for (const Polygon& piece : shape.pieces) {
      for (const Vector2d& corner : piece) {
        low = low.cwiseMin(corner);
        high = high.cwiseMax(corner);
      }
    }
    shape.least_extent = (high - low).minCoeff();
    // A wall may be bent: the middle of its middle stretch lies on it.
    const Polygon& middle = shape.pieces[shape.pieces.size() / 2];
    shape.middle = {0.0, 0.0};
    for (const Vector2d& corner : middle) shape.middle += corner / double(middle.size());
  }

  void add_agent(AgentId id) {
    const AgentState state = simulation_.state(id);
    if (!state.is_there) return;
    const Kind& kind = level_.kind_of(level_.agents[id.index]);
    AgentShape shape;
    shape.id = simulation_.id_of(id);
    shape.mode = state.is_awake ? std::string(name_of(state.mode)) : "asleep";
    shape.team = kind.team;
    const Vector2d feet = plan(state.position);
    const Vector2d side{kind.radius, scene_.is_upright ? 0.0 : kind.radius};
    shape.low = feet - side;
    shape.high = feet + side + Vector2d{0.0, scene_.is_upright ? kind.height : 0.0};
    shape.place = (shape.low + shape.high) / 2.0;
    shape.facing = state.facing;
    shape.health_share = state.health / kind.health;
    shape.is_alive = state.is_alive;
    shape.has_target = state.target.has_value();
    for (const Vector3d& p : trails_.of(id)) {
      shape.trail.push_back(plan(p));
      include(shape.trail.back());
    }
    if (state.is_alive) {
      add_way(shape, id);
      if (kind.sight && state.is_awake) shape.note = add_senses(id);
    }
    include(shape.low);
    include(shape.high);
    scene_.agents.push_back(std::move(shape));
  }

  void add_way(AgentShape& shape, AgentId id) const {
    const Going way = going(simulation_, id);
    if (way.ahead.empty()) return;
    shape.way.push_back(plan(simulation_.state(id).position));
    for (const Vector3d& p : way.ahead) shape.way.push_back(plan(p));
  }

  // What it sees, and its lines of sight.
  // @return A word on the nearest of those it looks for if all of them are out of range.
  std::string add_senses(AgentId id) {
    Looker looker = simulation_.looker(id);
    SeenShape seen;
    bool any_in_range = false;
    std::optional<Verdict> nearest;
    for (const AgentId other : simulation_.agents()) {
      const Verdict verdict = simulation_.look(id, other);
      if (!verdict.hindrance.empty()) continue;
      const bool noticed = simulation_.awareness(id, other) == Awareness::noticed;
      looker.has_noticed = noticed;
      seen.is_alert |= noticed;
      any_in_range |= verdict.range.pass;
      if (verdict.range.pass) add_line(looker, verdict, other);
      if (!nearest || verdict.range.value < nearest->range.value) nearest = verdict;
    }
    looker.has_noticed = seen.is_alert;
    const PlanField field = plan_field(level_.plane, looker);
    if (field.half) {
      seen.area = seen_area(simulation_.world(), looker);
      seen.middle = field.middle;
      seen.half_field_deg = field.half->degrees();
      scene_.seen.push_back(std::move(seen));
    }
    if (any_in_range || !nearest) return "";
    return fmt::format("{} out of range, {:.2f} m", nearest->other, nearest->range.value);
  }

  void add_line(const Looker& looker, const Verdict& verdict, AgentId other) {
    const LookedAt looked = simulation_.looked(other);
    SightLine line;
    line.from = plan(eye_of(level_.plane, looker));
    line.to = plan(looked.feet + Vector3d{0.0, 0.0, looked.height / 2.0});
    line.label = fmt::format("{:.2f} m, {:.1f}°", verdict.range.value, verdict.field.value_deg);
    if (!verdict.line.pass) {
      line.outcome = SightLine::Outcome::stopped;
      line.stop = plan(verdict.line.blocked_at);
      line.label += ", " + verdict.line.blocked_by;
    } else {
      if (!verdict.field.pass) line.outcome = SightLine::Outcome::outside_field;
      line.label += passed_over(eye_of(level_.plane, looker),
                                looked.feet + Vector3d{0.0, 0.0, looked.height / 2.0});
    }
    scene_.lines.push_back(std::move(line));
  }

  const Simulation& simulation_;
  const Level& level_;
  const Trails& trails_;
  Scene scene_;
};

}  // namespace

Scene make_scene(const Simulation& simulation, const Trails& trails) {
  return SceneMaker(simulation, trails).make();
}

void leave_out_senses(Scene& scene) {
  scene.seen.clear();
  scene.feelers.clear();
  scene.rings.clear();
  scene.blasts.clear();
  scene.lines.clear();
  for (AgentShape& agent : scene.agents) {
    agent.note.clear();
    agent.way.clear();
  }
}

}  // namespace gaze
