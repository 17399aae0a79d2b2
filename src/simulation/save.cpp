#include <fmt/format.h>

#include <algorithm>

#include "simulation/parts_archive.hpp"
#include "simulation/stages.hpp"

/// Saves: a running game as bytes, and back.
namespace gaze {
namespace {

constexpr std::string_view kMark = "GAZESAVE";
constexpr std::uint32_t kVersion = 1;
constexpr std::size_t kHead = 8 + 4 + 8 + 8 + 8;  // mark, version, level, length and digest

template <typename Archive>
void archive_world(Archive& to, World& world, std::size_t solids) {
  std::vector<std::uint32_t> gone;
  for (std::uint32_t i = 0; i < solids && !Archive::kLoads; ++i) {
    if (world.is_gone({i})) gone.push_back(i);
  }
  archive_list(to, gone, [&](std::uint32_t& solid) { to.index(solid, solids); });
  if constexpr (Archive::kLoads) {
    world = world.whole();
    for (const std::uint32_t solid : gone) world.set_gone({solid}, true);
  }
}

template <typename Archive>
void archive_names(Archive& to, RunState& run) {
  archive_list(to, run.host_names, [&](std::shared_ptr<const std::string>& name) {
    std::string text = name ? *name : "";
    archive(to, text);
    if constexpr (Archive::kLoads) name = std::make_shared<const std::string>(std::move(text));
  });
}

// Meshes follow from the level and the sizes of bodies; those that have been made are kept.
template <typename Archive>
void archive_meshes(Archive& to, Meshes& meshes) {
  if constexpr (Archive::kLoads) {
    const Meshes known = std::move(meshes);
    meshes = {};
    archive(to, meshes.bodies);
    for (const BodySize& body : meshes.bodies) {
      const auto it = std::find(known.bodies.begin(), known.bodies.end(), body);
      meshes.meshes.push_back(
          it == known.bodies.end()
              ? std::nullopt
              : known.meshes[static_cast<std::size_t>(it - known.bodies.begin())]);
    }
  } else {
    archive(to, meshes.bodies);
  }
}

template <typename Archive>
void archive_game(Archive& to, Simulation::State& state) {
  archive_names(to, state);
  archive_all(to, state.clock.tick, state.shells_made, state.unspent_ticks, state.is_over);
  archive_items(to, state.chance.streams(), state.score, state.door_used);
  archive_meshes(to, state.meshes);
  archive_all(to, state.events.all, state.events.are_shown);
  archive_world(to, state.world, state.level().solids.size());
  archive_all(to, state.bodies, state.lives, state.minds, state.knowledge, state.senses, state.ways,
              state.fights, state.told);
  for (const std::uint32_t mesh : state.ways.mesh_of) {
    if (mesh >= state.meshes.bodies.size()) throw Damaged{};
  }
  if constexpr (Archive::kLoads) state.events.sorted = state.events.all.size();
}

std::string bytes_of(const Simulation::State& state) {
  std::string bytes;
  GameSaver saver(bytes, state);
  // What is written is not changed; one function serves both directions.
  archive_game(saver, const_cast<Simulation::State&>(state));
  return bytes;
}

std::string text_of(std::span<const std::byte> bytes) {
  std::string text(bytes.size(), '\0');
  if (!bytes.empty()) std::memcpy(text.data(), bytes.data(), bytes.size());
  return text;
}

// The bytes of the game itself, once it is sure that they are those that were saved.
std::string_view checked(std::string_view save, const Fixed& fixed) {
  Loader head(save);
  std::string mark(kMark.size(), '\0');
  std::uint32_t version = 0;
  std::uint64_t of_level = 0;
  std::uint64_t length = 0;
  std::uint64_t digest = 0;
  if (save.size() < kHead || !save.starts_with(kMark)) {
    throw SaveError(fmt::format("{} bytes that are no save", save.size()));
  }
  head.text(mark.data(), mark.size());
  archive_all(head, version, of_level, length, digest);
  if (version != kVersion) {
    throw SaveError(
        fmt::format("a save of version {}; this library reads version {}", version, kVersion));
  }
  const std::string_view game = save.substr(kHead);
  if (game.size() != length) {
    throw SaveError(fmt::format("a damaged save: it has {} bytes of {}", game.size(), length));
  }
  if (digest_of(game) != digest) throw SaveError("a damaged save: its digest does not fit");
  if (fixed.digest != of_level) {
    throw SaveError(fmt::format("a save of another level than '{}'", fixed.level->name));
  }
  return game;
}

}  // namespace

void GameSaver::attack(const Attack* attack) {
  std::uint32_t number_of = 0;
  for (const Kind& kind : state_.level().kinds) {
    for (const Attack& own : kind.attacks) {
      if (&own == attack) return number(number_of);
      ++number_of;
    }
    if (kind.thing && &kind.thing->flight == attack) return number(number_of);
    ++number_of;
  }
  throw std::logic_error("an attack that is none of the level");
}

const Attack* GameLoader::attack() {
  std::uint32_t left = 0;
  number(left);
  for (const Kind& kind : state_.level().kinds) {
    if (left < kind.attacks.size()) return &kind.attacks[left];
    left -= static_cast<std::uint32_t>(kind.attacks.size());
    if (left-- == 0) return kind.thing ? &kind.thing->flight : throw Damaged{};
  }
  throw Damaged{};
}

// Names of attacks and noises are the level's, or those that the host has made up.
std::string_view GameLoader::kept_text() {
  std::string text;
  archive(*this, text);
  if (text.empty()) return {};
  for (const Kind& kind : state_.level().kinds) {
    for (const Attack& attack : kind.attacks) {
      if (attack.name == text) return attack.name;
    }
    if (kind.thing && kind.thing->flight.name == text) return kind.thing->flight.name;
  }
  for (const std::string_view noise : state_.fixed.links.noises) {
    if (noise == text) return noise;
  }
  for (const auto& name : state_.host_names) {
    if (*name == text) return *name;
  }
  throw Damaged{};
}

void GameLoader::noise(NoiseName& name) {
  const std::vector<std::string_view>& known = state_.fixed.links.noises;
  number(name.id);
  name.text = {};
  if (name.id == kNothing) return;
  if (name.id < known.size()) {
    name.text = known[name.id];
  } else if (name.id - known.size() < state_.host_names.size()) {
    name.text = *state_.host_names[name.id - known.size()];
  } else {
    throw Damaged{};
  }
}

std::vector<std::byte> Simulation::save() const {
  const std::string game = bytes_of(*state_);
  std::string save(kMark);
  Saver head(save);
  head.number(kVersion);
  head.number(state_->fixed.digest);
  head.number(static_cast<std::uint64_t>(game.size()));
  head.number(digest_of(game));
  save += game;
  std::vector<std::byte> bytes(save.size());
  std::memcpy(bytes.data(), save.data(), save.size());
  return bytes;
}

void Simulation::restore(std::span<const std::byte> save) {
  const std::string bytes = text_of(save);
  const std::string_view game = checked(bytes, state_->fixed);
  auto restored = std::make_unique<State>(state_->shared, state_->world.whole(), state_->meshes);
  try {
    GameLoader loader(game, *restored);
    archive_game(loader, *restored);
    if (loader.left() > 0) throw Damaged{};
  } catch (const Damaged&) {
    throw SaveError("a damaged save: it holds what cannot be");
  }
  state_ = std::move(restored);
}

std::uint64_t Simulation::digest() const {
  return digest_of(bytes_of(*state_));
}

}  // namespace gaze
