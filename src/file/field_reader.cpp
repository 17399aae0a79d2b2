#include "file/field_reader.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <charconv>

#include "level/spelling.hpp"

namespace gaze {
namespace {

// The item of a list by its number from 1 on: "2]".
const Node* item_of(const Node& list, std::string_view number) {
  std::size_t index = 0;
  std::from_chars(number.data(), number.data() + number.size(), index);
  return index >= 1 && index <= list.items.size() ? &list.items[index - 1] : nullptr;
}

}  // namespace

std::string FieldReader::needed_text(const Key& key) {
  if (key.sort == Key::Sort::whole) return "a whole number";
  if (key.sort == Key::Sort::list || key.sort == Key::Sort::words) return "a list";
  if (key.words.empty()) return "a number";
  return fmt::format("\"{}\"", fmt::join(words_of(key), "\", \""));
}

bool FieldReader::is_none(const char* key, const Node& node) const {
  return reader_.key(key).can_be_false && node.type == Node::Type::boolean && !node.boolean;
}

void FieldReader::may_be(const char* key, double& value) {
  if (const auto number = reader_.number(key)) value = *number;
}

void FieldReader::may_be(const char* key, Angle& value) {
  if (const auto number = reader_.number(key)) value = Angle::from_degrees(*number);
}

void FieldReader::may_be(const char* key, Duration& value) {
  if (const auto number = reader_.number(key)) value = Duration::from_seconds(*number);
}

void FieldReader::may_be(const char* key, int& value) {
  if (const auto number = reader_.whole(key)) value = static_cast<int>(*number);
}

void FieldReader::may_be(const char* key, std::uint64_t& value) {
  if (const auto number = reader_.whole(key)) value = static_cast<std::uint64_t>(*number);
}

void FieldReader::may_be(const char* key, bool& value) {
  value = reader_.truth(key, value);
}

void FieldReader::may_be(const char* name, std::vector<double>& values) {
  const Node* node = reader_.find(name);
  if (node == nullptr) return;
  const Key& key = reader_.key(name);
  const std::size_t count = reader_.items(name, key.count).size();
  if (node->type != Node::Type::array || count != node->items.size()) return;
  auto read = reader_.numbers(*node, reader_.path_of(name), count, key.allowed);
  if (read) values = std::move(*read);
}

void FieldReader::may_be(const char* key, std::vector<Angle>& values) {
  std::vector<double> degrees;
  may_be(key, degrees);
  for (const double one : degrees) values.push_back(Angle::from_degrees(one));
}

void FieldReader::may_be(const char* key, SideSet& sides) {
  if (reader_.find(key) == nullptr) return;
  sides.reset();
  for (const std::size_t side : reader_.words(key, "side")) sides.set(side);
}

void FieldReader::may_be(const char* key, StopSet& things) {
  if (reader_.find(key) == nullptr) return;
  things.reset();
  for (const std::size_t thing : reader_.words(key, "thing to stop called")) things.set(thing);
}

void FieldReader::may_be(const char* key, Vector3d& offset) {
  if (const auto read = reader_.numbers(key)) offset = {(*read)[0], (*read)[1], (*read)[2]};
}

void FieldReader::second_word(const char* key, bool& value) {
  if (const auto word = reader_.known_word(key)) value = *word == 1;
}

void FieldReader::text(const char* key, std::string& value) {
  value = reader_.text(key, value);
}

// What is wrong with it is told where kinds are merged with what they are like.
void FieldReader::like(const char* key, std::string& value) {
  const Node* node = reader_.find(key);
  if (node != nullptr && node->type == Node::Type::text) value = node->text;
}

void FieldReader::name(const char* key, std::string& value) {
  if (reader_.find(key) != nullptr) value = reader_.needed_name(key);
}

void FieldReader::needed_name(const char* key, std::string& value) {
  value = reader_.needed_name(key);
}

void FieldReader::names(const char* key, std::vector<std::string>& values) {
  values = reader_.names(key);
}

void FieldReader::tags(const char* key, std::vector<std::string>& values) {
  constexpr std::size_t kMost = 64;
  for (const Node& item : reader_.items(key, kMost)) {
    if (item.type == Node::Type::text && is_name(item.text)) {
      values.push_back(item.text);
    } else {
      reader_.fault(item.place, fmt::format("{} holds {}; letters, digits, _ and - are allowed",
                                            reader_.path_of(key), found(item)));
    }
  }
}

std::vector<std::string> FieldReader::known(const char* key, const std::vector<std::string>& names,
                                            std::string_view what) {
  std::vector<std::string> result;
  for (const Node& item : reader_.items(key, LevelLimits::list_items)) {
    static_cast<void>(reader_.reference(item, names, what));
    result.push_back(item.text);
  }
  return result;
}

void FieldReader::kinds(const char* key, std::vector<std::string>& values) {
  values = known(key, scope_.names.kinds, "kind");
}

void FieldReader::teams(const char* key, std::vector<std::string>& values) {
  values = known(key, scope_.names.teams, "team");
}

void FieldReader::agents(const char* key, std::vector<std::uint32_t>& values) {
  for (const Node& item : reader_.items(key, LevelLimits::list_items)) {
    values.push_back(reader_.reference(item, *scope_.agents, "agent"));
  }
}

void FieldReader::team(const char* key, std::uint32_t& value) {
  if (const Node* node = reader_.find(key)) {
    value = reader_.reference(*node, scope_.names.teams, "team");
  }
}

void FieldReader::material(const char* key, std::uint32_t& value) {
  value = reader_.reference(key, scope_.names.materials, "material");
}

void FieldReader::kind(const char* key, std::optional<std::uint32_t>& value) {
  const Node* node = reader_.find(key);
  if (node == nullptr) return;
  if (is_none(key, *node)) return;
  const std::uint32_t index = reader_.reference(*node, scope_.names.kinds, "kind");
  if (index != kNoSuch) value = index;
}

void FieldReader::pair(const char* key, double& low, double& high) {
  const auto read = reader_.numbers(key);
  if (!read) return;
  low = (*read)[0];
  high = (*read)[1];
}

void FieldReader::pair(const char* key, Angle& low, Angle& high) {
  double first = low.degrees();
  double second = high.degrees();
  pair(key, first, second);
  low = Angle::from_degrees(first);
  high = Angle::from_degrees(second);
}

void FieldReader::half(const char* key, std::optional<double>& value) {
  if (const auto whole = reader_.number(key)) value = *whole / 2.0;
}

void FieldReader::eye(const char* height_key, const char* key, std::optional<Vector3d>& value) {
  if (const auto height = reader_.number(height_key)) value = Vector3d{0.0, 0.0, *height};
  may_be(key, value);
  const Node* node = node_of(key);
  if (node == nullptr || node_of(height_key) == nullptr) return;
  fault(key, fmt::format("stands beside {}; one of them is allowed", height_key));
}

void FieldReader::axes(const char* key, std::optional<std::array<bool, 3>>& value) {
  if (reader_.find(key) == nullptr) return;
  const std::string text = reader_.text(key, "");
  const Node& node = *node_of(key);
  if (node.type != Node::Type::text) return;
  std::array<bool, 3> axes{};
  bool sound = !text.empty();
  for (const char letter : text) {
    const bool is_known = letter >= 'x' && letter <= 'z';
    sound = sound && is_known && !axes[static_cast<std::size_t>(letter - 'x')];
    if (is_known) axes[static_cast<std::size_t>(letter - 'x')] = true;
  }
  if (sound) {
    value = axes;
  } else {
    fault(key,
          fmt::format("is {}; some of the letters x, y and z are allowed, each once", found(node)));
  }
}

void FieldReader::solid_to(const char* key, SolidTo& value) {
  if (reader_.find(key) == nullptr) return;
  value = {false, false};
  for (const std::size_t word : reader_.words(key, "group")) {
    (word == 0 ? value.friends : value.foes) = true;
  }
}

void FieldReader::amounts(const char* key, std::map<std::string, double>& values) {
  const Node* amounts = table(key);
  if (amounts == nullptr) return;
  for (const Node::Entry& entry : amounts->entries) {
    const std::string path = reader_.path_of(key) + "." + entry.key;
    reader_.context().origins[path] = entry.value.place;
    values[entry.key] =
        reader_.number_at(entry.value, path, reader_.key(key).allowed).value_or(0.0);
  }
}

void FieldReader::side_factors(const char* key, std::array<double, 6>& values) {
  const Node* factors = table(key);
  if (factors == nullptr) return;
  FieldReader own(reader_.context(), *factors, reader_.path_of(key), kSideFactorKeys, scope_);
  for (std::size_t side = 0; side < values.size(); ++side) {
    own.may_be(kSideNames[side], values[side]);
  }
  own.finish({});
}

void FieldReader::pockets(const char* key, std::vector<Pocket>& values) {
  const Node* carried = table(key);
  if (carried == nullptr) return;
  for (const Node::Entry& entry : carried->entries) {
    Node name = entry.value;
    name.type = Node::Type::text;
    name.text = entry.key;
    name.place = entry.place;
    const std::uint32_t kind = reader_.reference(name, scope_.names.kinds, "kind");
    const std::string path = reader_.path_of(key) + "." + entry.key;
    reader_.context().origins[path] = entry.value.place;
    const auto count = reader_.whole_at(entry.value, path, reader_.key(key).allowed);
    if (kind != kNoSuch) values.push_back({kind, static_cast<int>(count.value_or(0))});
  }
}

void FieldReader::along(const char* key, Angle& toward, Angle& tilt) {
  const Node* along = reader_.find(key);
  if (along == nullptr) return;
  const std::vector<Feeler>& feelers = scope_.kind->feelers;
  std::vector<std::string> names;
  names.reserve(feelers.size());
  for (const Feeler& feeler : feelers) names.push_back(feeler.name);
  const std::uint32_t number = reader_.reference(*along, names, "feeler");
  if (number >= feelers.size()) return;
  toward = feelers[number].toward;
  tilt = feelers[number].tilt;
}

void FieldReader::lob(const char* key, Attack::Aim& aim) {
  if (const auto word = reader_.known_word(key)) {
    aim = *word == 1 ? Attack::Aim::high_lob : Attack::Aim::lob;
  }
}

void FieldReader::defeat_attack(const char* key, std::string& attack) {
  const Node* node = reader_.find(key);
  if (node == nullptr) return;
  std::vector<std::string> names;
  for (const Attack& one : scope_.kind->attacks) {
    if (is_made_at_defeat(one)) names.push_back(one.name);
  }
  const std::uint32_t number =
      reader_.reference(*node, names, "burst or shot ahead among its attacks called");
  if (number < names.size()) attack = names[number];
}

void FieldReader::attack(const char* key, std::string& attack) {
  const Node* node = reader_.find(key);
  if (node == nullptr) return;
  std::vector<std::string> names;
  for (const Attack& one : scope_.kind->attacks) names.push_back(one.name);
  const std::uint32_t number = reader_.reference(*node, names, "attack");
  if (number < names.size()) attack = names[number];
}

void FieldReader::when(const char* key, When& when) {
  if (const Node* node = table(key)) {
    when = read_when(reader_.context(), *node, reader_.path_of(key), scope_);
  }
}

void FieldReader::add_points(const char* key, std::vector<Vector2d>& points) {
  const bool is_path = std::string_view(key) == "path";
  const std::size_t most = is_path ? LevelLimits::path_points : LevelLimits::outline_points;
  for (const Node& item : reader_.items(key, most)) {
    const auto point = reader_.numbers(item, "a point of " + reader_.path_of(key), 2, kCoordinate);
    if (!point) return;
    points.emplace_back((*point)[0], (*point)[1]);
  }
}

void FieldReader::outline(const char* key, std::vector<Vector2d>& points) {
  if (reader_.need(key, "a list of points") != nullptr) add_points(key, points);
}

void FieldReader::may_be_outline(const char* key, std::vector<Vector2d>& points) {
  if (reader_.find(key) != nullptr) add_points(key, points);
}

void FieldReader::point3(const char* key, Vector3d& point) {
  const Node* node = reader_.need(key, "a point [x, y, z]");
  if (node == nullptr) return;
  const auto read = reader_.numbers(*node, reader_.path_of(key), 3, kCoordinate);
  if (read) point = {(*read)[0], (*read)[1], (*read)[2]};
}

// Two numbers, in space three; in ground levels it lies on the ground.
std::optional<Vector3d> FieldReader::read_point(const Node& node, const std::string& path) {
  const std::size_t count = scope_.plane == Plane::space ? 3 : 2;
  const auto p = reader_.numbers(node, path, count, kCoordinate);
  if (!p) return std::nullopt;
  switch (scope_.plane) {
    case Plane::ground:
      return Vector3d{(*p)[0], (*p)[1], scope_.ground_height};
    case Plane::upright:
      return Vector3d{(*p)[0], 0.0, (*p)[1]};
    default:
      return Vector3d{(*p)[0], (*p)[1], (*p)[2]};
  }
}

void FieldReader::point(const char* key, Vector3d& point) {
  // Who follows a track begins where that begins.
  const bool is_of_track = node_of("track") != nullptr && std::string_view(key) == "at";
  if (is_of_track && reader_.find(key) == nullptr) return;
  const Node* node = reader_.need(key, "a place");
  const auto read = node != nullptr ? read_point(*node, reader_.path_of(key)) : std::nullopt;
  if (read) point = *read;
}

void FieldReader::only_true(const char* key) {
  const Node* node = reader_.find(key);
  if (node->type == Node::Type::boolean && node->boolean) return;
  fault(key, fmt::format("is {}; true is allowed", found(*node)));
}

// In upright levels solids and zones are endless across the view.
void FieldReader::rise(std::optional<double>& base, double& height) {
  if (scope_.plane == Plane::upright) return;
  (*this)("base", base);
  (*this)("height", height);
}

void FieldReader::slab(const char* top_key, const char* thickness_key, std::optional<double>& base,
                       double& height) {
  const auto top = reader_.number(top_key);
  (*this)(thickness_key, height);
  if (top) base = *top - height;
}

void FieldReader::needs(const char* key, const char* other, std::string_view what) {
  if (node_of(key) == nullptr || node_of(other) != nullptr) return;
  fault(key, fmt::format("needs {}: {}", other, what));
}

const Node* FieldReader::table(const char* key) {
  const Node* node = reader_.find(key);
  const bool is_there = node != nullptr && is_table(reader_, *node, reader_.path_of(key));
  return is_there ? node : nullptr;
}

// "move.step_height" is found in a table of this one, "script[2]" in a list.
const Node* FieldReader::node_of(std::string_view key) const {
  const Node* node = &reader_.table();
  while (node != nullptr && !key.empty()) {
    const std::string_view part = key.substr(0, key.find('.'));
    const std::size_t bracket = std::min(part.find('['), part.size());
    node = node->find(part.substr(0, bracket));
    if (node != nullptr && bracket < part.size()) {
      node = item_of(*node, part.substr(bracket + 1));
    }
    key.remove_prefix(std::min(part.size() + 1, key.size()));
  }
  return node;
}

void FieldReader::fault(std::string_view key, const std::string& what) {
  const Node* node = node_of(key);
  const std::string path = key.empty() ? reader_.path() : reader_.path_of(std::string(key));
  reader_.fault(node != nullptr ? node->place : reader_.table().place, path + " " + what);
}

// Without what tells which keys it has, there is no telling which of them are right. Where a value
// is wrong already, no rule is told that follows from it.
void FieldReader::finish(const std::vector<Broken>& broken) {
  if (!is_unclear_) reader_.finish();
  for (const Broken& one : broken) {
    const Node* node = node_of(one.key);
    if (node != nullptr && !reader_.context().faults.has_in(*node)) fault(one.key, one.what);
  }
}

}  // namespace gaze
