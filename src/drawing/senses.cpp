#include <fmt/format.h>

#include "drawing/marks.hpp"
#include "gaze/acquaintance.hpp"
#include "geometry/prism.hpp"
#include "level/numbers.hpp"
#include "sense/field.hpp"
#include "sense/look.hpp"
#include "simulation/state.hpp"
#include "world/index.hpp"

/// What agents perceive: seen areas, lines of sight, feelers, nearness and noises.
namespace gaze {
namespace {

// What a straight way goes over, of all that would stop it if it were higher: the first.
std::string passed_over(const MarkList& list, const Vector3d& from, const Vector3d& to) {
  if (list.level.plane == Plane::upright) return "";
  const World& world = list.simulation.world();
  const World::Index& index = index_of(world);
  double first = 1.0;
  std::string text;
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    const Solid& solid = list.level.solids[index.pieces[piece].solid];
    if (!stops(world, piece, Stops::sight) || is_walkway(solid.form)) continue;
    // In the plan alone: through the middle of its height.
    const PieceShape shape(index, piece);
    const Prism& prism = shape.prism();
    const double middle = (prism.low + prism.high) / 2.0;
    const auto share =
        first_touch(prism, PlanSegment{{list.plan(from), middle}, {list.plan(to), middle}});
    if (!share || *share >= first) continue;
    const double top = *solid.base + solid.height;
    if (top > from.z() + (to.z() - from.z()) * *share) continue;
    first = *share;
    text = worded(", over {} ({} m)", solid.id, top);
  }
  return text;
}

/// The marks of one who looks.
class LookMarks {
 public:
  LookMarks(MarkList& list, AgentId id)
      : list_(list), id_(id), looker_(list.simulation.looker(id)) {}

  void add() {
    bool is_alert = false;
    bool any_in_range = false;
    std::optional<AgentId> nearest;
    double distance = 0.0;
    const Simulation& game = list_.simulation;
    for (const AgentId other : game.agents()) {
      if (!looks_now(state_of(game), id_.index, other.index)) continue;
      looker_.has_noticed = game.awareness(id_, other) == Awareness::noticed;
      is_alert |= looker_.has_noticed;
      const double away = measure(list_.level.plane, looker_, game.looked(other)).distance;
      if (!nearest || away < distance) {
        nearest = other;
        distance = away;
      }
      // Only of those within its range rays are asked.
      if (away > range_of(looker_)) continue;
      const Verdict verdict = game.look(id_, other);
      if (verdict.range.pass) add_line(verdict, other);
      any_in_range |= verdict.range.pass;
    }
    looker_.has_noticed = is_alert;
    add_areas(is_alert);
    if (any_in_range || !nearest) return;
    list_.notes[id_] = fmt::format("{} out of range, {:.2f} m", game.id_of(*nearest), distance);
  }

 private:
  Mark& add(Mark::Form form, Meaning meaning, std::vector<Vector2d> points) {
    const Vector3d eye = eye_of(list_.level.plane, looker_);
    Mark& mark = list_.add(form, Layer::senses, meaning, std::move(points), list_.height_of(eye));
    mark.who = id_;
    return mark;
  }

  void add_areas(bool is_alert) {
    const PlanField field = plan_field(list_.level.plane, looker_);
    if (!field.half) return;
    const SeenArea area = seen_area(list_.simulation.world(), looker_);
    const bool is_round = field.half->degrees() >= 180.0;
    auto outline = outline_of(area, !is_round, list_.tolerance);
    if (outline.size() >= 3) {
      add(Mark::Form::area, is_alert ? Meaning::seen_alert : Meaning::seen_calm,
          std::move(outline));
    }
    std::vector<Vector2d> whole;
    if (!is_round) whole.push_back(area.eye);
    const double middle = angle_of(field.middle).radians();
    cut_arc(whole, area.eye, area.range, middle - field.half->radians(),
            middle + field.half->radians(), list_.tolerance);
    if (whole.size() >= 3) add(Mark::Form::area, Meaning::field, std::move(whole));
  }

  void add_line(const Verdict& verdict, AgentId other) {
    const LookedAt looked = list_.simulation.looked(other);
    const Vector3d eye = eye_of(list_.level.plane, looker_);
    const Vector3d middle = looked.feet + Vector3d{0.0, 0.0, looked.height / 2.0};
    const Vector2d from = list_.plan(eye);
    const Vector2d to = list_.plan(middle);
    std::string text =
        fmt::format("{:.2f} m, {:.1f}°", verdict.range.value, verdict.field.value_deg);
    Meaning meaning = Meaning::sight_clear;
    if (!verdict.line.pass) {
      meaning = Meaning::sight_stopped;
      const Vector2d stop = list_.plan(verdict.line.blocked_at);
      text += ", " + verdict.line.blocked_by;
      add(Mark::Form::line, meaning, {from, stop});
      add(Mark::Form::line, Meaning::sight_beyond, {stop, to});
    } else {
      if (!verdict.field.pass) meaning = Meaning::sight_outside;
      text += passed_over(list_, eye, middle);
      add(Mark::Form::line, meaning, {from, to});
    }
    Mark& words =
        list_.add_text(Layer::senses, meaning, {from, to}, list_.height_of(eye), std::move(text));
    words.who = id_;
  }

  MarkList& list_;
  AgentId id_;
  Looker looker_;
};

bool is_recent(const MarkList& list, std::int64_t tick) {
  return 2 * (list.simulation.tick() - tick) < list.level.ticks_per_second;
}

void mark_noise(MarkList& list, AgentId id) {
  const auto made = list.simulation.last_noise(id);
  if (!made || !is_recent(list, made->tick)) return;
  Mark& ring = list.add(Mark::Form::circle, Layer::senses, Meaning::noise, {list.plan(made->place)},
                        list.height_of(made->place));
  ring.radius = made->reach;
  ring.who = id;
  list.add_text(Layer::senses, Meaning::noise, ring.points, ring.height,
                worded("{}, {} m", made->noise, made->reach))
      .who = id;
}

void mark_feelers(MarkList& list, AgentId id, const Kind& kind, const AgentState& state) {
  const std::vector<FeelerAnswer> answers = feelers(list.simulation, id);
  for (std::size_t i = 0; i < kind.feelers.size(); ++i) {
    const BallPath path = feeler_path(list.level.plane, kind.feelers[i], state.position,
                                      kind.feelers[i].turns_with_head ? state.head : state.facing);
    const FeelerAnswer& answer = answers[i];
    const Vector2d from = list.plan(path.path.from);
    const auto line = [&](Meaning meaning, const Vector2d& to) {
      Mark& mark = list.add(Mark::Form::line, Layer::senses, meaning, {from, to},
                            list.height_of(path.path.from));
      mark.radius = kind.feelers[i].thickness / 2.0;
      mark.share = answer.is_yes ? 1.0 : 0.0;
      mark.who = id;
    };
    line(Meaning::feeler_reach, list.plan(path.path.to));
    line(answer.is_yes ? Meaning::feeler_finds : Meaning::feeler, list.plan(answer.felt.place));
  }
}

}  // namespace

void mark_senses(MarkList& list) {
  for (const AgentId id : list.simulation.agents()) {
    const AgentState state = list.simulation.state(id);
    const Kind& kind = list.level.kind_of(list.level.agents[id.index]);
    if (!state.is_alive) continue;
    mark_noise(list, id);
    if (!state.is_awake) continue;
    if (kind.nearness) {
      Mark& ring = list.add(Mark::Form::circle, Layer::senses, Meaning::nearness,
                            {list.plan(state.position)}, list.height_of(state.position));
      ring.radius = kind.nearness->range;
      ring.who = id;
    }
    mark_feelers(list, id, kind, state);
    if (kind.sight) LookMarks(list, id).add();
  }
}

}  // namespace gaze
