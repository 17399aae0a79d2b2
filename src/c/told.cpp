#include "c/calls.hpp"

/// What has happened, what is in flight, and what there is to draw.
using namespace gaze;
using namespace gaze::c;

static_assert(GAZE_M_SHOT == static_cast<int>(Meaning::shot) &&
              GAZE_M_SOLID == static_cast<int>(Meaning::solid) &&
              GAZE_M_FEELER == static_cast<int>(Meaning::feeler) &&
              GAZE_M_BODY == static_cast<int>(Meaning::body));
static_assert(GAZE_WORDS == static_cast<int>(Mark::Form::text));

namespace {

gaze_event event_of(const Event& event) {
  gaze_event filled{};
  filled.what = text_of(name_of(event.what));
  filled.tick = event.tick;
  filled.agent = agent_of(event.agent);
  filled.other = agent_of(event.other);
  filled.solid = event.solid ? event.solid->index : GAZE_NO_SOLID;
  filled.zone = event.zone.value_or(GAZE_NO_ZONE);
  filled.attack = text_of(event.attack);
  filled.noise = text_of(event.noise);
  filled.by = text_of(name_of(event.by));
  filled.distance = event.distance;
  filled.angle_deg = event.angle_deg;
  filled.damage = event.damage;
  filled.health = event.health;
  filled.place = vector_of(event.place);
  filled.from_mode = static_cast<int32_t>(event.from);
  filled.to_mode = static_cast<int32_t>(event.to);
  filled.gained = event.gained;
  return filled;
}

gaze_mark mark_of(const Mark& mark) {
  gaze_mark filled{};
  filled.form = static_cast<int32_t>(mark.form);
  filled.meaning = static_cast<int32_t>(mark.meaning);
  filled.points = mark.points.empty() ? nullptr : mark.points[0].data();
  filled.point_count = mark.points.size();
  filled.height = mark.height;
  filled.radius = mark.radius;
  filled.share = mark.share;
  filled.number = mark.number;
  filled.who = agent_of(mark.who);
  filled.solid = mark.solid ? mark.solid->index : GAZE_NO_SOLID;
  filled.text = text_of(mark.text);
  return filled;
}

// Points lie one after the other, x and y.
static_assert(sizeof(Vector2d) == 2 * sizeof(double));

}  // namespace

gaze_status gaze_events(const gaze_game* game, gaze_event* events, size_t room, size_t stride,
                        size_t* count) {
  return guarded([&] {
    const auto all = game_of(game).events();
    return fill_list(all.size(), events, room, stride, count,
                     [&](size_t i) { return event_of(all[i]); });
  });
}

gaze_status gaze_describe(const gaze_game* game, size_t number, char* line, size_t room,
                          size_t* length) {
  return guarded([&] {
    const auto all = game_of(game).events();
    if (number >= all.size()) throw UsageError("there is no event of that number");
    const std::string words = game_of(game).describe(all[number]);
    return give_bytes(words.data(), words.size(), line, room, length);
  });
}

gaze_status gaze_shots(const gaze_game* game, gaze_shot* shots, size_t room, size_t stride,
                       size_t* count) {
  return guarded([&] {
    const auto all = game_of(game).projectiles();
    return fill_list(all.size(), shots, room, stride, count, [&](size_t i) {
      const Projectile& shot = all[i];
      return gaze_shot{0,
                       agent_of(shot.shooter),
                       text_of(shot.attack),
                       vector_of(shot.position),
                       vector_of(shot.velocity),
                       shot.radius,
                       shot.number};
    });
  });
}

gaze_status gaze_draw(const gaze_game* game, uint32_t layers, double tolerance,
                      gaze_drawing** drawing) {
  return guarded([&] {
    need(drawing, "where the drawing goes") = nullptr;
    Layers chosen;
    for (unsigned i = 0; i < 5; ++i) {
      if ((layers >> i & 1U) != 0) chosen = chosen | static_cast<Layer>(i);
    }
    *drawing = new gaze_drawing{gaze::drawing(game_of(game), chosen, tolerance)};
    return GAZE_OK;
  });
}

size_t gaze_mark_count(const gaze_drawing* drawing) {
  return drawing == nullptr ? 0 : drawing->marks.size();
}

gaze_status gaze_mark_at(const gaze_drawing* drawing, size_t number, gaze_mark* mark) {
  return guarded([&] {
    const std::vector<Mark>& marks = need(drawing, "the drawing").marks;
    if (number >= marks.size()) throw UsageError("there is no mark of that number");
    fill(mark, mark_of(marks[number]));
    return GAZE_OK;
  });
}

void gaze_drawing_free(gaze_drawing* drawing) {
  delete drawing;
}
