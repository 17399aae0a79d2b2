#include "values/whole.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <string_view>

#include "level/spelling.hpp"

namespace gaze {
namespace {

/// @return False where the pace of a kind leads nowhere, and is told.
bool check_pace(FaultList& faults, const Level& level, const Kind& kind,
                const std::vector<std::string>& names) {
  const Kind* at = &kind;
  for (std::size_t depth = 0; at->move && !at->move->pace_of.empty(); ++depth) {
    const std::string path = fmt::format("kind.{}.move.pace_of", at->name);
    const auto named = std::find(names.begin(), names.end(), at->move->pace_of);
    if (named == names.end()) {
      faults.add(path, at->place,
                 fmt::format("there is no kind '{}'{}", at->move->pace_of,
                             suggestion(at->move->pace_of, names)));
      return false;
    }
    if (depth > level.kinds.size()) {
      faults.add(path, at->place,
                 fmt::format("the paces of kinds go in a circle: that of {} depends on "
                             "itself",
                             kind.name));
      return false;
    }
    at = &level.kinds[static_cast<std::size_t>(named - names.begin())];
  }
  return true;
}

// Calls visit(what, id, place) for all that ids are given to.
template <typename Visit>
void each_id(const Level& level, Visit&& visit) {
  for (const Solid& solid : level.solids) visit("solid", solid.id, solid.place);
  for (const Zone& zone : level.zones) visit("zone", zone.id, zone.place);
  for (const Link& link : level.links) visit("link", link.id, link.place);
  for (const Start& start : level.starts) visit("start", start.id, start.place);
  for (const Agent& agent : level.agents) visit("agent", agent.id, agent.place);
}

// Where something stands: in a file, or in a level that a program has made.
Place shown(std::string_view what, const std::string& id, const Place& place) {
  return place.file.empty() ? Place{fmt::format("{}.{}", what, id), 0, 0} : place;
}

void add_taken(FaultList& faults, const std::string& id, const Place& place, const Place& other) {
  faults.add("", place,
             fmt::format("the id '{}' is taken by what stands at {}", id, text_of(other)));
}

}  // namespace

void check_ids(FaultList& faults, const Level& level) {
  std::map<std::string_view, Place> known;
  each_id(level, [&](std::string_view what, const std::string& id, const Place& place) {
    if (id.empty()) return;  // reported already
    const auto [it, is_new] = known.try_emplace(id, shown(what, id, place));
    if (!is_new) add_taken(faults, id, shown(what, id, place), it->second);
  });
}

void check_last_solid_among_others(FaultList& faults, const Level& level) {
  const Solid& last = level.solids.back();
  bool is_told = false;
  each_id(level, [&](std::string_view what, const std::string& id, const Place& place) {
    if (is_told || id != last.id || &id == &last.id) return;
    is_told = true;
    add_taken(faults, id, shown("solid", id, last.place), shown(what, id, place));
  });
  if (!last.door.opens_for.empty()) check_references(faults, level);
}

void check_speeds(FaultList& faults, const Level& level) {
  std::vector<std::string> names;
  const std::size_t named = level.named_kinds == 0 ? level.kinds.size() : level.named_kinds;
  for (std::size_t i = 0; i < named; ++i) names.push_back(level.kinds[i].name);
  for (const Kind& kind : level.kinds) {
    if (!kind.move) continue;
    if (kind.move->gait == Gait::hop && level.gravity == 0.0) {
      faults.add(fmt::format("kind.{}.move.gait", kind.name), kind.place,
                 fmt::format("kind.{}.move.gait is \"hop\" in a level without gravity: it would "
                             "never come down",
                             kind.name));
    }
    if (!check_pace(faults, level, kind, names)) return;  // others lead there as well
  }
}

std::vector<Fault> faults_of_whole(const Level& level) {
  FaultList faults(level);
  check_ids(faults, level);
  check_speeds(faults, level);
  check_references(faults, level);
  check_leftovers(faults, level);
  return faults.take();
}

}  // namespace gaze
