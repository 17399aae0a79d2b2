#pragma once

#include <cstdint>
#include <vector>

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

/// Generated levels to measure on: the same on every machine. Tests use them as well.
namespace gaze::scenes {

/// splitmix64 (Steele, Lea and Flood, 2014), and even numbers from it.
class Random {
 public:
  explicit Random(std::uint64_t seed) : state_(seed) {}
  std::uint64_t next();
  double between(double low, double high);

 private:
  std::uint64_t state_;
};

/// Boxes at any angle and L shapes, 0.3 to 4 m wide, 0.8 to 3 m high, none overlapping, and a wall
/// around a square of that side.
[[nodiscard]] Level make_scene(int solids, double side, std::uint64_t seed);

[[nodiscard]] Level hall();    ///< 200 solids on 60 m x 60 m
[[nodiscard]] Level campus();  ///< 2,000 on 200 m x 200 m
[[nodiscard]] Level city();    ///< 50,000 on 1 km x 1 km

[[nodiscard]] Level terrain();  ///< Hills of a million triangles on 707 m x 707 m
[[nodiscard]] double terrain_height(double x, double y);

/// From an eye 1.6 m over the hills to a point 0.2 to 1.7 m over them, 2 to 100 m away.
[[nodiscard]] std::vector<Segment> terrain_segments(std::size_t count, std::uint64_t seed);

/// From an eye at 1.6 m to a point at 0.2 to 1.7 m on a body 2 to 40 m away, both outside solids.
[[nodiscard]] std::vector<Segment> sight_segments(const World& world, double side,
                                                  std::size_t count, std::uint64_t seed);

/// The side of a scene's square.
[[nodiscard]] double side_of(const Level& level);

/// Adds chasers spread over a scene, facing everywhere, and one player walking round in its middle.
void add_chasers(Level& level, int chasers, std::uint64_t seed);

/// Adds more players, each walking to and fro somewhere in the scene.
void add_players(Level& level, int players, std::uint64_t seed);

/// Moves all chasers to where they see the player at once, within so many metres of it, and lets
/// them look all round and not forget: each of them chases from the first step on.
void gather_round_player(Level& level, double within, std::uint64_t seed);

}  // namespace gaze::scenes
