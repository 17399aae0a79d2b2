#pragma once

#include <optional>
#include <span>
#include <vector>

#include "navigation/cover.hpp"
#include "navigation/mesh.hpp"

/// How a mesh is mended where solids have been put in. The faces that they reach into are cut out,
/// what is left free there is covered anew, and the corners and sights of the neighbourhood are
/// looked for again. All else is taken over with other numbers.
namespace gaze {

/// The new numbers of what stays; kNone: it is gone. One more at the end is kNone, for what has no
/// number.
struct Renumbering {
  std::vector<std::uint32_t> face;
  std::vector<std::uint32_t> edge;
  std::vector<std::uint32_t> corner;
  std::vector<std::uint32_t> crossing;
};

/// What is cut out of a mesh.
struct Cutting {
  std::vector<Hindrance> hindrances;    ///< Of the new solids,
  std::vector<std::uint32_t> on;        ///< and on which surface each lies.
  std::vector<ConvexOutline> outlines;  ///< The same.
  std::vector<std::uint32_t> faces;     ///< That they reach into, in order.
  std::vector<std::uint32_t> around;    ///< Faces that border on those and stay; new numbers.
  Renumbering moved;
};

/// What the solids of a level from `first` on cut out. Nothing if they reach up to where the
/// surface joins another: that cannot be mended.
[[nodiscard]] std::optional<Cutting> cut_out(const NavigationMesh::Data& mesh, const Level& level,
                                             const World& world, std::uint32_t first);

/// A mesh without what has been cut out. Its faces, edges, borders, crossings and corners are
/// numbered anew.
[[nodiscard]] NavigationMesh::Data without(const NavigationMesh::Data& mesh,
                                           const Cutting& cutting);

/// Covers what has been cut out of `old`, as far as it is free, and joins it to the rest. False if
/// rounding has moved a corner that both share.
[[nodiscard]] bool fill(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                        const Cutting& cutting);

/// Looks for the sights that are not as they were, among the corners and crossings of a mended
/// mesh.
void mend_turns(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                const Cutting& cutting);

/// The mesh after solids have been put in, from `first` on in the level. Nothing if it has to be
/// made anew: where there is more to stand on than before, where the body hops or drops, and where
/// links lead.
[[nodiscard]] std::optional<NavigationMesh::Data> mended(const NavigationMesh::Data& mesh,
                                                         const Level& level, const World& world,
                                                         std::uint32_t first);

}  // namespace gaze
