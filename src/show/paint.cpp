#include "show/paint.hpp"

#include <algorithm>
#include <cmath>

#include "show/palette.hpp"

namespace gaze {
namespace {

void paint_grid(Canvas& canvas, const MapView& view) {
  double step = 1.0;
  while (step * view.scale < 24.0) step *= step == 2.0 || step == 20.0 ? 2.5 : 2.0;
  const double right = view.low.x() + view.frame.width / view.scale;
  const double top = view.low.y() + view.frame.height / view.scale;
  for (double x = std::ceil(view.low.x() / step) * step; x <= right; x += step) {
    canvas.line(view({x, view.low.y()}), view({x, top}));
  }
  for (double y = std::ceil(view.low.y() / step) * step; y <= top; y += step) {
    canvas.line(view({view.low.x(), y}), view({right, y}));
  }
  canvas.stroke(kGridInk, 1.0);
}

void paint_ground(Canvas& canvas, const Scene& scene, const MapView& view) {
  if (!scene.is_upright || !scene.ground_height) return;
  const double y = view({0.0, *scene.ground_height}).y();
  const double bottom = view.frame.y + view.frame.height;
  canvas.fill_rectangle({view.frame.x, y, view.frame.width, bottom - y}, kPlate);
  canvas.line({view.frame.x, y}, {view.frame.x + view.frame.width, y});
  canvas.stroke(kInk, 2.0);
}

void paint_seen(Canvas& canvas, const SeenShape& seen, const MapView& view) {
  if (seen.area.edges.empty()) return;
  area_path(canvas, seen.area, seen.half_field_deg < 180.0, view);
  paint_seen_edge(canvas, seen.is_alert);
}

// The field of view as it would be with nothing in the way.
void paint_field(Canvas& canvas, const SeenShape& seen, const MapView& view) {
  const Vector2d eye = view(seen.area.eye);
  const double facing = angle_of(seen.middle).radians();
  const double half = Angle::from_degrees(seen.half_field_deg).radians();
  cairo_new_sub_path(canvas.raw());
  if (seen.half_field_deg < 180.0) cairo_move_to(canvas.raw(), eye.x(), eye.y());
  arc_path(canvas, eye, seen.area.range * view.scale, facing - half, facing + half);
  if (seen.half_field_deg < 180.0) cairo_close_path(canvas.raw());
  canvas.stroke(kFaintInk, 1.0, {1.5, 4.0});
}

// Seen from the side, nothing is seen in the ground, and no blast goes into it.
void clip_to_air(Canvas& canvas, const Scene& scene, const MapView& view) {
  if (!scene.is_upright || !scene.ground_height) return;
  const double bottom = view({0.0, *scene.ground_height}).y();
  cairo_rectangle(canvas.raw(), view.frame.x, view.frame.y, view.frame.width,
                  bottom - view.frame.y);
  cairo_clip(canvas.raw());
}

void paint_senses(Canvas& canvas, const Scene& scene, const MapView& view) {
  cairo_save(canvas.raw());
  clip_to_air(canvas, scene, view);
  for (const SeenShape& seen : scene.seen) paint_seen(canvas, seen, view);
  for (const SeenShape& seen : scene.seen) paint_field(canvas, seen, view);
  cairo_restore(canvas.raw());
}

// What is walked on is pale; an arrow runs up what rises, steps are drawn across.
void paint_walkway(Canvas& canvas, const SolidShape& solid, const MapView& view) {
  const Colour colour = material_colour(solid.material);
  for (const Polygon& piece : solid.pieces) {
    std::vector<Vector2d> corners;
    for (const Vector2d& corner : piece) corners.push_back(view(corner));
    canvas.polygon(corners);
  }
  canvas.set(colour.with_opacity(0.10));
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(colour.with_opacity(0.5), 0.8);
  for (const auto& [from, to] : solid.rim) canvas.line(view(from), view(to));
  canvas.stroke(colour, 1.4, {9.0, 2.5});
  if (!solid.upward) return;
  const Vector2d low = view(solid.upward->first);
  const Vector2d way = view(solid.upward->second) - low;
  const Vector2d tip = low + way * 0.86;
  const Vector2d back = way * (9.0 / std::sqrt(way.squaredNorm()));
  const Vector2d side{-back.y() * 0.6, back.x() * 0.6};
  canvas.line(low + way * 0.14, tip);
  canvas.line(tip, tip - back + side);
  canvas.line(tip, tip - back - side);
  canvas.stroke(colour, 1.8);
}

void paint_solid(Canvas& canvas, const SolidShape& solid, const MapView& view, bool stops_sight) {
  if (solid.is_gone) {
    for (const auto& [from, to] : solid.rim) canvas.line(view(from), view(to));
    canvas.stroke(material_colour(solid.material).with_opacity(0.6), 1.0, {2.0, 3.0});
    return;
  }
  for (const Polygon& piece : solid.pieces) {
    std::vector<Vector2d> corners;
    for (const Vector2d& corner : piece) corners.push_back(view(corner));
    canvas.polygon(corners);
  }
  fill_as_material(canvas, solid.material, stops_sight);
  for (const auto& [from, to] : solid.rim) canvas.line(view(from), view(to));
  canvas.stroke(material_colour(solid.material), 1.4);
}

void paint_zone(Canvas& canvas, const ZoneShape& zone, const MapView& view) {
  std::vector<Vector2d> corners;
  for (const Vector2d& corner : zone.outline) corners.push_back(view(corner));
  canvas.polygon(corners);
  canvas.set(kInk.with_opacity(0.04 + 0.16 * zone.dimness));
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(kInk.with_opacity(0.55), 1.0, {3.0, 3.0});
}

void paint_feeler(Canvas& canvas, const FeelerShape& feeler, const MapView& view) {
  paint_feeler_line(canvas, view(feeler.from), view(feeler.stop), view(feeler.to),
                    feeler.thickness * view.scale, feeler.is_yes);
}

void paint_ring(Canvas& canvas, const RingShape& ring, const MapView& view) {
  paint_ring_at(canvas, ring.what, view(ring.middle), ring.radius * view.scale);
}

void paint_agent(Canvas& canvas, const AgentShape& agent, const MapView& view) {
  const Vector2d middle = view(agent.place);
  const Vector2d half = (agent.high - agent.low) * (view.scale / 2.0);
  const Vector2d at_least = half.cwiseMax(Vector2d{6.0, 6.0});
  paint_body(canvas, agent.team, middle - at_least, middle + at_least, agent.is_alive);
  if (!agent.is_alive) return;
  paint_nose(canvas, middle, {agent.facing.x(), -agent.facing.y()},
             std::min(at_least.x(), at_least.y()));
  if (!agent.has_target) return;
  canvas.disc(middle, at_least.maxCoeff() + 4.0);
  canvas.stroke(kAlert, 2.0);
}

MapView fit(const Scene& scene, const Rectangle& frame) {
  constexpr double kMargin = 0.8;  // metres around what there is
  const Vector2d low = scene.low - Vector2d{kMargin, kMargin};
  const Vector2d size = scene.high - scene.low + 2.0 * Vector2d{kMargin, kMargin};
  MapView view;
  view.frame = frame;
  view.scale = std::min(frame.width / size.x(), frame.height / size.y());
  view.scale = std::min(view.scale, 120.0);
  const Vector2d spare = Vector2d{frame.width, frame.height} / view.scale - size;
  view.low = low - spare / 2.0;
  return view;
}

}  // namespace

// Angles of the plan grow anticlockwise, those of the sheet clockwise.
void arc_path(Canvas& canvas, const Vector2d& middle, double radius, double start, double end) {
  cairo_arc_negative(canvas.raw(), middle.x(), middle.y(), radius, -start, -end);
}

void area_path(Canvas& canvas, const SeenArea& area, bool from_eye, const MapView& view) {
  const Vector2d eye = view(area.eye);
  if (from_eye) cairo_move_to(canvas.raw(), eye.x(), eye.y());
  for (const SeenEdge& edge : area.edges) {
    const Vector2d from = view(edge.from);
    const Vector2d to = view(edge.to);
    cairo_line_to(canvas.raw(), from.x(), from.y());
    if (edge.at_range) {
      arc_path(canvas, eye, area.range * view.scale, edge.start.radians(), edge.end.radians());
    } else {
      cairo_line_to(canvas.raw(), to.x(), to.y());
    }
  }
  cairo_close_path(canvas.raw());
}

Colour team_colour(std::uint32_t team) {
  return team == kNoTeam ? kInk : kTeams[team % kTeams.size()];
}

Colour material_colour(std::uint32_t material) {
  return kMaterials[material % kMaterials.size()];
}

void fill_as_material(Canvas& canvas, std::uint32_t material, bool stops_sight) {
  const Colour colour = material_colour(material);
  cairo_t* raw = canvas.raw();
  cairo_save(raw);
  canvas.set(colour.with_opacity(stops_sight ? 0.55 : 0.12));
  cairo_fill_preserve(raw);
  double x1 = 0.0, y1 = 0.0, x2 = 0.0, y2 = 0.0;
  cairo_path_extents(raw, &x1, &y1, &x2, &y2);
  cairo_clip(raw);
  const double spacing = 7.0;
  const double tall = y2 - y1;
  const auto style = material % 6;  // how the lines run
  for (double at = std::floor((x1 - tall) / spacing) * spacing; at < x2 + tall; at += spacing) {
    if (style == 0 || style == 3) canvas.line({at, y2}, {at + tall, y1});
    if (style == 1 || style == 3) canvas.line({at, y1}, {at + tall, y2});
    if (style == 4) canvas.line({at, y1}, {at, y2});
  }
  for (double at = std::floor(y1 / spacing) * spacing; at < y2 + spacing; at += spacing) {
    if (style == 5) canvas.line({x1, at}, {x2, at});
    for (double dot = std::floor(x1 / spacing) * spacing; style == 2 && dot < x2; dot += spacing) {
      canvas.disc({dot, at}, 1.2);
    }
  }
  canvas.stroke(colour, 1.0);
  cairo_restore(raw);
}

void paint_seen_edge(Canvas& canvas, bool is_alert) {
  const Colour colour = is_alert ? kAlert : kCalm;
  canvas.set(colour.with_opacity(is_alert ? 0.24 : 0.15));
  cairo_fill_preserve(canvas.raw());
  if (is_alert) {
    canvas.stroke(colour, 1.6);
  } else {
    canvas.stroke(colour, 1.1, {7.0, 3.0});
  }
}

void paint_feeler_line(Canvas& canvas, const Vector2d& from, const Vector2d& stop,
                       const Vector2d& to, double thickness, bool is_yes) {
  const Colour colour = is_yes ? kAlert : kCalm;
  canvas.line(from, to);
  canvas.stroke(colour.with_opacity(0.25), std::max(3.0, thickness));
  canvas.line(from, stop);
  canvas.stroke(colour, is_yes ? 2.4 : 1.4);
  canvas.disc(stop, is_yes ? 4.0 : 2.5);
  canvas.set(colour);
  cairo_fill(canvas.raw());
}

void paint_ring_at(Canvas& canvas, RingShape::What what, const Vector2d& middle, double radius) {
  canvas.disc(middle, radius);
  if (what == RingShape::What::nearness) {
    canvas.stroke(kCalm, 1.4, {2.0, 4.0});
    return;
  }
  canvas.stroke(kShot.with_opacity(0.7), 1.6, {10.0, 4.0});
  canvas.disc(middle, 5.0);
  canvas.stroke(kShot, 1.4);
}

void paint_sight_line(Canvas& canvas, SightLine::Outcome outcome, const Vector2d& from,
                      const Vector2d& stop, const Vector2d& to) {
  switch (outcome) {
    case SightLine::Outcome::seen:
      canvas.line(from, to);
      canvas.stroke(kAlert, 2.2);
      return;
    case SightLine::Outcome::outside_field:
      canvas.line(from, to);
      canvas.stroke(kInk, 1.2, {8.0, 3.0, 2.0, 3.0});
      return;
    case SightLine::Outcome::stopped:
      break;
  }
  canvas.line(from, stop);
  canvas.stroke(kStopped, 1.6, {6.0, 3.0});
  canvas.line(stop, to);
  canvas.stroke(kStopped.with_opacity(0.6), 1.2, {1.0, 4.0});
  for (const double side : {-1.0, 1.0}) {
    canvas.line(stop - Vector2d{5.0, 5.0 * side}, stop + Vector2d{5.0, 5.0 * side});
  }
  canvas.stroke(kStopped, 2.4);
}

void paint_body(Canvas& canvas, std::uint32_t team, const Vector2d& low, const Vector2d& high,
                bool is_alive) {
  const Vector2d middle = (low + high) / 2.0;
  const Vector2d half = (high - low) / 2.0;
  const bool is_tall = half.y() > 1.5 * half.x();
  if (is_tall || team % 4 == 2) {
    const double x = half.x();
    canvas.polygon({{low.x(), low.y()}, {middle.x() + x, low.y()}, high, {low.x(), high.y()}});
  } else if (team == kNoTeam || team % 4 == 0) {
    canvas.disc(middle, half.x());
  } else {
    canvas.polygon({middle - Vector2d{half.x() * 1.25, 0}, middle - Vector2d{0, half.y() * 1.25},
                    middle + Vector2d{half.x() * 1.25, 0}, middle + Vector2d{0, half.y() * 1.25}});
  }
  canvas.set(is_alive ? team_colour(team) : kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(is_alive ? kPaper : team_colour(team), 1.5);
  if (is_alive) return;
  canvas.line(low, high);
  canvas.line({low.x(), high.y()}, {high.x(), low.y()});
  canvas.stroke(team_colour(team), 2.0);
}

void paint_nose(Canvas& canvas, const Vector2d& middle, const Vector2d& facing, double reach) {
  const Vector2d side{-facing.y(), facing.x()};
  const Vector2d base = middle + facing * (reach * 0.1);
  canvas.polygon({base + side * (reach * 0.55), middle + facing * (reach + 7.0),
                  base - side * (reach * 0.55)});
  canvas.set(kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(kInk, 1.2);
}

void paint_bounds(Canvas& canvas) {
  canvas.stroke(kInk, 1.6, {14.0, 4.0, 2.0, 4.0, 2.0, 4.0});
}

void paint_trail(Canvas& canvas, std::uint32_t team, const std::vector<Vector2d>& points) {
  cairo_new_path(canvas.raw());
  for (const Vector2d& point : points) cairo_line_to(canvas.raw(), point.x(), point.y());
  canvas.stroke(team_colour(team).with_opacity(0.75), 1.8, {3.0, 3.0});
}

// A plain line to a ring at its end.
void paint_way(Canvas& canvas, std::uint32_t team, const std::vector<Vector2d>& points) {
  constexpr double kRing = 4.0;
  if (points.size() < 2) return;
  cairo_new_path(canvas.raw());
  for (const Vector2d& point : points) cairo_line_to(canvas.raw(), point.x(), point.y());
  canvas.stroke(team_colour(team).with_opacity(0.9), 1.2);
  canvas.disc(points.back(), kRing);
  canvas.set(kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(team_colour(team), 1.6);
}

void paint_map(Canvas& canvas, const Scene& scene, const MapView& view) {
  cairo_t* raw = canvas.raw();
  cairo_save(raw);
  cairo_rectangle(raw, view.frame.x, view.frame.y, view.frame.width, view.frame.height);
  cairo_clip(raw);
  paint_ground(canvas, scene, view);
  paint_grid(canvas, view);
  if (!scene.bounds.empty()) {
    std::vector<Vector2d> corners;
    for (const Vector2d& corner : scene.bounds) corners.push_back(view(corner));
    canvas.polygon(corners);
    paint_bounds(canvas);
  }
  for (const ZoneShape& zone : scene.zones) paint_zone(canvas, zone, view);
  paint_senses(canvas, scene, view);
  for (const SolidShape& solid : scene.solids) {
    if (solid.is_walkway) paint_walkway(canvas, solid, view);
  }
  for (const SolidShape& solid : scene.solids) {
    if (!solid.is_walkway) paint_solid(canvas, solid, view, scene.stops_sight[solid.material]);
  }
  for (const AgentShape& agent : scene.agents) {
    std::vector<Vector2d> way;
    for (const Vector2d& point : agent.way) way.push_back(view(point));
    paint_way(canvas, agent.team, way);
    std::vector<Vector2d> points;
    for (const Vector2d& point : agent.trail) points.push_back(view(point));
    paint_trail(canvas, agent.team, points);
  }
  cairo_save(raw);
  clip_to_air(canvas, scene, view);
  for (const BlastShape& blast : scene.blasts) paint_blast(canvas, blast, view);
  cairo_restore(raw);
  for (const TrackShape& track : scene.tracks) paint_track(canvas, track, view);
  for (const RingShape& ring : scene.rings) paint_ring(canvas, ring, view);
  for (const FeelerShape& feeler : scene.feelers) paint_feeler(canvas, feeler, view);
  for (const SightLine& line : scene.lines) {
    paint_sight_line(canvas, line.outcome, view(line.from), view(line.stop), view(line.to));
  }
  for (const BeamShape& beam : scene.beams) {
    paint_beam(canvas, view(beam.from), view(beam.to), beam.thickness * view.scale);
  }
  for (const AgentShape& agent : scene.agents) paint_agent(canvas, agent, view);
  for (const ShotShape& shot : scene.shots) {
    paint_shot(canvas, view(shot.place), {shot.velocity.x(), -shot.velocity.y()},
               shot.radius * view.scale);
  }
  cairo_restore(raw);
}

Sheet lay_out(Canvas& canvas, const Scene& scene) {
  constexpr double kTitle = 44.0;
  constexpr double kLegend = 268.0;
  const double width = canvas.width() - kLegend;
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  return {{0.0, 0.0, width, kTitle},
          {width, 0.0, kLegend, canvas.height()},
          fit(scene, {0.0, kTitle, width, canvas.height() - kTitle})};
}

void paint_captions(Canvas& canvas, const Scene& scene, const Sheet& sheet) {
  paint_labels(canvas, scene, sheet.view);
  paint_scale_bar(canvas, sheet.view);
  paint_title(canvas, scene, sheet.title);
}

}  // namespace gaze
