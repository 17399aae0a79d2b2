#pragma once

#include <algorithm>
#include <map>
#include <set>
#include <string>
#include <tuple>
#include <utility>

#include "gaze/navigation.hpp"
#include "gaze/tools/finding.hpp"
#include "gaze/world.hpp"
#include "level/whom.hpp"
#include "navigation/body_size.hpp"

namespace gaze {

/// Collects what judges say about one level.
class Bench {
 public:
  Bench(const Level& level, const World& world)
      : level_(level), world_(world), bases_(bases_of(level)), openings_(level) {
    std::set<std::uint32_t> kinds;
    for (const Agent& agent : level.agents) kinds.insert(agent.kind);
    in_play_.assign(kinds.begin(), kinds.end());
  }

  const Level& level() const { return level_; }
  const World& world() const { return world_; }
  /// The kinds that agents are of, each once, in the order of the level.
  const std::vector<std::uint32_t>& kinds_in_play() const { return in_play_; }
  /// Those of the kinds in play that a kind looks for.
  std::vector<const Kind*> foes_in_play(const Kind& kind) const;
  /// By kind: the number of the kind that it is like.
  const std::vector<std::uint32_t>& bases() const { return bases_; }

  void say(Finding::Severity severity, std::string code, const Place& place, std::string message,
           std::optional<PairFigures> pair = std::nullopt) {
    // Says a thing about a shared value only once, however many copies share it.
    if (!said_.emplace(place, message).second) return;
    findings_.push_back({severity, std::move(code), std::move(message), place, std::move(pair)});
  }

  /// Says that something was looked at for only so many and not for the others. Says nothing if
  /// there are no others.
  void say_left_out(const std::string& what, std::size_t looked_at, const std::string& whom,
                    std::size_t left_out);

  /// Why two places of a mesh are apart. That is the same for all places on the same islands; it is
  /// looked for only for so many pairs of islands.
  std::string why_apart(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to);

  /// Where a value of the kind was written. If it was left out, it is where the kind was written.
  Place place_of(const Kind& kind, const std::string& key) const;

  std::vector<Finding> take() { return std::move(findings_); }

  /// The mesh for the body of an agent. It is made when it is first needed, and given by value:
  /// copies share what they are made of.
  NavigationMesh mesh_of(const Agent& agent);

 private:
  void tell_slow_ways(const Kind& kind, const NavigationMesh& mesh);

  const Level& level_;
  const World& world_;
  std::vector<std::uint32_t> bases_;
  std::vector<std::uint32_t> in_play_;
  std::vector<Finding> findings_;
  std::set<std::pair<Place, std::string>> said_;
  std::vector<NavigationMesh> meshes_;  ///< By body.
  std::map<std::tuple<const NavigationMesh::Data*, std::uint32_t, std::uint32_t>, std::string>
      partings_;  ///< By mesh and islands.
  Openings openings_;
};

/// Each of these looks at one side of a level.
void judge_ranges(Bench& bench);       ///< Strikes, shots and stop distances against sight.
void judge_shots(Bench& bench);        ///< Shots that fall short or are too slow.
void judge_pairs(Bench& bench);        ///< How kinds fare against each other.
void judge_blocked(Bench& bench);      ///< Attacks that hit nobody from where they stand.
void judge_defeats(Bench& bench);      ///< What is left behind only by inheritance.
void judge_placement(Bench& bench);    ///< Agents and patrol points in solids and in each other.
void judge_names(Bench& bench);        ///< Kinds and teams that play no part.
void judge_habits(Bench& bench);       ///< What does nothing, or far too much.
void judge_in_vain(Bench& bench);      ///< What cannot come to anything as it is set.
void judge_powerless(Bench& bench);    ///< What agents have and can do nothing with.
void judge_exposure(Bench& bench);     ///< Views that nobody is in for long enough.
void judge_unmet(Bench& bench);        ///< Causes that nothing brings about; tags that are alike.
void judge_chases(Bench& bench);       ///< Who is never shaken off.
void judge_senses(Bench& bench);       ///< Reactions that never come, or for ever; scans; sleepers.
void judge_ways(Bench& bench);         ///< Patrol points and players that cannot be reached.
void judge_meshes(Bench& bench);       ///< Triangle meshes with flaws.
void judge_tracks(Bench& bench);       ///< Tracks that cannot have been played.
void judge_links(Bench& bench);        ///< Links off the floor or through solids; start places.
void judge_blind_spots(Bench& bench);  ///< Where those at their posts can never see anybody.

/// How one kind fares against another.
/// How near one comes to the other, metres between their middles: a chaser to its stop distance or
/// to the distance that it keeps, who does not chase until the bodies touch.
[[nodiscard]] double nearest_in_chase(const Kind& kind, const Kind& foe);

[[nodiscard]] PairFigures figures_of_pair(const Level& level, const Kind& kind, const Kind& foe);

/// Returns the least time in full view after which a kind notices an enemy in play, seconds. Uses
/// the enemy with the greatest visibility, moving or still. The kind must have sight.
[[nodiscard]] double least_notice_time(const Bench& bench, const Kind& kind);

/// True if some solid stops sight.
[[nodiscard]] bool has_cover(const Level& level);

/// True if that holds for an agent and its kind.
template <typename Test>
[[nodiscard]] bool any_agent(const Level& level, Test&& test) {
  return std::any_of(level.agents.begin(), level.agents.end(),
                     [&](const Agent& agent) { return test(agent, level.kind_of(agent)); });
}

/// True if the kind has an attack of that sort.
[[nodiscard]] bool has_attack(const Kind& kind, Attack::How how);

/// True if one of its reactions leads to that mode.
[[nodiscard]] bool leads_to(const Kind& kind, Mode mode);

/// True if a key of a kind, or one in the table of that name, was written, there or for a kind that
/// it is like.
[[nodiscard]] bool is_written(const Level& level, const Kind& kind, const std::string& key);

/// True if the values let an agent of the kind chase.
[[nodiscard]] bool can_chase(const Kind& kind);

}  // namespace gaze
