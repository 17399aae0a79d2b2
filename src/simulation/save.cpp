#include <fmt/format.h>

#include <algorithm>

#include "simulation/make_fixed.hpp"
#include "simulation/parts_archive.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"
#include "values/level_bytes.hpp"

/// Saves: a running game as bytes, and back.
namespace gaze {
namespace {

constexpr std::string_view kMark = "GAZESAVE";
constexpr std::uint32_t kVersion = 8;
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

// A game that has been changed since it began has its level with it.
void save_changes(GameSaver& to, const Fixed& fixed) {
  to.number(fixed.is_changed);
  if (!fixed.is_changed) return;
  Level level = *fixed.level;
  level.kinds = *fixed.written;
  std::string bytes = bytes_of_level(level);
  archive(to, bytes);
  std::vector<Pool> pools = fixed.pools;
  std::vector<std::uint32_t> generation = fixed.generation;
  std::vector<Vacancy> vacancy = fixed.vacancy;
  archive_all(to, pools, generation, vacancy);
}

bool are_right(const std::vector<Pool>& pools, const Level& level) {
  return std::all_of(pools.begin(), pools.end(), [&](const Pool& pool) {
    const std::size_t count = level.agents.size();
    return pool.owner < count && pool.count > 0 && pool.first < count &&
           pool.count <= count - pool.first;
  });
}

/// Reads attacks alone, which are of no use without a level.
class PoolLoader : public Loader {
 public:
  using Loader::Loader;
  void attack(AttackId& attack) {
    number(attack.kind);
    number(attack.number);
  }
};

std::shared_ptr<const Fixed> loaded_changes(PoolLoader& from, const Simulation::State& state) {
  bool is_changed = false;
  archive(from, is_changed);
  if (!is_changed) return state.begun;
  std::string bytes;
  archive(from, bytes);
  auto level = std::make_shared<Level>(level_of_bytes(bytes));
  level->name = state.level().name;
  if (!validate(*level).empty()) throw Damaged{};
  level->figures = state.level().figures;  // what is measured is no part of the game
  level->expectations = state.level().expectations;
  auto written = std::make_shared<const std::vector<Kind>>(level->kinds);
  complete(*level);
  auto fixed = changed(*state.begun, std::move(level));
  fixed->written = std::move(written);
  archive_all(from, fixed->pools, fixed->generation, fixed->vacancy);
  const std::size_t count = fixed->level->agents.size();
  const bool is_right = are_right(fixed->pools, *fixed->level) &&
                        fixed->generation.size() == count && fixed->vacancy.size() == count;
  if (!is_right) throw Damaged{};
  return fixed;
}

std::string bytes_of(const Simulation::State& state) {
  std::string bytes;
  GameSaver saver(bytes);
  save_changes(saver, state.fixed);
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

void GameLoader::attack(AttackId& attack) {
  const std::vector<Kind>& kinds = state_.level().kinds;
  index(attack.kind, kinds.size());
  number(attack.number);
  const Kind& kind = kinds[attack.kind];
  const bool is_one = attack.number == AttackId::kFlight ? kind.thing.has_value()
                                                         : attack.number < kind.attacks.size();
  if (!is_one) throw Damaged{};
}

// Names of attacks and noises are the level's, or those that the host has made up.
std::string_view GameLoader::kept_text() {
  std::string text;
  archive(*this, text);
  if (text.empty()) return {};
  for (const KindLinks& kind : state_.fixed.links.kinds) {
    if (kind.name == text) return kind.name;
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
  std::unique_ptr<State> restored;
  try {
    PoolLoader changes(game);
    auto fixed = loaded_changes(changes, *state_);
    const std::size_t begun = state_->begun->level->solids.size();
    const bool has_same_solids =
        fixed->level->solids.size() == begun && state_->level().solids.size() == begun;
    World world = has_same_solids ? state_->world.whole()
                                  : World(*state_->begun->level)
                                        .with_solids(*fixed->level)
                                        .with_host(state_->world.host());
    Meshes meshes = has_same_solids ? state_->meshes : make_meshes(*fixed, world);
    restored = std::make_unique<State>(state_->begun, std::move(fixed), std::move(world),
                                       std::move(meshes));
    GameLoader loader(game.substr(game.size() - changes.left()), *restored);
    archive_game(loader, *restored);
    if (loader.left() > 0 || !can_be(*restored)) throw Damaged{};
    if (restored->fixed.is_changed) {  // meshes of bodies that have come since
      add_meshes(restored->meshes, restored->fixed, restored->world, 0, restored->agent_count());
    }
  } catch (const Damaged&) {
    throw SaveError("a damaged save: it holds what cannot be");
  }
  state_ = std::move(restored);
}

std::uint64_t Simulation::digest() const {
  return digest_of(bytes_of(*state_));
}

}  // namespace gaze
