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

/// Where the attacks of an agent can hurt an enemy from where the agent stands now. The enemy is of
/// the first kind that the agent is hostile to, players first; empty if there is none. Spots are
/// 0.2 m wide, or wider if more than 60,000 would lie within reach. Spots side by side are one
/// area.
[[nodiscard]] Overlay reach_overlay(const Simulation& game, AgentId agent);

}  // namespace gaze::serve
