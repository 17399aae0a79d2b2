#pragma once

#include "show/canvas.hpp"
#include "show/scene.hpp"

namespace gaze {

/// Turns metres of the plan into pixels of the map's part of the sheet; up is up.
struct MapView {
  Rectangle frame;     ///< Pixels.
  double scale = 1.0;  ///< Pixels a metre.
  Vector2d low{0, 0};  ///< The plan's corner at the frame's lower left.

  Vector2d operator()(const Vector2d& p) const {
    return {frame.x + (p.x() - low.x()) * scale,
            frame.y + frame.height - (p.y() - low.y()) * scale};
  }
};

/// Where the parts of a picture go: the title above the map, the legend to its right.
struct Sheet {
  Rectangle title;
  Rectangle legend;
  MapView view;
};

/// How wide a legend is, pixels.
inline constexpr double kLegendWidth = 268.0;

/// Lays paper out for a scene.
/// @param has_legend  False: one stands elsewhere.
[[nodiscard]] Sheet lay_out(Canvas& canvas, const Scene& scene, bool has_legend = true);

void paint_map(Canvas& canvas, const Scene& scene, const MapView& view);
void paint_labels(Canvas& canvas, const Scene& scene, const MapView& view);
void paint_scale_bar(Canvas& canvas, const MapView& view);
void paint_legend(Canvas& canvas, const Scene& scene, const Rectangle& frame);
void paint_title(Canvas& canvas, const Scene& scene, const Rectangle& frame);

/// What stands beside and above every map: labels, scale and title.
void paint_captions(Canvas& canvas, const Scene& scene, const Sheet& sheet);

/// A body of that many pixels, of the shape of its team, and where it faces.
void paint_body(Canvas& canvas, std::uint32_t team, const Vector2d& low, const Vector2d& high,
                bool is_alive);
void paint_nose(Canvas& canvas, const Vector2d& middle, const Vector2d& facing, double reach);

/// Fills the current path as the material is filled, leaving no path.
void fill_as_material(Canvas& canvas, std::uint32_t material, bool stops_sight);

void paint_sight_line(Canvas& canvas, Meaning meaning, const Vector2d& from, const Vector2d& to);
/// How far a feeler reaches, and up to where it meets something.
void paint_feeler_reach(Canvas& canvas, const Vector2d& from, const Vector2d& to, double thickness,
                        bool finds);
void paint_feeler(Canvas& canvas, const Vector2d& from, const Vector2d& to, bool finds);
void paint_ring(Canvas& canvas, Meaning meaning, const Vector2d& middle, double radius);
void paint_seen_edge(Canvas& canvas, bool is_alert);  ///< Fills and strokes the current path.
void paint_field_edge(Canvas& canvas);                ///< Strokes it.
void paint_track(Canvas& canvas, const std::vector<Vector2d>& points, double thickness);
void paint_hit(Canvas& canvas, const Vector2d& place);
/// The disc of a blast, which is hatched; and the part that nothing shields, the current path.
void paint_blast(Canvas& canvas, const Vector2d& middle, double radius);
void paint_blast_clear(Canvas& canvas);
/// Hatches the current path, a disc, leaving no path.
void fill_shadow(Canvas& canvas, const Vector2d& middle, double radius);
void paint_shot(Canvas& canvas, const Vector2d& place, const Vector2d& direction, double radius);
void paint_beam(Canvas& canvas, const Vector2d& from, const Vector2d& to, double thickness);
void paint_way(Canvas& canvas, std::uint32_t team, const std::vector<Vector2d>& points);
/// The edge of the level: its current path.
void paint_bounds(Canvas& canvas);
void paint_trail(Canvas& canvas, std::uint32_t team, const std::vector<Vector2d>& points);

[[nodiscard]] Colour material_colour(std::uint32_t material);
[[nodiscard]] Colour team_colour(std::uint32_t team);

}  // namespace gaze
