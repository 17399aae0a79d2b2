#pragma once

#include "agents/fixed.hpp"
#include "gaze/navigation.hpp"

/// The meshes of a game into which solids may have been put. They follow from the level as it began
/// and from those solids in their order, and from nothing else: so a game that is restored has the
/// same ones to the last bit, whenever each was made.
namespace gaze {

/// The level as it was when the game began, with the solids that have been put in since.
[[nodiscard]] Level ground_of(const Fixed& fixed);

/// @param world  Of all the solids that are there now.
[[nodiscard]] NavigationMesh game_mesh(const Fixed& fixed, const World& world,
                                       const BodySize& body);

}  // namespace gaze
