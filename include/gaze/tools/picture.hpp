#pragma once

#include <array>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/path.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"
#include "gaze/tools/spots.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

enum class PictureFormat { png, svg };

struct PictureOptions {
  PictureFormat format = PictureFormat::png;
  int width = 1280;  ///< Pixels (PNG) or points (SVG), 320 to 8192.
  int height = 800;  ///< The same.
};

/// The way of a projectile.
struct ShotTrack {
  std::int64_t number = 0;       ///< As in `Projectile`.
  double radius = 0.0;           ///< Metres.
  std::vector<Vector3d> places;  ///< From the muzzle on.
  std::vector<Vector3d> hits;    ///< Where it met something.
  std::int64_t tick = 0;         ///< When it was seen last.
};

/// Where agents have been, for the trails of a picture: one list an agent, of places in order, from
/// the beginning of the round or its last return on. And the tracks of what has flown in the last
/// second and a half.
class Trails {
 public:
  explicit Trails(const Simulation& simulation);
  void add(const Simulation& simulation);  ///< Once after each step.
  std::span<const Vector3d> of(AgentId agent) const { return positions_[agent.index]; }
  std::span<const ShotTrack> tracks() const { return tracks_; }

 private:
  ShotTrack* track(std::int64_t number);

  void forget_old(const Simulation& simulation);

  std::vector<std::vector<Vector3d>> positions_;
  std::vector<ShotTrack> tracks_;  ///< In the order of their numbers.
  bool round_is_over_ = false;     ///< All begin again with the next step.
};

/// Draws a level at the current tick: solids by material, agents with facing and mode, what each
/// looker sees (exact), its lines of sight and where they stop, shots, trails, ids, a scale bar and
/// a legend. @return The bytes of a PNG or SVG file. Throws std::runtime_error if Cairo fails.
[[nodiscard]] std::string draw(const Simulation& simulation, const Trails& trails,
                               const PictureOptions& options = {});

/// What is known of each spot of a floor, to be drawn over a level.
struct SpotPicture {
  SpotGrid grid;
  std::vector<std::uint8_t> is_free;   ///< By spot.
  std::vector<std::uint16_t> seen_by;  ///< By how many, at once.
  std::vector<double> seen_time;       ///< Share of a run; empty for a moment.
  std::string heading;                 ///< Of the legend.
  std::vector<std::string> classes{"nobody", "one", "two", "three", "four or more"};
  std::vector<std::string> numbers;  ///< Lines of text below it.
};

/// Draws a level with its spots: by how many each is seen, in patterns as well as shades, with
/// numbers in larger patches, and what nobody sees hatched.
[[nodiscard]] std::string draw(const Simulation& simulation, const SpotPicture& spots,
                               const PictureOptions& options = {});

/// A navigation mesh and perhaps a path over it, to be drawn over a level.
struct MeshPicture {
  const NavigationMesh* mesh = nullptr;
  const Path* path = nullptr;  ///< May be missing.
  std::string kind;            ///< Whose mesh it is.
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};
  std::string reason;              ///< Of the path.
  std::optional<Parting> parting;  ///< What keeps its ends apart, to be marked.
};

/// Draws a level with a mesh: islands in patterns as well as colours, polygons, rims, and the path.
[[nodiscard]] std::string draw(const Simulation& simulation, const MeshPicture& mesh,
                               const PictureOptions& options = {});

/// Both runs in one picture, side by side, at a moment: where they part, or at the end.
/// @param names  Of the two.
[[nodiscard]] std::string draw_both(const Level& one, const Level& other, double seconds,
                                    const std::array<std::string, 2>& names,
                                    const PictureOptions& options = {});

}  // namespace gaze
GAZE_PUBLIC_END
