#include "file/key_homes.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <vector>

namespace gaze {
namespace {

struct Home {
  std::string_view table;  ///< Of a kind; empty: the kind itself.
  std::string_view keys;   ///< Those that people write elsewhere.
};

constexpr std::array<Home, 13> kHomes{{
    {"",
     " like team radius height health solid_to mass grace resist visibility still_visibility tags "
     "heals "
     "heals_after side_factors body_points carries "},
    {"move",
     " gait speed pace pace_of turn_rate stop_distance keep_away chase face route slope "
     "step_height acceleration follows follow_distance flee_to hop_height hop_length hop_rest "
     "hover_height drop_height turn_limits tilt_limits stuck_time no_path stride step_reach "
     "quiet_reach search_radius repath_distance flee_distance "},
    {"sight",
     " range field_of_view vertical_field_of_view tilt eye eye_height near_ring keep_range "
     "notice_time "
     "ebb_time "
     "remember measure visible_at_least "},
    {"hearing", " range acuity around_corners own friends "},
    {"nearness", " range axes once "},
    {"touch", " sides "},
    {"scan", " arc rate pause headings style "},
    {"head", " limits "},
    {"tell", " delay "},
    {"choose", " by stick kinds teams "},
    {"when", " sees loses forgets hears feels misses touches near told triggered lasts idle "},
    {"defeat", " leaves score respawn tells wakes "},
    {"attack.NAME",
     " range damage cooldown wind_up ammunition reload how muzzle aim aim_tolerance burst spread "
     "lifetime bounces pierce blast_radius speed gravity_share push friends homing_rate "},
}};

bool holds(const Home& home, std::string_view key) {
  return home.keys.find(fmt::format(" {} ", key)) != std::string_view::npos;
}

// True for "kind.pruner.attack.shears" and the home of the keys of attacks.
bool is_in(const Home& home, std::string_view table) {
  const std::string_view first = home.table.substr(0, home.table.find('.'));
  return table.substr(0, table.find('.')) == first;
}

// "kind.pruner" of "kind.pruner.sight"; empty if the path is that of something else.
std::string_view owner_of(std::string_view path) {
  if (!path.starts_with("kind.") && !path.starts_with("agent.")) return {};
  const std::size_t name = path.find('.') + 1;
  return path.substr(0, path.find('.', name));
}

}  // namespace

std::string home_of_key(std::string_view key, std::string_view path) {
  const std::string_view owner = owner_of(path);
  if (owner.empty()) return {};
  std::vector<std::string> homes;
  const std::string_view table =
      path.size() > owner.size() ? path.substr(owner.size() + 1) : std::string_view();
  for (const Home& home : kHomes) {
    if (!holds(home, key)) continue;
    if (is_in(home, table)) return {};  // of this table, but not as the rest of it is
    homes.push_back(home.table.empty() ? fmt::format("[{}]", owner)
                                       : fmt::format("[{}.{}]", owner, home.table));
  }
  if (homes.empty()) return {};
  return fmt::format("; it belongs in {}", fmt::join(homes, " or "));
}

}  // namespace gaze
