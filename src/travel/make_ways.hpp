#pragma once

#include "agents/everyone.hpp"
#include "travel/ways.hpp"

/// What travel writes, as it is when a round begins.
namespace gaze {

[[nodiscard]] Bodies make_bodies(const Fixed& fixed);
[[nodiscard]] Ways make_ways(Meshes& meshes, const Fixed& fixed, const Bodies& bodies,
                             const Knowledge& knowledge);

/// Puts a body to a place where it stands as if it had always stood there.
void reset_body(Bodies& bodies, Ways& ways, const Fixed& fixed, std::uint32_t who,
                const Vector3d& feet, const Vector2d& facing);
/// Somebody has not set out yet.
void reset_course(Bodies& bodies, Ways& ways, std::uint32_t who);

}  // namespace gaze
