#include "values/validator.hpp"

#include "level/triangle.hpp"

/// What takes more than a range: lists of their own parts, and names that something else has.
namespace gaze {

void Validator::triangles(const Solid& solid) {
  const std::size_t count = solid.triangles.size();
  if (count == 0 || count > LevelLimits::triangles) {
    fault("file",
          fmt::format("has {} triangles; 1 to {} are allowed", count, LevelLimits::triangles));
  }
  for (const Triangle& triangle : solid.triangles) {
    for (const Vector3d& corner : triangle) {
      for (int i = 0; i < 3; ++i) {
        if (!kCoordinate.holds(corner[i])) return fault("file", out_of(corner[i], kCoordinate));
      }
    }
    if (!(area_of(triangle) > kLeastArea)) return fault("file", "has a triangle without an area");
  }
}

void Validator::patrol(const char* key, const std::vector<Vector3d>& points,
                       const std::vector<PatrolStop>& stops) {
  if (points.size() > LevelLimits::list_items) {
    fault(key, fmt::format("has {} items; at most {} are allowed", points.size(),
                           LevelLimits::list_items));
  }
  for (const Vector3d& p : points) point(key, p);
  for (const PatrolStop& stop : stops) check_part(path_of(key), kStopKeys, stop);
}

void Validator::script(const char* key, const std::vector<ScriptStep>& steps) {
  if (steps.size() > LevelLimits::list_items) {
    fault(key, fmt::format("has {} items; at most {} are allowed", steps.size(),
                           LevelLimits::list_items));
  }
  for (std::size_t i = 0; i < steps.size(); ++i) {
    if (steps[i].what > ScriptStep::What::aim) {
      fault(key, fmt::format("has a step {} that does nothing known", i + 1));
    }
    check_part(fmt::format("{}[{}]", path_of(key), i + 1), kStepKeys, steps[i]);
  }
}

void Validator::track(const char* key, const std::shared_ptr<const Track>& track) {
  if (track == nullptr) return;
  if (track->points.empty()) return fault(key, "has no points");
  double before = -1.0;
  for (std::size_t i = 0; i < track->points.size(); ++i) {
    const TrackPoint& one = track->points[i];
    const std::string name = fmt::format("{}[{}]", key, i + 1);
    if (!(one.seconds >= 0.0 && one.seconds > before)) {
      return fault(
          name, fmt::format("is at {} s; above that of the point before is allowed", one.seconds));
    }
    before = one.seconds;
    point(key, one.place);
    if (one.aim) point3(key, *one.aim);
    if (!(one.fires >= 0.0 && one.fires <= 1.0)) {
      return fault(name, fmt::format("fires for {} of a step; 0 to 1 is allowed", one.fires));
    }
    const bool is_turned = !one.facing || std::abs(one.facing->degrees()) <= 1e6;
    if (!is_turned) return fault(name, "faces more than a million degrees");
    for (const TrackDeed& deed : one.deeds) {
      point3(key, deed.place);
      if (deed.from) point3(key, *deed.from);
      const bool is_heard = deed.what != TrackDeed::What::noise || kRange.holds(deed.reach);
      if (!is_heard) fault(name, fmt::format("makes a noise that reaches {} m", deed.reach));
    }
  }
}

void Validator::picks(const char* key, const std::vector<EventPick>& picks) {
  const std::size_t count = keys_.key(key).count;
  if (!picks.empty() && picks.size() != count) {
    fault(key, fmt::format("has {} events; {} are needed", picks.size(), count));
  }
  for (std::size_t i = 0; i < picks.size(); ++i) {
    check_part(fmt::format("{}[{}]", path_of(key), i + 1), kPickKeys, picks[i]);
  }
}

// What a cause is about has to be there; noises may have any name.
void Validator::rule_name(const Rule& rule, const std::string& path) {
  if (rule.name.empty()) return;
  std::vector<std::string> known;
  switch (rule.cause) {
    case Cause::feels:
    case Cause::misses:
      for (const Feeler& feeler : own_kind->feelers) known.push_back(feeler.name);
      break;
    case Cause::touches:
      known.assign(kSideNames.begin(), kSideNames.end());
      break;
    case Cause::near:
    case Cause::told:
      for (const Kind& kind : level_.kinds) known.push_back(kind.name);
      break;
    case Cause::lasts:
      known = words_of(kReactionKeys.key("mode"));
      break;
    default:
      known.push_back(rule.name);
  }
  if (std::find(known.begin(), known.end(), rule.name) != known.end()) return;
  faults_.add(path, written_,
              fmt::format("{}: there is no '{}'{}", path, rule.name, suggestion(rule.name, known)));
}

void Validator::when(const char* key, const When& when) {
  for (const Rule& rule : when.rules) {
    if (rule.cause > Cause::lasts) {
      fault(key, "has a cause that is none");
      continue;
    }
    std::string path = fmt::format("{}.{}", path_of(key), name_of(rule.cause));
    if (!rule.name.empty()) path += "." + rule.name;
    rule_name(rule, path);
    check_part(path, kReactionKeys, rule.reaction);
  }
  constexpr std::array<Mode, 5> kIdle{Mode::post, Mode::patrol, Mode::wander, Mode::follow,
                                      Mode::mirror};
  if (when.idle && std::find(kIdle.begin(), kIdle.end(), *when.idle) == kIdle.end()) {
    fault(key, "idles in a mode that is none of post, patrol, wander, follow and mirror");
  }
}

}  // namespace gaze
