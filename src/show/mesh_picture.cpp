#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <set>

#include "drawing/palette.hpp"
#include "geometry/plan.hpp"
#include "level/numbers.hpp"
#include "navigation/arc.hpp"
#include "navigation/mesh.hpp"
#include "show/paint.hpp"

namespace gaze {
namespace {

constexpr std::size_t kIslandStyles = 6;
constexpr Colour kCostly{0.553, 0.355, 0.104, 0.30};

const Colour& island_colour(std::uint32_t island) {
  static constexpr std::array<Colour, kIslandStyles> kColours{
      kCalm, kShot, kAlert, Colour{0.545, 0.180, 0.369}, Colour{0.420, 0.380, 0.557}, kStopped};
  return kColours[island % kIslandStyles];
}

/// Fills the current path in the manner of an island; each has lines of its own.
void fill_island(Canvas& canvas, std::uint32_t island, const Rectangle& area) {
  cairo_t* raw = canvas.raw();
  const Colour& colour = island_colour(island);
  cairo_save(raw);
  canvas.set(colour.with_opacity(0.16));
  cairo_fill_preserve(raw);
  cairo_clip(raw);
  const double right = area.x + area.width;
  const double bottom = area.y + area.height;
  if (island % kIslandStyles != 0) {
    const double spacing = 9.0;
    for (double x = area.x - area.height; x < right; x += spacing) {
      if (island % 2 == 1) canvas.line({x, bottom}, {x + area.height, area.y});
      if (island % 3 == 2) canvas.line({x, area.y}, {x + area.height, bottom});
    }
    for (double y = area.y; y < bottom && island % 4 >= 2; y += spacing) {
      canvas.line({area.x, y}, {right, y});
    }
    canvas.stroke(colour.with_opacity(0.45), 0.9);
  }
  cairo_restore(raw);
}

class MeshPainter {
 public:
  MeshPainter(Canvas& canvas, const MeshPicture& picture, const MapView& view)
      : canvas_(canvas),
        picture_(picture),
        mesh_(*picture.mesh),
        view_(view),
        plane_(data_of(*picture.mesh).plane) {
    for (std::size_t i = 0; i < mesh_.polygon_count(); ++i) {
      polygons_.push_back(mesh_.polygon(i));
    }
  }

  void paint_floor() {
    const InFrame clipped(canvas_, view_.frame);
    for (std::uint32_t island = 0; island < mesh_.islands().size(); ++island) {
      for (const MeshPolygon& polygon : polygons_) {
        if (polygon.island == island) canvas_.polygon(on_sheet(polygon));
      }
      fill_island(canvas_, island, view_.frame);
    }
    for (std::uint32_t i = 0; i < polygons_.size(); ++i) {
      if (mesh_.cost({i, {0.0, 0.0, 0.0}}) == 1.0 || is_flat()) continue;
      canvas_.polygon(on_sheet(polygons_[i]));
      canvas_.set(kCostly);
      cairo_fill(canvas_.raw());
    }
  }

  void paint_ways() {
    const InFrame clipped(canvas_, view_.frame);
    if (is_flat()) {
      paint_ledges();
    } else {
      paint_edges();
    }
    paint_links();
    paint_path();
  }

 private:
  /// As long as it lives nothing is drawn outside of the frame.
  class InFrame {
   public:
    InFrame(Canvas& canvas, const Rectangle& frame) : raw_(canvas.raw()) {
      cairo_save(raw_);
      cairo_rectangle(raw_, frame.x, frame.y, frame.width, frame.height);
      cairo_clip(raw_);
    }
    ~InFrame() { cairo_restore(raw_); }
    InFrame(const InFrame&) = delete;
    InFrame& operator=(const InFrame&) = delete;

   private:
    cairo_t* raw_;
  };

  // Seen from the side what is walked on is a line.
  bool is_flat() const { return plane_ == Plane::upright && !mesh_.body().altitude; }

  void paint_links() {
    const auto& leads = picture_.path != nullptr ? kFaintInk : kInk;
    for (const MeshLink& link : mesh_.links()) paint_link(link, leads, 1.3);
  }

  void paint_link(const MeshLink& link, const Colour& colour, double width) {
    const std::vector<Vector2d> way = on_sheet(course_of(link));
    for (std::size_t i = 0; i + 1 < way.size(); ++i) canvas_.line(way[i], way[i + 1]);
    const bool is_made = link.what == MeshLink::What::made;
    canvas_.stroke(
        colour, is_made ? 2.0 * width : width,
        link.what == MeshLink::What::hop ? std::vector{4.0, 3.0} : std::vector<double>{});
    paint_arrow(way[way.size() - 2], way.back(), colour);
  }

  // A link of the designer leads upright at its beginning or at its end, a drop at its end. Hops
  // are arcs.
  std::vector<Vector3d> course_of(const MeshLink& link) const {
    const Vector3d above{link.to.x(), link.to.y(), link.from.z()};
    const Vector3d below{link.from.x(), link.from.y(), link.to.z()};
    if (link.what == MeshLink::What::made) {
      return {link.from, link.to.z() > link.from.z() ? below : above, link.to};
    }
    if (link.what == MeshLink::What::drop) return {link.from, above, link.to};
    std::vector<Vector3d> course;
    constexpr int kPieces = 16;
    const auto arc =
        arc_between(link.from, link.to, mesh_.body().hop_height, data_of(mesh_).gravity);
    course.reserve(kPieces + 1);
    for (int i = 0; arc && i <= kPieces; ++i) {
      course.push_back(place_on(*arc, arc->seconds * i / kPieces));
    }
    return arc ? course : std::vector<Vector3d>{link.from, link.to};
  }

  void paint_arrow(const Vector2d& from, const Vector2d& to, const Colour& colour) {
    const Vector2d way = to - from;
    const double length = std::sqrt(dot(way, way));
    if (length == 0.0) return;
    const Vector2d back = way * (-7.0 / length);
    const Vector2d aside{-back.y() * 0.5, back.x() * 0.5};
    canvas_.line(to + back + aside, to);
    canvas_.line(to + back - aside, to);
    canvas_.stroke(colour, 1.3);
  }

  void paint_ledges() {
    for (const MeshPolygon& polygon : polygons_) {
      const auto [left, right] =
          std::minmax_element(polygon.corners.begin(), polygon.corners.end(),
                              [](const Vector3d& a, const Vector3d& b) { return a.x() < b.x(); });
      canvas_.line(place(*left), place(*right));
      canvas_.stroke(island_colour(polygon.island), 5.0);
    }
  }

  void paint_edges() {
    for (const MeshPolygon& polygon : polygons_) add_edges(polygon, false);
    canvas_.stroke(kInk.with_opacity(0.28), 0.7);
    for (const MeshPolygon& polygon : polygons_) add_edges(polygon, true);
    canvas_.stroke(kInk.with_opacity(0.85), 1.3);
  }

  void paint_path() {
    if (picture_.path == nullptr) return;
    const std::vector<Vector3d>& points = picture_.path->points;
    cairo_new_path(canvas_.raw());
    for (const Vector3d& p : points) {
      const Vector2d at = place(p);
      cairo_line_to(canvas_.raw(), at.x(), at.y());
    }
    canvas_.stroke(kPaper, 6.0);
    auto leg = picture_.path->links.begin();
    for (std::uint32_t i = 0; i + 1 < points.size(); ++i) {
      if (leg != picture_.path->links.end() && leg->to_point == i + 1) {
        paint_link(mesh_.links()[(leg++)->link], kStopped, 3.0);
        continue;
      }
      canvas_.line(place(points[i]), place(points[i + 1]));
      canvas_.stroke(kStopped, 3.0);
    }
    for (const Vector3d& p : points) {
      canvas_.disc(place(p), 3.5);
      canvas_.set(kStopped);
      cairo_fill(canvas_.raw());
    }
    mark(place(picture_.from), "from");
    mark(place(picture_.to), "to");
    if (picture_.parting) mark_parting(*picture_.parting);
  }

  Vector2d place(const Vector3d& p) const { return view_(plan_part(plane_, p)); }

  std::vector<Vector2d> on_sheet(const std::vector<Vector3d>& places) const {
    std::vector<Vector2d> corners;
    corners.reserve(places.size());
    for (const Vector3d& corner : places) corners.push_back(place(corner));
    return corners;
  }
  std::vector<Vector2d> on_sheet(const MeshPolygon& polygon) const {
    return on_sheet(polygon.corners);
  }

  void add_edges(const MeshPolygon& polygon, bool rim) {
    for (std::size_t i = 0; i < polygon.corners.size(); ++i) {
      if (polygon.beyond[i].has_value() == rim) continue;
      canvas_.line(place(polygon.corners[i]),
                   place(polygon.corners[(i + 1) % polygon.corners.size()]));
    }
  }

  void mark(const Vector2d& at, const std::string& text) {
    canvas_.disc(at, 7.0);
    canvas_.stroke(kStopped, 2.4);
    canvas_.font(13.0, true);
    canvas_.rimmed_text(at + Vector2d{10.0, -8.0}, text, kStopped);
  }

  void paint_cross(const Vector2d& at, const Colour& colour, double width) {
    for (const double side : {-1.0, 1.0}) {
      canvas_.line(at - Vector2d{8.0, 8.0 * side}, at + Vector2d{8.0, 8.0 * side});
    }
    canvas_.stroke(colour, width);
  }

  // Shows where the body does not get through, with what there is and what it would need.
  void mark_parting(const Parting& parting) {
    const bool is_shut = parting.what == Parting::What::shut;
    const bool has_place =
        is_shut || parting.what == Parting::What::narrow || parting.what == Parting::What::step;
    if (!has_place) return;
    const Vector2d at = place(parting.place);
    paint_cross(at, kPaper, 7.0);
    paint_cross(at, kInk, 3.0);
    canvas_.font(12.5, true);
    canvas_.rimmed_text(at + Vector2d{13.0, 5.0},
                        is_shut ? std::string("shut")
                                : fmt::format("{:.2f} of {:.2f} m", parting.found, parting.needed),
                        kInk);
  }

  Canvas& canvas_;
  const MeshPicture& picture_;
  const NavigationMesh& mesh_;
  const MapView& view_;
  Plane plane_;
  std::vector<MeshPolygon> polygons_;
};

std::string links_text(const NavigationMesh& mesh) {
  std::array<int, 3> count{};
  for (const MeshLink& link : mesh.links()) ++count[static_cast<std::size_t>(link.what)];
  const std::array<std::string_view, 3> kinds{"hops (dashed)", "drops", "made (thick)"};
  std::vector<std::string> parts;
  for (std::size_t i = 0; i < count.size(); ++i) {
    if (count[i] > 0) parts.push_back(fmt::format("{} {}", count[i], kinds[i]));
  }
  return fmt::format("Links: {}", fmt::join(parts, ", "));
}

// The costs that occur, each once, in order.
std::string costs_text(const NavigationMesh& mesh) {
  std::set<double> costs;
  for (std::uint32_t i = 0; i < mesh.polygon_count(); ++i) {
    costs.insert(mesh.cost({i, {0.0, 0.0, 0.0}}));
  }
  costs.erase(1.0);
  return costs.empty() ? "" : fmt::format("Tinted: a metre counts {:g}", fmt::join(costs, " or "));
}

/// Lines of text from the top down.
class Column {
 public:
  Column(Canvas& canvas, const Rectangle& frame) : canvas_(canvas), frame_(frame) {}

  void heading(const std::string& text) {
    y_ += 12.0;
    canvas_.font(12.5, true);
    write(text, 14.0);
    y_ += 4.0;
  }
  void text(const std::string& text) {
    canvas_.font(11.5);
    write(text, 14.0);
  }
  void island(std::uint32_t number, const std::string& text) {
    const Rectangle swatch{frame_.x + 14.0, y_, 34.0, 16.0};
    cairo_rectangle(canvas_.raw(), swatch.x, swatch.y, swatch.width, swatch.height);
    fill_island(canvas_, number, swatch);
    cairo_rectangle(canvas_.raw(), swatch.x, swatch.y, swatch.width, swatch.height);
    canvas_.stroke(kInk, 1.0);
    canvas_.font(11.5);
    write(text, 58.0);
    y_ += 7.0;
  }
  bool has_room() const { return y_ < frame_.y + frame_.height - 40.0; }

 private:
  void write(const std::string& text, double indent) {
    for (const std::string& line : canvas_.wrapped(text, frame_.width - indent - 12.0)) {
      canvas_.text({frame_.x + indent, y_ + 12.0}, line, kInk);
      y_ += 16.0;
    }
  }

  Canvas& canvas_;
  Rectangle frame_;
  double y_ = frame_.y + 8.0;
};

void paint_mesh_legend(Canvas& canvas, const MeshPicture& picture, const Rectangle& frame) {
  canvas.fill_rectangle(frame, kPlate);
  Column column(canvas, frame);
  const NavigationMesh& mesh = *picture.mesh;
  const BodySize& body = mesh.body();
  column.heading(fmt::format("Where a {} can be", picture.kind));
  column.text(worded("Its middle: it is {} m wide and {} m high, and steps up {} m.",
                     2.0 * body.radius, body.height, body.step_height));
  column.text(fmt::format("{} polygons, {} {}", mesh.polygon_count(), mesh.islands().size(),
                          mesh.islands().size() == 1 ? "island" : "islands"));
  if (!mesh.links().empty()) column.text(links_text(mesh));
  const std::string costs = costs_text(mesh);
  if (!costs.empty()) column.text(costs);
  const bool is_upright = data_of(mesh).plane == Plane::upright && !mesh.body().altitude;
  column.heading("Islands: no way from one to another and back");
  for (std::uint32_t i = 0; i < mesh.islands().size() && column.has_room(); ++i) {
    column.island(i, fmt::format("{}: {:.1f} {}", mesh.islands()[i].name, mesh.islands()[i].area,
                                 is_upright ? "m" : "m²"));
  }
  if (picture.path == nullptr) return;
  column.heading("The path");
  column.text(fmt::format("{}, {:.2f} m", name_of(picture.path->outcome), picture.path->length));
  column.text(picture.reason);
}

void show_all_of(const Path& path, Plane plane, Scene& scene) {
  for (const Vector3d& point : path.points) {
    const Vector2d p = plan_part(plane, point);
    scene.low = scene.low.cwiseMin(p);
    scene.high = scene.high.cwiseMax(p);
  }
}

}  // namespace

std::string draw(const Simulation& simulation, const MeshPicture& picture,
                 const PictureOptions& options) {
  const bool is_path = picture.path != nullptr;
  const Layers layers = is_path ? Layers(Layer::level) : Layer::level | Layer::agents;
  Scene scene = make_scene(simulation, Trails(simulation), layers);
  scene.moment = is_path ? "a path" : "mesh";
  if (is_path) show_all_of(*picture.path, simulation.level().plane, scene);
  Canvas canvas(options);
  const Sheet sheet = lay_out(canvas, scene);
  MeshPainter painter(canvas, picture, sheet.view);
  painter.paint_floor();
  paint_map(canvas, scene, sheet.view);
  painter.paint_ways();
  paint_captions(canvas, scene, sheet);
  paint_mesh_legend(canvas, picture, sheet.legend);
  return canvas.finish();
}

}  // namespace gaze
