#include <fmt/format.h>

#include <algorithm>

#include "file/read.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

/// Reads one table of a kind by its own reader, which it finishes.
class SenseReader {
 public:
  SenseReader(ReadContext& context, const Node& table, const std::string& path, const Kind& kind,
              const Names& names, Plane plane, const KeyTable& keys)
      : reader_(context, table, path, keys), kind_(kind), names_(names), plane_(plane) {}

  Sight sight() {
    Sight sight;
    sight.range = reader_.needed_number("range");
    sight.field_of_view = Angle::from_degrees(reader_.needed_number("field_of_view"));
    const auto keep_range = reader_.optional_number("keep_range");
    sight.keep_range = keep_range.value_or(sight.range);
    read_eye(sight);
    sight.notice_time = reader_.duration("notice_time");
    sight.remember = reader_.duration("remember");
    read_vertical_field(sight);
    sight.tilt = tilt();
    sight.near_ring = reader_.number("near_ring");
    sight.visible_at_least = reader_.number("visible_at_least");
    sight.measure = reader_.word_as<Measure>("measure");
    sight.fade_from = reader_.number("fade_from");
    sight.ebb_time = reader_.duration("ebb_time");
    reader_.finish();
    // If the range itself is at fault, that alone is told.
    const Node* range = reader_.table().find("range");
    const bool has_range = range != nullptr && kRange.holds(range->number);
    if (keep_range && has_range && sight.keep_range < sight.range) {
      fault("keep_range", fmt::format("is {}; at least the range of {} m is allowed",
                                      sight.keep_range, sight.range));
    }
    return sight;
  }

  Scan scan() {
    Scan scan;
    reader_.need("style", "\"sweep\", \"round\" or \"list\"");
    const auto style = reader_.word("style");
    scan.style = static_cast<Scan::Style>(style.value_or(0));
    scan.rate = Angle::from_degrees(reader_.needed_number("rate"));
    scan.pause = reader_.duration("pause");
    if (scan.style == Scan::Style::sweep) {
      scan.arc = Angle::from_degrees(reader_.needed_number("arc"));
    }
    if (scan.style == Scan::Style::list) read_headings(scan);
    if (style) reader_.finish();
    return scan;
  }

  Head head() {
    Head head;
    head.turn_rate = reader_.degrees("turn_rate");
    if (reader_.find("limits") != nullptr) {
      const auto values = reader_.numbers("limits");
      if (values && !((*values)[0] <= 0.0 && 0.0 <= (*values)[1])) {
        fault("limits", fmt::format("is [{}, {}]; the first must be 0 or less and the second 0 or "
                                    "more: straight ahead lies between them",
                                    (*values)[0], (*values)[1]));
      } else if (values) {
        head.low = Angle::from_degrees((*values)[0]);
        head.high = Angle::from_degrees((*values)[1]);
      }
    }
    reader_.finish();
    return head;
  }

  Hearing hearing() {
    Hearing hearing;
    hearing.range = reader_.needed_number("range");
    hearing.acuity = reader_.number("acuity");
    hearing.around_corners = reader_.truth("around_corners");
    hearing.own = reader_.truth("own");
    hearing.friends = reader_.truth("friends");
    hearing.remember = reader_.duration("remember");
    reader_.finish();
    return hearing;
  }

  Feeler feeler(const std::string& name) {
    Feeler feeler;
    feeler.name = name;
    feeler.from = read_offset(reader_, "from", {0.0, 0.0, kind_.height / 2.0});
    feeler.toward = reader_.degrees("toward");
    feeler.tilt = tilt();
    feeler.length = reader_.needed_number("length");
    feeler.thickness = reader_.number("thickness");
    feeler.finds = reader_.word_as<Feeler::Finds>("finds");
    feeler.stopped_by = reader_.word_as<Stops>("stopped_by");
    feeler.turns_with_head = reader_.word("turns") == std::size_t{1};
    feeler.remember = reader_.duration("remember");
    reader_.finish();
    return feeler;
  }

  Nearness nearness() {
    Nearness nearness;
    nearness.range = reader_.needed_number("range");
    nearness.axes = {true, plane_ != Plane::upright, plane_ != Plane::ground};
    read_axes(nearness);
    nearness.once = reader_.truth("once");
    nearness.remember = reader_.duration("remember");
    reader_.finish();
    return nearness;
  }

  TouchSense touch() {
    TouchSense touch;
    touch.sides = read_sides(reader_);
    touch.remember = reader_.duration("remember");
    reader_.finish();
    return touch;
  }

  HurtSense hurt() {
    HurtSense hurt;
    hurt.remember = reader_.duration("remember");
    reader_.finish();
    return hurt;
  }

  Tell tell() {
    Tell tell;
    tell.range = reader_.needed_number("range");
    tell.delay = reader_.duration("delay");
    tell.remember = reader_.duration("remember");
    reader_.finish();
    return tell;
  }

  Choose choose() {
    Choose choose;
    choose.by = reader_.word_as<Choose::By>("by");
    choose.stick = reader_.number("stick");
    choose.tags = read_tags(reader_, "tags");
    choose.kinds = known("kinds", names_.kinds, "kind");
    choose.teams = known("teams", names_.teams, "team");
    reader_.finish();
    return choose;
  }

 private:
  bool has(const std::string& key) const { return reader_.table().find(key) != nullptr; }

  void fault(const std::string& key, const std::string& what) {
    reader_.fault(reader_.table().find(key)->place,
                  fmt::format("{} {}", reader_.path_of(key), what));
  }

  void read_eye(Sight& sight) {
    const double height = reader_.number("eye_height", kEyeShare * kind_.height);
    sight.eye = read_offset(reader_, "eye", {0.0, 0.0, height});
    if (has("eye") && has("eye_height")) {
      fault("eye", "stands beside eye_height; one of them is allowed");
    }
  }

  Angle tilt() { return reader_.degrees("tilt"); }

  void read_vertical_field(Sight& sight) {
    const auto full = reader_.optional_number("vertical_field_of_view");
    if (full) sight.vertical_field_of_view = Angle::from_degrees(*full);
  }

  void read_headings(Scan& scan) {
    const Node* node = reader_.need("headings", "a list of degrees");
    if (node == nullptr) return;
    const Key& key = reader_.key("headings");
    const std::size_t count = reader_.items("headings", key.count).size();
    if (node->type != Node::Type::array) return;
    if (count == 0) fault("headings", "is empty; 1 to 1000 are allowed");
    const auto headings = reader_.numbers(*node, reader_.path_of("headings"), count, key.allowed);
    for (const double heading : headings.value_or(std::vector<double>{0.0})) {
      scan.headings.push_back(Angle::from_degrees(heading));
    }
  }

  void read_axes(Nearness& nearness) {
    if (!has("axes")) return;
    const std::string text = reader_.text("axes", "");
    const Node& node = *reader_.table().find("axes");
    if (node.type != Node::Type::text) return;
    std::array<bool, 3> axes{};
    bool sound = !text.empty();
    for (const char letter : text) {
      const bool known_letter = letter >= 'x' && letter <= 'z';
      sound = sound && known_letter && !axes[static_cast<std::size_t>(letter - 'x')];
      if (known_letter) axes[static_cast<std::size_t>(letter - 'x')] = true;
    }
    if (sound) {
      nearness.axes = axes;
    } else {
      fault("axes", fmt::format("is {}; some of the letters x, y and z are allowed, each once",
                                found(node)));
    }
  }

  std::vector<std::string> known(const std::string& key, const std::vector<std::string>& names,
                                 std::string_view what) {
    std::vector<std::string> result;
    for (const Node& item : reader_.items(key, ReadLimits::list_items)) {
      static_cast<void>(reader_.reference(item, names, what));
      result.push_back(item.text);
    }
    return result;
  }

  TableReader reader_;
  const Kind& kind_;
  const Names& names_;
  Plane plane_;
};

}  // namespace

SideSet read_sides(TableReader& reader) {
  if (reader.table().find("sides") == nullptr) {
    reader.find("sides");
    return TouchSense{}.sides;
  }
  SideSet result;
  for (const std::size_t side : reader.words("sides", "side")) result.set(side);
  return result;
}

bool is_table(TableReader& reader, const Node& node, const std::string& path) {
  if (node.type == Node::Type::table) return true;
  reader.fault(node.place, fmt::format("{} is {}; a table is needed", path, found(node)));
  return false;
}

Vector3d read_offset(TableReader& reader, const std::string& key, const Vector3d& fallback) {
  const auto place = reader.numbers(key);
  return place ? Vector3d{(*place)[0], (*place)[1], (*place)[2]} : fallback;
}

std::vector<std::string> read_tags(TableReader& reader, const std::string& key) {
  std::vector<std::string> tags;
  for (const Node& item : reader.items(key, 64)) {
    if (item.type == Node::Type::text && is_name(item.text)) {
      tags.push_back(item.text);
    } else {
      reader.fault(item.place, fmt::format("{} holds {}; letters, digits, _ and - are allowed",
                                           reader.path_of(key), found(item)));
    }
  }
  return tags;
}

void read_senses(ReadContext& context, TableReader& reader, Kind& kind, const Names& names,
                 Plane plane) {
  const auto read = [&](const std::string& key, auto&& part) {
    const Node* node = reader.find(key);
    if (node == nullptr || !is_table(reader, *node, reader.path_of(key))) return;
    SenseReader sense(context, *node, reader.path_of(key), kind, names, plane, *table_of_kind(key));
    part(sense);
  };
  read("sight", [&](SenseReader& sense) { kind.sight = sense.sight(); });
  read("scan", [&](SenseReader& sense) { kind.scan = sense.scan(); });
  read("head", [&](SenseReader& sense) { kind.head = sense.head(); });
  read("hearing", [&](SenseReader& sense) { kind.hearing = sense.hearing(); });
  read("nearness", [&](SenseReader& sense) { kind.nearness = sense.nearness(); });
  read("touch", [&](SenseReader& sense) { kind.touch = sense.touch(); });
  read("hurt", [&](SenseReader& sense) { kind.hurt = sense.hurt(); });
  read("tell", [&](SenseReader& sense) { kind.tell = sense.tell(); });
  read("choose", [&](SenseReader& sense) { kind.choose = sense.choose(); });
  const Node* feelers = reader.find("feeler");
  const std::string path = reader.path_of("feeler");
  if (feelers == nullptr || !is_table(reader, *feelers, path)) return;
  for (const Node::Entry& entry : feelers->entries) {
    const std::string own_path = fmt::format("{}.{}", path, entry.key);
    if (entry.value.type == Node::Type::boolean && !entry.value.boolean) continue;  // taken away
    if (!is_table(reader, entry.value, own_path)) continue;
    SenseReader sense(context, entry.value, own_path, kind, names, plane, kFeelerKeys);
    kind.feelers.push_back(sense.feeler(entry.key));
  }
  if (kind.feelers.size() > 32) {
    reader.fault(feelers->place, fmt::format("{} holds {} feelers; at most 32 are allowed", path,
                                             kind.feelers.size()));
  }
}

}  // namespace gaze
