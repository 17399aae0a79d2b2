#include "gaze/prepared.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "navigation/body_size.hpp"
#include "simulation/make_fixed.hpp"
#include "simulation/state.hpp"
#include "travel/make_ways.hpp"
#include "values/playable.hpp"
#include "values/written.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

std::shared_ptr<const Prepared::Data> prepare(std::shared_ptr<const Level> level,
                                              const Level& as_given, World world) {
  auto fixed = make_fixed(std::move(level), written_kinds(as_given));
  Meshes meshes = make_meshes(*fixed, world);
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

Prepared::Prepared(const Level& level) {
  std::shared_ptr<const Level> whole = playable(level);
  World world(*whole);
  data_ = prepare(std::move(whole), level, std::move(world));
}

Prepared::Prepared(std::shared_ptr<const Level> level, const World& world) {
  std::shared_ptr<const Level> whole = playable(level);
  check(*whole, world);
  data_ = prepare(std::move(whole), *level, world.whole());
}

const Level& Prepared::level() const noexcept {
  return *data_->fixed->level;
}
const World& Prepared::world() const noexcept {
  return data_->world;
}

std::optional<NavigationMesh> Prepared::mesh(std::string_view kind) const {
  const std::vector<Kind>& kinds = level().kinds;
  const auto named =
      std::find_if(kinds.begin(), kinds.end(), [&](const Kind& one) { return one.name == kind; });
  if (named == kinds.end()) throw UsageError(fmt::format("there is no kind '{}'", kind));
  const BodySize body = body_size(level(), *named);
  const Meshes& meshes = data_->meshes;
  const auto made = std::find(meshes.bodies.begin(), meshes.bodies.end(), body);
  if (made == meshes.bodies.end()) return std::nullopt;
  return meshes.meshes[static_cast<std::size_t>(made - meshes.bodies.begin())];
}

}  // namespace gaze
