#pragma once

#include <cmath>
#include <limits>

#include "scenes.hpp"
#include "values/fields.hpp"

namespace gaze::fuzz {

/// Goes through the fields of a part, and puts into one of them something that hardly belongs
/// there: no number, an end of all numbers, a word or an index that is none, a list that is empty.
class Spoiler {
 public:
  /// @param at  Which of the fields it spoils; beyond the last it only counts.
  Spoiler(scenes::Random& random, std::size_t at) : random_(random), at_(at) {}

  std::size_t count() const { return count_; }

  void operator()(const char*, double& value) {
    if (!is_it()) return;
    constexpr double kInfinity = std::numeric_limits<double>::infinity();
    constexpr double kNone = std::numeric_limits<double>::quiet_NaN();
    const double kValues[] = {kNone, kInfinity, -kInfinity, 0.0,  -1.0,  1e-12, 1e-6,
                              0.5,   1.0,       3.0,        1e3,  2e4,   1e9,   1e300,
                              -0.0,  -1e9,      360.0,      90.0, -90.0, 2.5e5, value * 2.0};
    value = kValues[random_.next() % std::size(kValues)];
  }
  void operator()(const char* key, Angle& value) {
    double degrees = value.degrees();
    (*this)(key, degrees);
    value = Angle::from_degrees(degrees);
  }
  void operator()(const char*, Duration& value) {
    if (!is_it()) return;
    const std::int64_t kValues[] = {0,
                                    -1,
                                    1,
                                    1'000'000,
                                    1'000'000'000,
                                    std::numeric_limits<std::int64_t>::max(),
                                    std::numeric_limits<std::int64_t>::min(),
                                    value.nanoseconds * 3};
    value.nanoseconds = kValues[random_.next() % std::size(kValues)];
  }
  void operator()(const char*, int& value) {
    if (!is_it()) return;
    const int kValues[] = {0,
                           -1,
                           1,
                           7,
                           1000,
                           1'000'000,
                           std::numeric_limits<int>::max(),
                           std::numeric_limits<int>::min()};
    value = kValues[random_.next() % std::size(kValues)];
  }
  void operator()(const char*, std::uint64_t& value) {
    if (is_it()) value = random_.next() % 2 == 0 ? 0 : ~std::uint64_t{0};
  }
  void operator()(const char*, bool& value) {
    if (is_it()) value = !value;
  }
  void operator()(const char*, SideSet& value) {
    if (is_it()) value = SideSet(random_.next());
  }
  void operator()(const char*, StopSet& value) {
    if (is_it()) value = StopSet(random_.next());
  }
  void operator()(const char* key, Vector3d& value) { (*this)(key, value[random_.next() % 3]); }
  template <typename T>
  void operator()(const char* key, std::vector<T>& values) {
    spoil_list(key, values);
  }
  template <typename T>
  void operator()(const char* key, std::optional<T>& value) {
    if (value && random_.next() % 4 != 0) return (*this)(key, *value);
    if (!is_it()) return;
    if (value) return value.reset();
    Spoiler own(random_, random_.next() % 2);  // a value that does not stand there otherwise
    own(key, value.emplace());
  }
  template <typename Word>
  requires std::is_enum_v<Word>
  void operator()(const char*, Word& value) {
    if (is_it()) value = static_cast<Word>(random_.next() % (random_.next() % 3 == 0 ? 256 : 6));
  }
  template <typename T>
  void needed(const char* key, T& value) {
    (*this)(key, value);
  }
  template <typename T>
  void may_be(const char* key, T& value) {
    (*this)(key, value);
  }

  void second_word(const char* key, bool& value) { (*this)(key, value); }
  void text(const char*, std::string& value) {
    if (!is_it()) return;
    const char* const kTexts[] = {"", "pruner", "a b", "nobody", "\x01\xff", "hedge"};
    value = kTexts[random_.next() % std::size(kTexts)];
  }
  void like(const char* key, std::string& value) { text(key, value); }
  void name(const char* key, std::string& value) { text(key, value); }
  void needed_name(const char* key, std::string& value) { text(key, value); }
  void names(const char* key, std::vector<std::string>& values) {
    if (!values.empty()) return text(key, values[random_.next() % values.size()]);
    if (is_it()) values.emplace_back("pruner");
  }
  void tags(const char* key, std::vector<std::string>& values) { names(key, values); }
  void kinds(const char* key, std::vector<std::string>& values) { names(key, values); }
  void teams(const char* key, std::vector<std::string>& values) { names(key, values); }
  void agents(const char* key, std::vector<std::uint32_t>& values) {
    if (!values.empty()) index(key, values[0]);
  }
  void team(const char* key, std::uint32_t& value) { index(key, value); }
  void material(const char* key, std::uint32_t& value) { index(key, value); }
  void kind(const char* key, std::uint32_t& value) { index(key, value); }
  void kind(const char* key, std::optional<std::uint32_t>& value) {
    if (value) return index(key, *value);
    if (is_it()) value = static_cast<std::uint32_t>(random_.next() % 3);
  }

  template <typename T>
  void pair(const char* key, T& low, T& high) {
    (*this)(key, random_.next() % 2 == 0 ? low : high);
  }
  void half(const char* key, std::optional<double>& value) { (*this)(key, value); }
  void eye(const char*, const char* key, std::optional<Vector3d>& value) { (*this)(key, value); }
  void axes(const char*, std::optional<std::array<bool, 3>>& value) {
    if (is_it()) value = std::array<bool, 3>{false, random_.next() % 2 == 0, false};
  }
  void solid_to(const char* key, SolidTo& value) { (*this)(key, value.friends); }
  void amounts(const char* key, std::map<std::string, double>& values) {
    if (!values.empty()) return (*this)(key, values.begin()->second);
    if (is_it()) values["fire"] = -200.0;
  }
  void track(const char* key, std::shared_ptr<const Track>& track) {
    Track own;
    if (track) own = *track;
    if (own.points.empty() || random_.next() % 8 == 0) own.points.resize(random_.next() % 3);
    if (!own.points.empty()) {
      TrackPoint& point = own.points[random_.next() % own.points.size()];
      (*this)(key, point.seconds);
      (*this)(key, point.place);
      (*this)(key, point.fires);
      (*this)(key, point.facing);
      (*this)(key, point.aim);
    }
    if (track || random_.next() % 16 == 0) track = std::make_shared<const Track>(std::move(own));
  }
  void picks(const char*, std::vector<EventPick>& picks) {
    if (!picks.empty()) fields(*this, picks[random_.next() % picks.size()]);
    if (is_it()) picks.resize(random_.next() % 4);
  }
  void settings(const char*, std::map<std::string, std::string>& settings) {
    if (is_it()) settings["kind.nobody.sight"] = "{";
  }
  void side_factors(const char* key, std::array<double, 6>& values) {
    (*this)(key, values[random_.next() % 6]);
  }
  void pockets(const char* key, std::vector<Pocket>& values) {
    if (values.empty()) {
      if (is_it()) values.emplace_back();
      return;
    }
    kind(key, values[0].kind);
    (*this)(key, values[0].count);
  }
  void along(const char* key, Angle& toward, Angle& tilt) { pair(key, toward, tilt); }
  void lob(const char* key, Attack::Aim& aim) { (*this)(key, aim); }
  void defeat_attack(const char* key, std::string& attack) { text(key, attack); }
  void attack(const char* key, std::string& attack) { text(key, attack); }
  void mode(const char* key, std::optional<Mode>& mode) { (*this)(key, mode); }
  void when(const char* key, When& when) {
    if (is_it()) when.rules.emplace_back().cause = static_cast<Cause>(random_.next() % 20);
    (*this)(key, when.idle);
    for (Rule& rule : when.rules) {
      (*this)(key, rule.cause);
      text(key, rule.name);
      fields(*this, rule.reaction);
    }
  }

  void outline(const char*, std::vector<Vector2d>& points) {
    if (!is_it() || points.empty()) return;
    const double kValues[] = {std::numeric_limits<double>::quiet_NaN(), 1e300, 3e4, 0.0};
    switch (random_.next() % 4) {
      case 0:
        points.pop_back();
        break;
      case 1:
        points.push_back(points[random_.next() % points.size()]);
        break;
      case 2:
        points.clear();
        break;
      default:
        points[0].x() = kValues[random_.next() % std::size(kValues)];
    }
  }
  void may_be_outline(const char* key, std::vector<Vector2d>& points) { outline(key, points); }
  void point3(const char* key, Vector3d& point) { (*this)(key, point); }
  void point(const char* key, Vector3d& point) { (*this)(key, point); }
  void rise(std::optional<double>& base, double& height) {
    (*this)("base", base);
    (*this)("height", height);
  }
  void slab(const char*, const char*, std::optional<double>& base, double& height) {
    rise(base, height);
  }
  void triangles(Solid& solid) {
    if (!solid.triangles.empty()) (*this)("", solid.triangles[0][0]);
    if (is_it()) solid.triangles.clear();
  }
  void patrol(const char* key, std::vector<Vector3d>& points, std::vector<PatrolStop>& stops) {
    if (is_it()) stops.emplace_back();
    if (!points.empty()) point(key, points[0]);
    for (PatrolStop& stop : stops) fields(*this, stop);
  }
  void script(const char* key, std::vector<ScriptStep>& steps) {
    if (is_it()) steps.emplace_back().what = static_cast<ScriptStep::What>(random_.next() % 14);
    for (ScriptStep& step : steps) {
      (*this)(key, step.what);
      fields(*this, step);
    }
  }
  void only_true(const char*) {}
  void needs(const char*, const char*, std::string_view) {}

  template <typename Part>
  void part(const char*, std::optional<Part>& part) {
    if (is_it()) {
      if (part) {
        part.reset();
      } else {
        part.emplace();
      }
    }
    if (part) fields(*this, *part);
  }
  template <typename Part>
  void part(const char*, Part& part) {
    fields(*this, part);
  }
  template <typename Part>
  void parts(const char* key, std::vector<Part>& parts) {
    if (is_it()) parts.emplace_back();
    for (Part& part : parts) {
      text(key, part.name);
      fields(*this, part);
    }
  }

 private:
  bool is_it() { return count_++ == at_; }

  void index(const char*, std::uint32_t& value) {
    if (!is_it()) return;
    const std::uint32_t kValues[] = {0, 1, 2, 1000, 0xFFFFFFFE, 0xFFFFFFFF};
    value = kValues[random_.next() % std::size(kValues)];
  }
  template <typename T>
  void spoil_list(const char* key, std::vector<T>& values) {
    if (random_.next() % 3 == 0) {
      if (is_it()) values.assign(random_.next() % 2 == 0 ? 0 : 40, T{});
      return;
    }
    if (!values.empty()) (*this)(key, values[random_.next() % values.size()]);
  }

  scenes::Random& random_;
  std::size_t at_;
  std::size_t count_ = 0;
};

/// Spoils one value of a level, somewhere.
void spoil(Level& level, scenes::Random& random);

}  // namespace gaze::fuzz
