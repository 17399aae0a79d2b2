#include "study/regions.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/polygon.hpp"

namespace gaze {
namespace {

constexpr double kPerMetre = 1e6;  // whole micrometres

ClipperLib::IntPoint to_point(const Vector2d& p) {
  return {static_cast<ClipperLib::cInt>(std::llround(p.x() * kPerMetre)),
          static_cast<ClipperLib::cInt>(std::llround(p.y() * kPerMetre))};
}

void add_arc(const SeenArea& area, const SeenEdge& edge, Outline& outline) {
  const double span = edge.end.degrees() - edge.start.degrees();
  const int pieces = std::max(1, static_cast<int>(std::ceil(span / chord_degrees(area.range))));
  for (int i = 1; i < pieces; ++i) {
    const SineCosine way =
        sine_cosine(Angle::from_degrees(edge.start.degrees() + span * i / pieces));
    outline.emplace_back(area.eye + Vector2d{way.cosine, way.sine} * area.range);
  }
}

}  // namespace

// A chord of angle a lies r (1 - cos(a / 2)) = r a^2 / 8 inside its arc.
double chord_degrees(double radius) {
  return std::sqrt(8.0 * kArcError / std::max(radius, kArcError)) * 180.0 / 3.14159265358979323846;
}

Outline arc(const Vector2d& centre, double radius, double from, double span) {
  Outline points;
  const int pieces = std::max(3, static_cast<int>(std::ceil(span / chord_degrees(radius))));
  for (int i = 0; i <= pieces; ++i) {
    const SineCosine direction = sine_cosine(Angle::from_degrees(from + span * i / pieces));
    points.emplace_back(centre + Vector2d{direction.cosine, direction.sine} * radius);
  }
  return points;
}

Outlines disc(const Vector2d& centre, double radius) {
  if (!(radius > 0.0)) return {};
  Outline points = arc(centre, radius, 0.0, 360.0);
  points.pop_back();
  return {points};
}

ClipperLib::Paths to_paths(const Outlines& outlines) {
  ClipperLib::Paths paths;
  for (const Outline& outline : outlines) {
    ClipperLib::Path path;
    for (const Vector2d& p : outline) path.push_back(to_point(p));
    paths.push_back(std::move(path));
  }
  return paths;
}

Outlines from_paths(const ClipperLib::Paths& paths) {
  Outlines outlines;
  for (const ClipperLib::Path& path : paths) {
    Outline outline;
    for (const ClipperLib::IntPoint& p : path) {
      outline.emplace_back(static_cast<double>(p.X) / kPerMetre,
                           static_cast<double>(p.Y) / kPerMetre);
    }
    outlines.push_back(std::move(outline));
  }
  return outlines;
}

Outlines combined(ClipperLib::ClipType how, const Outlines& one, const Outlines& other) {
  ClipperLib::Clipper clipper;
  clipper.AddPaths(to_paths(one), ClipperLib::ptSubject, true);
  clipper.AddPaths(to_paths(other), ClipperLib::ptClip, true);
  ClipperLib::Paths result;
  clipper.Execute(how, result, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
  return from_paths(result);
}

Outlines united(const Outlines& one, const Outlines& other) {
  return combined(ClipperLib::ctUnion, one, other);
}
Outlines common(const Outlines& one, const Outlines& other) {
  return combined(ClipperLib::ctIntersection, one, other);
}
Outlines without(const Outlines& one, const Outlines& other) {
  return combined(ClipperLib::ctDifference, one, other);
}

Outlines widened(const Outlines& outlines, double by) {
  ClipperLib::ClipperOffset offset(2.0, kArcError * kPerMetre);
  offset.AddPaths(to_paths(outlines), ClipperLib::jtRound, ClipperLib::etClosedPolygon);
  ClipperLib::Paths result;
  offset.Execute(result, by * kPerMetre);
  return from_paths(result);
}

std::vector<Outlines> parts_of(const Outlines& region) {
  ClipperLib::Clipper clipper;
  clipper.AddPaths(to_paths(region), ClipperLib::ptSubject, true);
  ClipperLib::PolyTree tree;
  clipper.Execute(ClipperLib::ctUnion, tree, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
  std::vector<Outlines> parts;
  for (const ClipperLib::PolyNode* node = tree.GetFirst(); node != nullptr;
       node = node->GetNext()) {
    if (node->IsHole()) continue;
    ClipperLib::Paths part{node->Contour};
    for (const ClipperLib::PolyNode* hole : node->Childs) part.push_back(hole->Contour);
    parts.push_back(from_paths(part));
  }
  return parts;
}

bool lies_in(const Outlines& part, const Vector2d& p) {
  return std::count_if(part.begin(), part.end(),
                       [&](const Outline& outline) { return contains(outline, p); }) == 1;
}

double area_of(const Outlines& outlines) {
  double sum = 0.0;
  for (const ClipperLib::Path& path : to_paths(outlines)) sum += ClipperLib::Area(path);
  return sum / (kPerMetre * kPerMetre);
}

Outline outline_of(const SeenArea& area) {
  Outline outline;
  if (area.edges.empty()) return outline;
  outline.push_back(area.edges.front().from);
  for (const SeenEdge& edge : area.edges) {
    if ((edge.from - outline.back()).squaredNorm() > 0.0) outline.push_back(edge.from);
    if (edge.at_range) add_arc(area, edge, outline);
    outline.push_back(edge.to);
  }
  // Less than all round: from the eye and back to it.
  if ((outline.back() - outline.front()).squaredNorm() > 1e-18) outline.push_back(area.eye);
  return outline;
}

}  // namespace gaze
