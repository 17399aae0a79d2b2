#pragma once

#include <cmath>
#include <limits>

#include "agents/few.hpp"
#include "gaze/sides.hpp"
#include "level/archive.hpp"
#include "simulation/state.hpp"

/// What of each part of a running game goes into a save. Every function takes a part to pieces by a
/// structured binding, which compiles only as long as it names all members: what a new member means
/// for saves has to be said here. Scratch memory, and what each step makes anew, stays out.
namespace gaze {

/// Writes a running game.
class GameSaver : public Saver {
 public:
  using Saver::Saver;

  void text_of(std::string_view text) {
    std::string copy(text);
    archive(*this, copy);
  }
  void noise(NoiseName& name) { number(name.id); }
  void attack(AttackId& attack) {
    number(attack.kind);
    number(attack.number);
  }
  void agent(std::uint32_t& who) { number(who); }
  void index(std::uint32_t& number_of, std::size_t) { number(number_of); }
};

/// Last enumerator of each enumeration that a save contains.
template <typename Word>
struct LastOf;
template <auto kWord>
struct Last {
  static constexpr auto kValue = kWord;
};
template <>
struct LastOf<Mode> : Last<Mode::out> {};
template <>
struct LastOf<Presence> : Last<Presence::thrown> {};
template <>
struct LastOf<Contact::State> : Last<Contact::State::remembered> {};
template <>
struct LastOf<Sense> : Last<Sense::hearing> {};
template <>
struct LastOf<Side> : Last<static_cast<Side>(kSideNames.size() - 1)> {};
template <>
struct LastOf<Happening> : Last<static_cast<Happening>(kHappeningNames.size() - 1)> {};
template <>
struct LastOf<Path::Outcome> : Last<Path::Outcome::bad_goal> {};
template <>
struct LastOf<Leap::What> : Last<Leap::What::made> {};
template <>
struct LastOf<CourseChange::What> : Last<CourseChange::What::turns_round> {};
template <>
struct LastOf<HandWish::What> : Last<HandWish::What::drop> {};
template <>
struct LastOf<TrackDeed::What> : Last<TrackDeed::What::noise> {};

/// Reads a save into a game at tick 0, whose lists have the right lengths. Refuses
/// numbers that are not finite, unknown enumerators, and times whose differences would overflow.
class GameLoader : public Loader {
 public:
  GameLoader(std::string_view bytes, Simulation::State& state) : Loader(bytes), state_(state) {}

  template <PlainNumber T>
  void number(T& value) {
    Loader::number(value);
    if constexpr (std::is_enum_v<T>) {
      if (static_cast<std::int64_t>(value) < 0 || value > LastOf<T>::kValue) throw Damaged{};
    } else if constexpr (std::is_floating_point_v<T>) {
      if (!std::isfinite(value)) throw Damaged{};
    } else if constexpr (std::is_same_v<T, std::int64_t>) {
      if (value < std::numeric_limits<T>::min() / 2) throw Damaged{};
    }
  }
  /// One component of a position, a distance or a velocity.
  template <typename T>
  void coordinate(T& value) {
    constexpr T kGreatest = 1e11;  // metres; more than a free fall of one day
    Loader::number(value);
    if (!(std::abs(value) <= kGreatest)) throw Damaged{};
  }
  void number_or_infinite(double& value) {
    Loader::number(value);
    if (std::isnan(value)) throw Damaged{};
  }

  /// A text that lives as long as the game.
  std::string_view kept_text();
  void noise(NoiseName& name);
  void attack(AttackId& attack);
  /// An agent that there is.
  void agent(std::uint32_t& who) { index(who, state_.agent_count()); }
  void index(std::uint32_t& number_of, std::size_t count) {
    number(number_of);
    if (number_of >= count) throw Damaged{};
  }

 private:
  Simulation::State& state_;
};

namespace archives {

/// As a list of optional values, by agent.
template <typename T>
struct Of<Few<T>> {
  template <typename Archive>
  static void go(Archive& to, Few<T>& few) {
    if constexpr (requires { to.strike(few); }) return to.strike(few);
    for (std::uint32_t who = 0; who < few.size(); ++who) {
      bool is_there = few[who] != nullptr;
      to.number(is_there);
      if constexpr (Archive::kLoads) {
        few.reset(who);
        if (!is_there) continue;
        T value;
        archive(to, value);
        few.set(who, std::move(value));
      } else {
        if (is_there) archive(to, *few[who]);
      }
    }
  }
};

}  // namespace archives

/// A number that may be infinite, such as the minimum of an empty set.
template <typename Archive>
void archive_infinite(Archive& to, double& value) {
  if constexpr (requires { to.number_or_infinite(value); }) {
    to.number_or_infinite(value);
  } else {
    to.number(value);
  }
}

/// Lists that have one item for each of something: their length is not written.
template <typename Archive, typename... Lists>
void archive_items(Archive& to, Lists&... lists) {
  const auto items = [&](auto& list) {
    for (auto& item : list) archive(to, item);
  };
  (items(lists), ...);
}

template <typename Archive>
void archive_text(Archive& to, std::string_view& text) {
  if constexpr (Archive::kLoads) {
    text = to.kept_text();
  } else {
    to.text_of(text);
  }
}

template <typename Archive>
void members(Archive& to, AttackId& attack) {
  to.attack(attack);
}

template <typename Archive>
void archive_agent(Archive& to, std::optional<std::uint32_t>& who) {
  if constexpr (requires { to.strike_agent(who); }) return to.strike_agent(who);
  bool is_there = who.has_value();
  archive(to, is_there);
  if constexpr (Archive::kLoads) {
    who.reset();
    if (is_there) who = 0;
  }
  if (who) to.agent(*who);
}

/// A list of structs; each is handed on.
template <typename Archive, typename T, typename One>
void archive_list(Archive& to, std::vector<T>& list, One&& one) {
  if constexpr (requires { to.strike(list, one); }) return to.strike(list, one);
  const std::size_t count = to.size(list.size(), 1);
  if constexpr (Archive::kLoads) list.resize(count);
  for (T& item : list) one(item);
}

template <typename Archive>
void archive_agents(Archive& to, std::vector<std::uint32_t>& agents) {
  archive_list(to, agents, [&](std::uint32_t& who) { to.agent(who); });
}

}  // namespace gaze
