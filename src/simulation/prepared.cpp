#include "gaze/prepared.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "level/named_kind.hpp"
#include "navigation/body_size.hpp"
#include "simulation/make_fixed.hpp"
#include "simulation/state.hpp"
#include "travel/find_way.hpp"
#include "travel/make_ways.hpp"
#include "values/playable.hpp"
#include "values/written.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

void add_meshes_to_come(Meshes& meshes, const Level& level, const World& world,
                        const std::vector<std::string>& kinds) {
  for (const std::string& name : kinds) {
    const Kind& kind = level.kinds[kind_called(level, name)];
    if (!has_ways(level) || !travels(kind.move->gait)) continue;
    const std::uint32_t number = meshes.number_of(body_size(level, kind));
    auto& mesh = meshes.meshes[number];
    if (!mesh) mesh.emplace(level, world, meshes.bodies[number]);
  }
}

std::shared_ptr<const Prepared::Data> prepare(std::shared_ptr<const Level> level,
                                              const Level& as_given, World world,
                                              const std::vector<std::string>& to_come) {
  auto fixed = make_fixed(std::move(level), written_kinds(as_given));
  Meshes meshes = make_meshes(*fixed, world);
  add_meshes_to_come(meshes, *fixed->level, world, to_come);
  return std::make_shared<const Prepared::Data>(
      Prepared::Data{std::move(fixed), std::move(world), std::move(meshes)});
}

void check(const Level& level, const World& world) {
  const std::vector<Piece>& pieces = index_of(world).pieces;
  const bool is_of_it = std::all_of(pieces.begin(), pieces.end(), [&](const Piece& piece) {
    return piece.solid < level.solids.size();
  });
  if (world.plane() == level.plane && is_of_it) return;
  throw UsageError(fmt::format("the world is not that of the level '{}'", level.name));
}

}  // namespace

Prepared::Prepared(const Level& level, const std::vector<std::string>& to_come) {
  std::shared_ptr<const Level> whole = playable(level);
  World world(*whole);
  data_ = prepare(std::move(whole), level, std::move(world), to_come);
}

Prepared::Prepared(const std::shared_ptr<const Level>& level, const World& world) {
  std::shared_ptr<const Level> whole = playable(level);
  check(*whole, world);
  data_ = prepare(std::move(whole), *level, world.whole(), {});
}

Prepared Prepared::with_seed(std::uint64_t seed) const {
  Prepared other = *this;
  other.data_ = std::make_shared<const Data>(
      Data{gaze::with_seed(*data_->fixed, seed), data_->world, data_->meshes});
  return other;
}

const Level& Prepared::level() const noexcept {
  return *data_->fixed->level;
}
const World& Prepared::world() const noexcept {
  return data_->world;
}

std::optional<NavigationMesh> Prepared::mesh(std::string_view kind) const {
  const BodySize body = body_size(level(), level().kinds[kind_called(level(), kind)]);
  const Meshes& meshes = data_->meshes;
  const auto made = std::find(meshes.bodies.begin(), meshes.bodies.end(), body);
  if (made == meshes.bodies.end()) return std::nullopt;
  return meshes.meshes[static_cast<std::size_t>(made - meshes.bodies.begin())];
}

}  // namespace gaze
