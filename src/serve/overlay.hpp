#pragma once

#include <string>
#include <vector>

#include "gaze/drawing.hpp"
#include "serve/run.hpp"

namespace gaze::serve {

/// What can be laid over the level for one agent.
struct Overlay {
  std::vector<std::string> names;  ///< Of what there are several: islands, attacks.
  std::vector<Mark> marks;         ///< Areas; the number is that of a name.
};

/// Where the body of an agent can be: the polygons of its mesh, by island. Empty for one that finds
/// no ways.
[[nodiscard]] Overlay mesh_overlay(const Simulation& game, AgentId agent);

/// Where the attacks of an agent can hurt somebody from where it stands now: spots of 0.2 m, those
/// side by side as one area. Upon the first kind that it is hostile to, players first; empty if
/// there is none.
[[nodiscard]] Overlay reach_overlay(const Simulation& game, AgentId agent);

}  // namespace gaze::serve
