#include "c/calls.hpp"
#include "c/host_rays.hpp"
#include "gaze/ray_source.hpp"

/// Who sees whom, in a game and in a world of the host's.
using namespace gaze;
using namespace gaze::c;

static_assert(GAZE_UPRIGHT == static_cast<int>(Plane::upright) &&
              GAZE_SPACE == static_cast<int>(Plane::space));
static_assert(GAZE_REMEMBERS == static_cast<int>(Awareness::remembers));

namespace {

Looker looker_of(const gaze_looker& looker) {
  if (!(looker.range > 0.0 && looker.field_deg > 0.0 && looker.field_deg <= 360.0)) {
    throw UsageError("a looker's range is above 0 and its field of view above 0, up to 360");
  }
  const SineCosine facing = sine_cosine(Angle::from_degrees(looker.facing_deg));
  Looker made;
  made.feet = vector_of(looker.feet);
  made.facing = {facing.cosine, facing.sine};
  made.sight.range = looker.range;
  made.sight.keep_range = looker.range;
  made.sight.field_of_view = Angle::from_degrees(looker.field_deg);
  made.sight.eye = Vector3d{0.0, 0.0, looker.eye_height};
  return made;
}

}  // namespace

gaze_status gaze_look(const gaze_game* game, gaze_agent looker, gaze_agent other,
                      gaze_verdict* verdict) {
  return guarded([&] {
    const Simulation& simulation = game_of(game);
    const Verdict found = simulation.look(id_of(looker), id_of(other));
    gaze_verdict filled{};
    filled.sees = found.sees;
    filled.awareness = static_cast<int32_t>(simulation.awareness(id_of(looker), id_of(other)));
    filled.range_passes = found.range.pass;
    filled.field_passes = found.field.pass;
    filled.line_passes = found.line.pass;
    filled.range = found.range.value;
    filled.range_limit = found.range.limit;
    filled.angle_deg = found.field.value_deg;
    filled.angle_limit_deg = found.field.limit_deg;
    filled.visible = found.line.visible;
    filled.visible_limit = found.line.limit;
    fill(verdict, filled);
    return GAZE_OK;
  });
}

gaze_status gaze_explain(const gaze_game* game, gaze_agent looker, gaze_agent other, char* text,
                         size_t room, size_t* length) {
  return guarded([&] {
    const std::string words = explain(game_of(game).look(id_of(looker), id_of(other)));
    return give_bytes(words.data(), words.size(), text, room, length);
  });
}

gaze_status gaze_sweep(const gaze_game* game, gaze_vector feet, double radius, double height,
                       gaze_vector motion, double* share) {
  return guarded([&] {
    if (!(radius > 0.0 && height > 0.0)) {
      throw UsageError("a body's radius and height are above 0");
    }
    const auto touch = game_of(game).world().sweep({vector_of(feet), radius, height},
                                                   vector_of(motion), Stops::bodies);
    need(share, "where the share goes") = touch ? touch->share : 1.0;
    return GAZE_OK;
  });
}

gaze_status gaze_see_all(gaze_rays rays, void* host, gaze_plane plane, const gaze_looker* lookers,
                         size_t looker_count, const gaze_looked* others, size_t other_count,
                         uint8_t* sees) {
  return guarded([&] {
    if (rays == nullptr) throw UsageError("the ray function is null");
    if (plane < GAZE_GROUND || plane > GAZE_SPACE) throw UsageError("a plane that is none");
    if (looker_count == 0 || other_count == 0) return GAZE_OK;
    need(lookers, "the list of lookers");
    need(others, "the list of others");
    need(sees, "where the answers go");
    const double points[] = {0.0, 0.5, 1.0};
    std::vector<Looker> who;
    std::transform(lookers, lookers + looker_count, std::back_inserter(who), looker_of);
    std::vector<LookedAt> whom(other_count);
    for (size_t i = 0; i < other_count; ++i) {
      whom[i].feet = vector_of(others[i].feet);
      whom[i].height = others[i].height;
      whom[i].radius = others[i].radius;
      whom[i].body_points = points;
    }
    LookScratch scratch;
    can_see_all(HostRays(rays, host), static_cast<Plane>(plane), who, whom, scratch,
                {sees, looker_count * other_count});
    return GAZE_OK;
  });
}
