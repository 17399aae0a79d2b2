#include "simulation/parts_archive.hpp"
#include "simulation/stages.hpp"

/// Agents that are taken out of a game are struck out of all that the others know, do and are
/// about, so that whoever gets their numbers is somebody else.
namespace gaze {
namespace {

using Index = std::uint32_t;

/// Goes through the parts of a game as a save does, and strikes out what is about those who go:
/// items of lists as a whole; elsewhere the mention.
class Striker {
 public:
  static constexpr bool kLoads = false;

  explicit Striker(const std::vector<char>& goes) : goes_(goes) {}

  template <PlainNumber T>
  void number(const T&) {}
  std::size_t size(std::size_t count, std::size_t) { return count; }
  void text(const char*, std::size_t) {}
  void text_of(std::string_view) {}
  void noise(NoiseName&) {}
  void attack(AttackId&) {}
  void index(Index&, std::size_t) {}
  void agent(Index& who) { is_about_ |= goes_[who] != 0; }

  void strike_agent(std::optional<Index>& who) {
    if (who && goes_[*who]) who.reset();
  }
  template <typename T>
  void strike(std::optional<T>& value) {
    if (value && is_about([&] { archive(*this, *value); })) value.reset();
  }
  template <typename T>
  void strike(Few<T>& few) {
    for (Index who = 0; who < few.size(); ++who) {
      T* value = few[who];
      if (value != nullptr && is_about([&] { archive(*this, *value); })) few.reset(who);
    }
  }
  // Before its next leg an agent looks whether those are still there round whom its way leads.
  void strike(Few<LeadsRound>&) {}
  template <typename T>
  void strike(std::vector<T>& list) {
    strike(list, [this](T& item) { archive(*this, item); });
  }
  template <typename T, typename One>
  void strike(std::vector<T>& list, One&& one) {
    std::erase_if(list, [&](T& item) { return is_about([&] { one(item); }); });
  }

 private:
  // What is said of the parts of something is not said of what it is a part of.
  template <typename Look>
  bool is_about(Look&& look) {
    const bool before = is_about_;
    is_about_ = false;
    look();
    const bool now = is_about_;
    is_about_ = before;
    return now;
  }

  const std::vector<char>& goes_;
  bool is_about_ = false;
};

// What they have fired goes with them.
void strike_shots(Fights& fights, const std::vector<char>& goes) {
  for (std::size_t i = fights.shells.size(); i-- > 0;) {
    const Shell& shell = fights.shells[i];
    if (!goes[shell.shooter] && !(shell.thing && goes[*shell.thing])) continue;
    fights.shells.erase(fights.shells.begin() + static_cast<std::ptrdiff_t>(i));
    fights.pierced.erase(fights.pierced.begin() + static_cast<std::ptrdiff_t>(i));
  }
  for (Pierced& pierced : fights.pierced) {
    for (Index& who : pierced) {
      if (who < goes.size() && goes[who]) who = kNothing;
    }
  }
  std::erase_if(fights.projectiles, [&](const Projectile& one) { return goes[one.shooter.index]; });
  std::erase_if(fights.beam_rays, [&](const BeamRay& one) { return goes[one.who.index]; });
}

}  // namespace

void strike_out(Simulation::State& state, const std::vector<char>& goes) {
  strike_shots(state.fights, goes);
  Striker striker(goes);
  archive_all(striker, state.bodies, state.lives, state.minds, state.knowledge, state.senses,
              state.ways, state.fights, state.told);
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.minds.target[who]) state.minds.has_target[who] = 0;
  }
}

}  // namespace gaze
