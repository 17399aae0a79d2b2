#include "level/openings.hpp"

#include <algorithm>

namespace gaze {
namespace {

bool is_door(const Solid& solid) {
  return solid.form == Solid::Form::door;
}

template <typename Test>
bool any(const std::vector<Whom>& all, Test&& test) {
  return std::any_of(all.begin(), all.end(), test);
}

}  // namespace

Openings::Openings(const Level& level) : tag_names(gaze::tag_names(level)) {
  if (std::any_of(level.solids.begin(), level.solids.end(), is_door)) {
    for (const Solid& solid : level.solids) {
      opens.push_back(is_door(solid) ? Whom(level, solid.door.opens_for, tag_names) : Whom());
    }
  }
  for (const Zone& zone : level.zones) closed.emplace_back(level, zone.closed_to, tag_names);
}

bool Openings::goes_by_tags() const {
  const auto test = [](const Whom& whom) { return whom.goes_by_tags(); };
  return any(opens, test) || any(closed, test);
}

std::uint64_t Openings::tags_that_count() const {
  std::uint64_t tags = 0;
  for (const Whom& whom : opens) tags |= whom.tags();
  for (const Whom& whom : closed) tags |= whom.tags();
  return tags;
}

bool Openings::goes_by_agents() const {
  const auto test = [](const Whom& whom) { return whom.goes_by_agents(); };
  return any(opens, test) || any(closed, test);
}

}  // namespace gaze
