#include <fmt/format.h>

#include "drawing/marks.hpp"
#include "gaze/going.hpp"
#include "level/numbers.hpp"

/// Agents, where they are going, and what they fire.
namespace gaze {
namespace {

/// The marks of one agent.
class BodyMarks {
 public:
  BodyMarks(MarkList& list, AgentId id)
      : list_(list),
        id_(id),
        state_(list.simulation.state(id)),
        kind_(list.level.kind_of(list.level.agents[id.index])) {}

  void add() {
    if (has_gone()) return;
    const bool is_upright = list_.level.plane == Plane::upright;
    const Vector2d feet = list_.plan(state_.position);
    const Vector2d half{kind_.radius, is_upright ? kind_.height / 2.0 : kind_.radius};
    const Vector2d middle = feet + Vector2d{0.0, is_upright ? half.y() : 0.0};
    const Meaning meaning = state_.is_alive ? Meaning::body : Meaning::body_out;
    if (is_upright) {
      add_mark(Mark::Form::area, meaning,
               {middle - half, middle + Vector2d{half.x(), -half.y()}, middle + half,
                middle + Vector2d{-half.x(), half.y()}});
    } else {
      add_mark(Mark::Form::circle, meaning, {middle}).radius = kind_.radius;
    }
    if (state_.is_alive) {
      constexpr double kBefore = 0.2;  // metres
      const double reach = half.minCoeff() + kBefore;
      add_mark(Mark::Form::line, Meaning::facing, {middle, middle + state_.facing * reach});
      if (state_.target) {
        add_mark(Mark::Form::circle, Meaning::target, {middle}).radius = half.maxCoeff() + kBefore;
      }
    }
    add_text(middle, half.maxCoeff());
  }

 private:
  // Returns whether a thing was used up or left the level. Neither is defeated.
  bool has_gone() const { return kind_.thing && !state_.is_alive && state_.health > 0.0; }

  void note(Mark& mark) const {
    mark.who = id_;
    mark.number = kind_.team;
    mark.share = state_.health / kind_.health;
  }
  Mark& add_mark(Mark::Form form, Meaning meaning, std::vector<Vector2d> points) {
    Mark& mark = list_.add(form, Layer::agents, meaning, std::move(points),
                           list_.height_of(state_.position));
    note(mark);
    return mark;
  }

  void add_text(const Vector2d& middle, double room) {
    const std::string_view mode = !state_.is_awake                   ? "asleep"
                                  : list_.simulation.is_steered(id_) ? "steered"
                                                                     : name_of(state_.mode);
    std::string text = fmt::format("{}\n{}, {:.0f} %", list_.simulation.id_of(id_), mode,
                                   state_.health / kind_.health * 100.0);
    if (const auto note = list_.notes.find(id_); note != list_.notes.end()) {
      text += "\n" + note->second;
    }
    Mark& words = list_.add_text(Layer::agents, Meaning::body, {middle},
                                 list_.height_of(state_.position), std::move(text));
    note(words);
    words.radius = room;
  }

  MarkList& list_;
  AgentId id_;
  AgentState state_;
  const Kind& kind_;
};

void mark_blast(MarkList& list, AgentId id) {
  const auto blast = list.simulation.last_blast(id);
  if (!blast || 2 * (list.simulation.tick() - blast->tick) >= list.level.ticks_per_second) return;
  const SeenArea clear =
      clear_area(list.simulation.world(), blast->place, blast->radius, Stops::shots);
  const double height = list.height_of(blast->place);
  Mark& disc = list.add(Mark::Form::circle, Layer::harm, Meaning::blast, {clear.eye}, height);
  disc.radius = clear.range;
  disc.who = id;
  list.add_text(Layer::harm, Meaning::blast, disc.points, height,
                worded("{}, {} m", blast->attack, blast->radius))
      .who = id;
  auto outline = outline_of(clear, false, list.tolerance);
  if (outline.size() < 3) return;
  list.add(Mark::Form::area, Layer::harm, Meaning::blast_clear, std::move(outline), height).who =
      id;
}

}  // namespace

void mark_bodies(MarkList& list) {
  for (const AgentId id : list.simulation.agents()) BodyMarks(list, id).add();
}

void mark_ways(MarkList& list) {
  for (const AgentId id : list.simulation.agents()) {
    const AgentState state = list.simulation.state(id);
    if (!state.is_alive) continue;
    const Going way = going(list.simulation, id);
    if (way.ahead.empty()) continue;
    std::vector<Vector2d> points{list.plan(state.position)};
    for (const Vector3d& p : way.ahead) points.push_back(list.plan(p));
    Mark& mark = list.add(Mark::Form::line, Layer::ways, Meaning::way, std::move(points),
                          list.height_of(state.position));
    mark.who = id;
    mark.number = list.level.kind_of(list.level.agents[id.index]).team;
  }
}

void mark_harm(MarkList& list) {
  for (const AgentId id : list.simulation.agents()) mark_blast(list, id);
  for (const BeamRay& beam : list.simulation.beams()) {
    Mark& mark = list.add(Mark::Form::line, Layer::harm, Meaning::beam,
                          {list.plan(beam.from), list.plan(beam.to)}, list.height_of(beam.from));
    mark.radius = beam.radius;
    mark.who = beam.who;
  }
  for (const Projectile& shot : list.simulation.projectiles()) {
    const Vector3d before = shot.position - shot.velocity / list.level.ticks_per_second;
    Mark& mark =
        list.add(Mark::Form::circle, Layer::harm, Meaning::shot,
                 {list.plan(shot.position), list.plan(before)}, list.height_of(shot.position));
    mark.radius = shot.radius;
    mark.who = shot.shooter;
  }
}

}  // namespace gaze
