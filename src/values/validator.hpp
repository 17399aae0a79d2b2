#pragma once

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "level/spelling.hpp"
#include "values/fault_list.hpp"
#include "values/fields.hpp"
#include "values/keys.hpp"
#include "values/ranges.hpp"
#include "values/rules.hpp"

namespace gaze {

/// Looks at the values of one part.
class Validator {
 public:
  Validator(FaultList& faults, const Level& level, std::string path, const KeyTable& keys,
            const Place& written)
      : faults_(faults), level_(level), path_(std::move(path)), keys_(keys), written_(written) {}

  template <typename Part>
  void check(const Part& part) {
    fields(*this, part);
    if (has_fault_) return;  // no rule is told that follows from a wrong value
    for (const Broken& one : broken_rules(part)) fault(one.key, one.what);
  }

  void operator()(const char* key, double value) { number(key, value); }
  void operator()(const char* key, const Angle& value) { number(key, value.degrees()); }
  void operator()(const char* key, const Duration& value) { number(key, value.seconds()); }
  void operator()(const char* key, int value) { whole(key, value); }
  void operator()(const char* key, std::uint64_t value) {
    if (!(static_cast<double>(value) < kWithoutEnd)) whole(key, -1);
  }
  void operator()(const char*, bool) {}
  void operator()(const char*, const SideSet&) {}
  void operator()(const char*, const StopSet&) {}
  void operator()(const char* key, const Vector3d& offset) {
    for (int i = 0; i < 3; ++i) number(key, offset[i]);
  }
  void operator()(const char* key, const std::vector<double>& values) { list(key, values); }
  void operator()(const char* key, const std::vector<Angle>& values) {
    std::vector<double> degrees;
    degrees.reserve(values.size());
    for (const Angle& angle : values) degrees.push_back(angle.degrees());
    list(key, degrees);
  }
  template <typename T>
  void operator()(const char* key, const std::optional<T>& value) {
    may_follow_ = true;
    if (value) (*this)(key, *value);
    may_follow_ = false;
    if (!value && keys_.key(key).must_be_given()) fault(key, "is missing: it must be given");
  }
  template <typename Word>
  requires std::is_enum_v<Word>
  void operator()(const char* key, Word value) {
    const auto number = static_cast<std::size_t>(value);
    const std::vector<std::string> words = words_of(keys_.key(key));
    if (number >= words.size()) fault(key, no_word(number, words));
  }
  template <typename T>
  void needed(const char* key, const T& value) {
    (*this)(key, value);
  }
  void may_be(const char* key, double value) {
    if (value != 0.0) number(key, value);
  }
  template <typename T>
  void may_be(const char* key, const std::optional<T>& value) {
    if (value) (*this)(key, *value);
  }

  void second_word(const char*, bool) {}
  void text(const char*, const std::string&) {}
  void like(const char*, const std::string&) {}
  void name(const char* key, const std::string& value) {
    if (!value.empty()) needed_name(key, value);
  }
  void needed_name(const char* key, const std::string& value) {
    if (is_name(value) || (value.empty() && !needs_ids)) return;
    fault(key, fmt::format("is \"{}\"; letters, digits, _ and - are allowed", value));
  }
  void names(const char* key, const std::vector<std::string>& values) {
    if (values.size() <= LevelLimits::list_items) return;
    fault(key, fmt::format("has {} items; at most {} are allowed", values.size(),
                           LevelLimits::list_items));
  }
  void tags(const char* key, const std::vector<std::string>& values) {
    names(key, values);
    for (const std::string& value : values) needed_name(key, value);
  }
  void kinds(const char* key, const std::vector<std::string>& values) {
    for (const std::string& value : values) {
      known(key, value, level_.kinds, "kind");
    }
  }
  void teams(const char* key, const std::vector<std::string>& values) {
    for (const std::string& value : values) known(key, value, level_.teams, "team");
  }

  void agents(const char* key, const std::vector<std::uint32_t>& values) {
    for (const std::uint32_t value : values) index(key, value, level_.agents.size(), "agent");
  }
  void team(const char* key, std::uint32_t value) {
    if (value != kNoTeam) index(key, value, level_.teams.size(), "team");
  }
  void material(const char* key, std::uint32_t value) {
    index(key, value, level_.materials.size(), "material");
  }
  void kind(const char* key, std::uint32_t value) {
    index(key, value, level_.kinds.size(), "kind");
  }
  void kind(const char* key, const std::optional<std::uint32_t>& value) {
    if (value) kind(key, *value);
  }

  void pair(const char* key, double low, double high) {
    number(key, low);
    number(key, high);
  }
  void pair(const char* key, const Angle& low, const Angle& high) {
    pair(key, low.degrees(), high.degrees());
  }
  void half(const char* key, const std::optional<double>& value) {
    if (value) number(key, 2.0 * *value);
  }
  void eye(const char*, const char* key, const std::optional<Vector3d>& value) {
    (*this)(key, value);
  }
  void axes(const char* key, const std::optional<std::array<bool, 3>>& value) {
    if (value && !(*value)[0] && !(*value)[1] && !(*value)[2]) {
      fault(key, "has none of x, y and z; some of them are needed");
    }
  }
  void solid_to(const char*, const SolidTo&) {}
  void amounts(const char* key, const std::map<std::string, double>& values) {
    for (const auto& [name, value] : values) number_at(key, "." + name, value);
  }
  void side_factors(const char* key, const std::array<double, 6>& values) {
    for (std::size_t side = 0; side < values.size(); ++side) {
      number_at(key, fmt::format(".{}", kSideNames[side]), values[side]);
    }
  }
  void pockets(const char* key, const std::vector<Pocket>& values) {
    for (const Pocket& pocket : values) {
      kind(key, pocket.kind);
      number(key, pocket.count);
    }
  }
  void along(const char* key, const Angle& toward, const Angle& tilt) {
    if (!kTurn.holds(toward.degrees())) fault(key, out_of(toward.degrees(), kTurn));
    if (!kTilt.holds(tilt.degrees())) fault(key, out_of(tilt.degrees(), kTilt));
  }
  void lob(const char* key, Attack::Aim aim) {
    if (aim != Attack::Aim::lob && aim != Attack::Aim::high_lob) {
      fault(key, "is neither lob nor high_lob: things are thrown in an arc");
    }
  }
  void defeat_attack(const char* key, const std::string& attack) { own_attack(key, attack, true); }
  void attack(const char* key, const std::string& attack) { own_attack(key, attack, false); }
  void mode(const char* key, const std::optional<Mode>& mode) { (*this)(key, mode); }
  void when(const char* key, const When& when);

  void outline(const char* key, const std::vector<Vector2d>& points) {
    const bool is_path = std::string_view(key) == "path";
    const std::size_t most = is_path ? LevelLimits::path_points : LevelLimits::outline_points;
    if (points.size() > most) {
      fault(key, fmt::format("has {} items; at most {} are allowed", points.size(), most));
    }
    for (const Vector2d& p : points) {
      coordinate(key, p.x());
      coordinate(key, p.y());
    }
  }
  void may_be_outline(const char* key, const std::vector<Vector2d>& points) {
    outline(key, points);
  }
  void point3(const char* key, const Vector3d& point) {
    for (int i = 0; i < 3; ++i) coordinate(key, point[i]);
  }
  // In an upright level all points lie in its plane.
  void point(const char* key, const Vector3d& point) {
    point3(key, point);
    if (level_.plane != Plane::upright || point.y() == 0.0) return;
    fault(key, fmt::format("has a y of {}; 0 is allowed in an upright level", point.y()));
  }
  void rise(const std::optional<double>& base, double height) {
    if (level_.plane == Plane::upright) return;
    (*this)("base", base);
    (*this)("height", height);
  }
  void slab(const char* top_key, const char* thickness_key, const std::optional<double>& base,
            double thickness) {
    (*this)(thickness_key, thickness);
    if (base) coordinate(top_key, *base + thickness);
  }
  void triangles(const Solid& solid);
  void patrol(const char* key, const std::vector<Vector3d>& points,
              const std::vector<PatrolStop>& stops);
  void script(const char* key, const std::vector<ScriptStep>& steps);
  void only_true(const char*) {}
  void track(const char* key, const std::shared_ptr<const Track>& track);
  void picks(const char* key, const std::vector<EventPick>& picks);
  void settings(const char*, const std::map<std::string, std::string>&) {}
  void needs(const char*, const char*, std::string_view) {}

  template <typename Part>
  void part(const char* key, const std::optional<Part>& part) {
    if (part) this->part(key, *part);
  }
  template <typename Part>
  void part(const char* key, const Part& part) {
    check_part(path_of(key), *table_of_kind(key), part);
  }
  template <typename Part>
  void parts(const char* key, const std::vector<Part>& parts) {
    std::set<std::string_view> names;
    for (const Part& part : parts) {
      const std::string path = path_of(key) + "." + part.name;
      if (!is_name(part.name)) {
        fault(key, fmt::format("has one called \"{}\"; letters, digits, _ and - are allowed",
                               part.name));
      }
      if (!names.insert(part.name).second) {
        fault(key, fmt::format("has two called '{}'", part.name));
      }
      check_part(path, *table_of_kind(key), part);
    }
  }

  /// Whose table it is, for what names its own attacks and feelers.
  const Kind* own_kind = nullptr;
  bool needs_ids = true;  ///< False: what goes by numbers alone may have no name.

 private:
  template <typename Part>
  void check_part(std::string path, const KeyTable& keys, const Part& part) {
    Validator own(faults_, level_, std::move(path), keys, written_);
    own.own_kind = own_kind;
    own.check(part);
  }

  std::string path_of(std::string_view key) const {
    if (key.empty()) return path_;
    return path_.empty() ? std::string(key) : fmt::format("{}.{}", path_, key);
  }
  void fault(std::string_view key, const std::string& what) {
    const std::string path = path_of(key);
    has_fault_ = true;
    faults_.add(path, written_, path + " " + what);
  }

  static std::string out_of(double value, const Allowed& allowed) {
    return fmt::format("is {}; {}", value, allowed.text_for(value));
  }
  static std::string no_word(std::size_t number, const std::vector<std::string>& words) {
    return fmt::format("is number {} of a list of {}; allowed: \"{}\"", number, words.size(),
                       fmt::join(words, "\", \""));
  }

  // 0 stands for what is left out where nothing else does.
  void number(const char* name, double value) { number_at(name, "", value); }
  void number_at(const char* name, const std::string& rest, double value) {
    const Key& key = keys_.key(name);
    const bool is_left_out = value == 0.0 && !key.left_out.number && !key.must_be_given();
    const bool is_right = may_follow_ ? key.allowed.reaches_to(value) : key.allowed.holds(value);
    if (is_left_out || is_right) return;
    fault(name + rest, out_of(value, key.allowed));
  }
  void whole(const char* name, std::int64_t value) {
    const Allowed& allowed = keys_.key(name).allowed;
    if (allowed.holds(static_cast<double>(value))) return;
    fault(name,
          fmt::format("is {}; {:.0f} to {:.0f} is allowed", value, allowed.low, allowed.high));
  }
  void coordinate(const char* key, double value) {
    if (!kCoordinate.holds(value)) fault(key, out_of(value, kCoordinate));
  }
  void list(const char* name, const std::vector<double>& values) {
    const Key& key = keys_.key(name);
    if (values.size() > key.count) {
      fault(name, fmt::format("has {} items; at most {} are allowed", values.size(), key.count));
    }
    for (const double value : values) number(name, value);
  }
  void index(const char* key, std::uint32_t value, std::size_t count, std::string_view what) {
    if (value < count) return;
    fault(key, fmt::format("is {} number {}; there are {}, from 0 on", what, value, count));
  }
  template <typename List>
  void known(const char* key, const std::string& name, const List& list, std::string_view what) {
    std::vector<std::string> names;
    names.reserve(list.size());
    for (const auto& one : list) names.push_back(one.name);
    if (std::find(names.begin(), names.end(), name) != names.end()) return;
    fault(key,
          fmt::format("holds '{}'; there is no such {}{}", name, what, suggestion(name, names)));
  }
  void own_attack(const char* key, const std::string& name, bool is_at_defeat) {
    if (name.empty() || own_kind == nullptr) return;
    for (const Attack& attack : own_kind->attacks) {
      if (attack.name == name && (!is_at_defeat || is_made_at_defeat(attack))) return;
    }
    fault(key, fmt::format("is '{}'; there is no {} of that name", name,
                           is_at_defeat ? "burst or shot ahead among its attacks" : "attack"));
  }
  void rule_name(const Rule& rule, const std::string& path);

  FaultList& faults_;
  const Level& level_;
  std::string path_;
  const KeyTable& keys_;
  const Place& written_;
  bool has_fault_ = false;
  bool may_follow_ = false;  ///< The value may have been put in where it was left out.
};

}  // namespace gaze
