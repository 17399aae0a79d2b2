#pragma once

#include "agents/few.hpp"
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

/// Reads one into a game that has just begun, whose lists have the right lengths.
class GameLoader : public Loader {
 public:
  GameLoader(std::string_view bytes, Simulation::State& state) : Loader(bytes), state_(state) {}

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
