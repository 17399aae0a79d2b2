#include <fmt/format.h>

#include <array>

#include "file/read.hpp"
#include "geometry/wall.hpp"

namespace gaze {
namespace {

std::string point_text(const Vector2d& p) {
  return fmt::format("[{}, {}]", p.x(), p.y());
}

bool check_path(TableReader& reader, const Solid& solid) {
  const Place& place = reader.table().find("path")->place;
  const auto say = [&](const std::string& what) {
    reader.fault(place, fmt::format("{} {}", reader.path_of("path"), what));
    return false;
  };
  if (solid.points.size() < 2) {
    return say(fmt::format("has {} points; 2 to {} are allowed", solid.points.size(),
                           ReadLimits::path_points));
  }
  for (std::size_t i = 0; i + 1 < solid.points.size(); ++i) {
    if (solid.points[i] == solid.points[i + 1]) {
      return say("has a stretch of no length at " + point_text(solid.points[i]));
    }
  }
  if (!widen_path(solid.points, solid.thickness)) {
    return say(
        fmt::format("has a corner too sharp, or a stretch too short, for a thickness of {} m",
                    solid.thickness));
  }
  return true;
}

}  // namespace

std::vector<Vector2d> read_plan_points(TableReader& reader, const std::string& key,
                                       std::size_t most) {
  std::vector<Vector2d> points;
  if (reader.need(key, "a list of points") == nullptr) return points;
  for (const Node& item : reader.items(key, most)) {
    const auto point = reader.numbers(item, "a point of " + reader.path_of(key), 2, kCoordinate);
    if (!point) return {};
    points.emplace_back((*point)[0], (*point)[1]);
  }
  return points;
}

bool check_outline(TableReader& reader, const std::vector<Vector2d>& points) {
  const auto fault = find_outline_fault(points);
  if (!fault) return true;
  const Place& place = reader.table().find("outline")->place;
  const auto say = [&](const std::string& what) {
    reader.fault(place, fmt::format("{} {}", reader.path_of("outline"), what));
  };
  switch (fault->what) {
    case OutlineFault::What::too_few_points:
      say(fmt::format("has {} points; 3 to {} are allowed", points.size(),
                      ReadLimits::outline_points));
      break;
    case OutlineFault::What::repeated_point:
      say(fmt::format("repeats the point {}; the outline closes by itself",
                      point_text(points[fault->first])));
      break;
    case OutlineFault::What::crosses_itself:
      say(fmt::format("crosses or touches itself: the side from {} meets the side from {}",
                      point_text(points[fault->first]), point_text(points[fault->second])));
      break;
    case OutlineFault::What::no_area:
      say("has no area");
      break;
  }
  return false;
}

namespace {

// Where an end of a ramp is; always three numbers.
bool read_ramp(TableReader& reader, Solid& solid) {
  const auto from = read_point3(reader, "from");
  const auto to = read_point3(reader, "to");
  solid.width = reader.needed_number("width");
  solid.thickness = reader.number("thickness");
  if (solid.form == Solid::Form::stairs) {
    reader.need("steps", "a whole number");
    solid.steps = static_cast<int>(reader.whole("steps"));
  }
  if (!from || !to) return false;
  solid.from = *from;
  solid.to = *to;
  const double x = to->x() - from->x();
  const double y = to->y() - from->y();
  if (x * x + y * y >= 0.01 * 0.01) return true;
  reader.fault(reader.table().find("to")->place,
               fmt::format("{} lies straight above or below {}: a ramp or stairs need 0.01 m of "
                           "length in the plan at least",
                           reader.path_of("to"), reader.path_of("from")));
  return false;
}

bool read_floor(TableReader& reader, Solid& solid, double ground_height) {
  solid.points = read_plan_points(reader, "outline", ReadLimits::outline_points);
  const double top = reader.number("top", ground_height);
  solid.height = reader.number("thickness");
  solid.base = top - solid.height;
  const Node* outline = reader.table().find("outline");
  return outline != nullptr && outline->type == Node::Type::array &&
         solid.points.size() == outline->items.size() && check_outline(reader, solid.points);
}

std::string_view key_of(Solid::Form form) {
  static constexpr std::array<std::string_view, 6> kKeys{"wall", "block",  "floor",
                                                         "ramp", "stairs", "door"};
  return kKeys[static_cast<std::size_t>(form)];
}

const KeyTable& keys_of(Solid::Form form) {
  static constexpr std::array kTables{&kWallKeys, &kBlockKeys,  &kFloorKeys,
                                      &kRampKeys, &kStairsKeys, &kDoorKeys};
  return *kTables[static_cast<std::size_t>(form)];
}

void read_door(TableReader& reader, Solid& solid) {
  solid.door.opens_for = reader.names("opens_for");
  solid.door.opens_within = reader.number("opens_within");
  solid.door.closes_after = reader.duration("closes_after");
}

}  // namespace

std::optional<Solid> read_solid(ReadContext& context, const Node& table, Solid::Form form,
                                const Names& names, Plane plane, double ground_height) {
  const bool is_wall = form == Solid::Form::wall || form == Solid::Form::door;
  const Node* id = table.find("id");
  const std::string what(key_of(form));
  const bool is_named = id != nullptr && id->type == Node::Type::text;
  TableReader reader(context, table, is_named ? what + "." + id->text : what, keys_of(form));
  Solid solid;
  solid.form = form;
  solid.place = table.place;
  if (is_walkway(form) && plane == Plane::upright) {
    reader.fault(table.place,
                 fmt::format("[[{}]] belongs in ground and space levels; in upright ones blocks "
                             "are what one walks on",
                             what));
    return std::nullopt;
  }
  solid.id = reader.needed_name("id");
  solid.material = reader.reference("material", names.materials, "material");
  if (is_walkway(form)) {
    const bool sound = form == Solid::Form::floor ? read_floor(reader, solid, ground_height)
                                                  : read_ramp(reader, solid);
    reader.finish();
    return sound ? std::optional(solid) : std::nullopt;
  }
  if (is_wall) solid.thickness = reader.number("thickness");
  solid.points = is_wall ? read_plan_points(reader, "path", ReadLimits::path_points)
                         : read_plan_points(reader, "outline", ReadLimits::outline_points);
  if (plane != Plane::upright) {
    solid.base = reader.number("base", ground_height);
    solid.height = reader.number("height");
  }
  if (form == Solid::Form::door) read_door(reader, solid);
  if (form == Solid::Form::block) {
    solid.health = reader.number("health", 0.0);
  }
  reader.finish();
  const std::string key = is_wall ? "path" : "outline";
  const Node* points = table.find(key);
  if (points == nullptr || points->type != Node::Type::array) return std::nullopt;
  if (solid.points.size() != points->items.size()) return std::nullopt;  // reported already
  const bool sound = is_wall ? check_path(reader, solid) : check_outline(reader, solid.points);
  return sound ? std::optional(solid) : std::nullopt;
}

std::optional<Vector3d> read_point(TableReader& reader, const Node& node, const std::string& path,
                                   Plane plane, double ground_height) {
  const std::size_t count = plane == Plane::space ? 3 : 2;
  const auto p = reader.numbers(node, path, count, kCoordinate);
  if (!p) return std::nullopt;
  switch (plane) {
    case Plane::ground:
      return Vector3d{(*p)[0], (*p)[1], ground_height};
    case Plane::upright:
      return Vector3d{(*p)[0], 0.0, (*p)[1]};
    default:
      return Vector3d{(*p)[0], (*p)[1], (*p)[2]};
  }
}

std::optional<Vector3d> read_point3(TableReader& reader, const std::string& key) {
  const Node* node = reader.need(key, "a point [x, y, z]");
  if (node == nullptr) return std::nullopt;
  const auto p = reader.numbers(*node, reader.path_of(key), 3, kCoordinate);
  if (!p) return std::nullopt;
  return Vector3d{(*p)[0], (*p)[1], (*p)[2]};
}

}  // namespace gaze
