#pragma once

#include "agents/everyone.hpp"
#include "travel/ways.hpp"

/// Makes all that travel writes, as it is when a round begins.
namespace gaze {

[[nodiscard]] Bodies make_bodies(const Fixed& fixed);
[[nodiscard]] Ways make_ways(Meshes& meshes, const Fixed& fixed, const Bodies& bodies,
                             const Knowledge& knowledge);

/// The meshes of all who may have to find ways: what anybody's mesh depends on, tags among it, is
/// tried in all ways that a level can bring about.
[[nodiscard]] Meshes make_meshes(const Fixed& fixed, const World& world);

/// Agents that have been added to the level since, as they begin.
void add_agents(Bodies& bodies, const Fixed& fixed);
void add_agents(Ways& ways, Meshes& meshes, const Fixed& fixed, const Bodies& bodies,
                const Knowledge& knowledge);
/// The meshes that agents may need who have these numbers, from the first to before the end.
void add_meshes(Meshes& meshes, const Fixed& fixed, const World& world, std::uint32_t first,
                std::uint32_t end);

/// Puts a body somewhere else, which goes on with what it was about.
void move_body(Bodies& bodies, Ways& ways, std::uint32_t who, const Vector3d& feet,
               const Vector2d& facing);
/// Moves a body and all that depends on its start: its post, its home and its turn limits.
void start_at(Bodies& bodies, Ways& ways, std::uint32_t who, const Vector3d& feet,
              const Vector2d& facing);
/// Puts a body somewhere, as if it had always stood there: it begins there.
void reset_body(Bodies& bodies, Ways& ways, const Fixed& fixed, std::uint32_t who,
                const Vector3d& feet, const Vector2d& facing);
/// Its way is looked for anew, on a mesh that is another.
void forget_way(Ways& ways, std::uint32_t who);
/// Resets what travel knows of an agent: it has not set out yet.
void reset_course(Bodies& bodies, Ways& ways, std::uint32_t who);

}  // namespace gaze
