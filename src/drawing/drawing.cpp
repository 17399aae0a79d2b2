#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <iterator>
#include <numbers>

#include "drawing/marks.hpp"

namespace gaze {

Mark& MarkList::add(Mark::Form form, Layer layer, Meaning meaning, std::vector<Vector2d> points,
                    double height) {
  Mark& mark = marks.emplace_back();
  mark.form = form;
  mark.layer = layer;
  mark.meaning = meaning;
  mark.points = std::move(points);
  mark.height = height;
  return mark;
}

Mark& MarkList::add_text(Layer layer, Meaning meaning, std::vector<Vector2d> points, double height,
                         std::string text) {
  Mark& mark = texts.emplace_back();
  mark.form = Mark::Form::text;
  mark.layer = layer;
  mark.meaning = meaning;
  mark.points = std::move(points);
  mark.height = height;
  mark.text = std::move(text);
  return mark;
}

// A chord of an arc of radius r over an angle a is off it by r (1 - cos(a / 2)).
void cut_arc(std::vector<Vector2d>& points, const Vector2d& middle, double radius, double start,
             double end, double tolerance) {
  if (!(radius > 0.0)) return;
  while (end < start) end += 2.0 * std::numbers::pi;
  const double widest = 2.0 * std::acos(std::max(0.0, 1.0 - tolerance / radius));
  const int parts = std::max(1, static_cast<int>(std::ceil((end - start) / widest)));
  for (int i = 0; i <= parts; ++i) {
    const double at = start + (end - start) * i / parts;
    points.push_back(middle + radius * Vector2d{std::cos(at), std::sin(at)});
  }
}

std::vector<Vector2d> outline_of(const SeenArea& area, bool from_eye, double tolerance) {
  std::vector<Vector2d> points;
  if (from_eye) points.push_back(area.eye);
  for (const SeenEdge& edge : area.edges) {
    if (edge.at_range) {
      cut_arc(points, area.eye, area.range, edge.start.radians(), edge.end.radians(), tolerance);
    } else {
      points.push_back(edge.from);
      points.push_back(edge.to);
    }
  }
  points.erase(std::unique(points.begin(), points.end()), points.end());
  return points;
}

std::vector<Mark> drawing(const Simulation& simulation, Layers layers, double tolerance) {
  if (!(tolerance >= 1e-4 && tolerance <= 10.0)) {
    throw UsageError(fmt::format("a tolerance of {} m; 0.0001 to 10 is allowed", tolerance));
  }
  MarkList list(simulation, layers, tolerance);
  if (layers.has(Layer::senses)) mark_senses(list);
  if (layers.has(Layer::agents)) mark_bodies(list);
  if (layers.has(Layer::ways)) mark_ways(list);
  if (layers.has(Layer::harm)) mark_harm(list);
  if (layers.has(Layer::level)) mark_level(list);
  std::stable_sort(list.marks.begin(), list.marks.end(),
                   [](const Mark& a, const Mark& b) { return a.meaning < b.meaning; });
  // Who finds room for them one by one begins with agents.
  std::stable_partition(list.texts.begin(), list.texts.end(),
                        [](const Mark& words) { return words.layer == Layer::agents; });
  std::move(list.texts.begin(), list.texts.end(), std::back_inserter(list.marks));
  return std::move(list.marks);
}

}  // namespace gaze
