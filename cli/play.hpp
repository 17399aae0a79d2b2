#pragma once

#include <functional>

#include "commands.hpp"

namespace gaze::cli {

/// Reads a level with the options of a call over it. Throws LevelError.
[[nodiscard]] Level read(const LevelOptions& options);

/// The settings that the options stand for. Throws std::invalid_argument if one has no '='.
[[nodiscard]] std::vector<Setting> settings_of(const LevelOptions& options);

/// Prepares a level for play. If that takes longer than two seconds, says so.
[[nodiscard]] Simulation prepared(const Level& level, const Streams& streams);

/// The mesh for the body of a kind. If making it takes longer than two seconds, says so.
[[nodiscard]] NavigationMesh mesh_for(const Level& level, const World& world, const Kind& kind,
                                      const Streams& streams);

/// Plays up to a tick; calls `each_tick` at tick 0 and after each step. What takes longer than two
/// seconds says how far it is.
/// @return All events on the way.
std::vector<Event> play(const Streams& streams, Simulation& simulation, std::int64_t last_tick,
                        const std::function<void()>& each_tick = {});

/// The tick nearest to a time that a user gave. Throws std::invalid_argument for one that is
/// negative, not a number, or beyond the run of the level.
[[nodiscard]] std::int64_t tick_at(const Level& level, double seconds, const char* option = "--at");

/// How many steps a run of the level has.
[[nodiscard]] std::int64_t run_length(const Level& level);

/// A kind of the file by its name. Throws std::invalid_argument, with the nearest right name.
[[nodiscard]] const Kind& kind_called(const Level& level, const std::string& name);

/// An agent by its id. Throws UsageError, with the nearest right one.
[[nodiscard]] AgentId agent_called(const Simulation& simulation, const std::string& id,
                                   const char* option);

/// "X,Y", or "X,Y,Z" where heights can differ; otherwise at the height of the floor there.
[[nodiscard]] Vector3d place_of(const Level& level, const std::string& text, const char* option);

/// The body of a kind: that of its first agent, if there is one.
[[nodiscard]] BodySize body_of(const Level& level, const Kind& kind);

/// By the ending of a file's name. Throws std::invalid_argument for any other ending.
[[nodiscard]] PictureFormat picture_format(const std::string& file,
                                           const char* option = "--output");
[[nodiscard]] TraceFormat trace_format(const std::string& file);

}  // namespace gaze::cli
