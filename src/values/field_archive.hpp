#pragma once

#include "level/archive.hpp"
#include "values/fields.hpp"

namespace gaze {

/// Writes the values of a part by the list of its fields, or reads them. The keys play no role.
template <typename Archive>
class FieldArchive {
 public:
  explicit FieldArchive(Archive& to) : to_(to) {}

  template <typename T>
  void operator()(const char*, T& value) {
    archive(to_, value);
  }
  template <typename T>
  void needed(const char*, T& value) {
    archive(to_, value);
  }
  template <typename T>
  void may_be(const char*, T& value) {
    archive(to_, value);
  }

  void second_word(const char*, bool& value) { archive(to_, value); }
  void text(const char*, std::string& value) { archive(to_, value); }
  void like(const char*, std::string& value) { archive(to_, value); }
  void name(const char*, std::string& value) { archive(to_, value); }
  void needed_name(const char*, std::string& value) { archive(to_, value); }
  void names(const char*, std::vector<std::string>& values) { archive(to_, values); }
  void tags(const char*, std::vector<std::string>& values) { archive(to_, values); }
  void kinds(const char*, std::vector<std::string>& values) { archive(to_, values); }
  void teams(const char*, std::vector<std::string>& values) { archive(to_, values); }
  void agents(const char*, std::vector<std::uint32_t>& values) { archive(to_, values); }
  void team(const char*, std::uint32_t& value) { archive(to_, value); }
  void material(const char*, std::uint32_t& value) { archive(to_, value); }
  template <typename T>
  void kind(const char*, T& value) {
    archive(to_, value);
  }

  template <typename T>
  void pair(const char*, T& low, T& high) {
    archive_all(to_, low, high);
  }
  void half(const char*, std::optional<double>& value) { archive(to_, value); }
  void eye(const char*, const char*, std::optional<Vector3d>& value) { archive(to_, value); }
  void axes(const char*, std::optional<std::array<bool, 3>>& value) { archive(to_, value); }
  void solid_to(const char*, SolidTo& value) { archive_all(to_, value.friends, value.foes); }
  void amounts(const char*, std::map<std::string, double>& values) { archive(to_, values); }
  void side_factors(const char*, std::array<double, 6>& values) { archive(to_, values); }
  void pockets(const char*, std::vector<Pocket>& values) {
    list(values, [this](Pocket& pocket) { archive_all(to_, pocket.kind, pocket.count); });
  }
  void along(const char*, Angle& toward, Angle& tilt) { archive_all(to_, toward, tilt); }
  void lob(const char*, Attack::Aim& aim) { archive(to_, aim); }
  void defeat_attack(const char*, std::string& attack) { archive(to_, attack); }
  void attack(const char*, std::string& attack) { archive(to_, attack); }
  void mode(const char*, std::optional<Mode>& mode) { archive(to_, mode); }
  void when(const char*, When& when) {
    archive(to_, when.idle);
    list(when.rules, [this](Rule& rule) {
      archive_all(to_, rule.cause, rule.name);
      fields(*this, rule.reaction);
    });
  }

  void outline(const char*, std::vector<Vector2d>& points) { archive(to_, points); }
  void may_be_outline(const char*, std::vector<Vector2d>& points) { archive(to_, points); }
  void point3(const char*, Vector3d& point) { archive(to_, point); }
  void point(const char*, Vector3d& point) { archive(to_, point); }
  void rise(std::optional<double>& base, double& height) { archive_all(to_, base, height); }
  void slab(const char*, const char*, std::optional<double>& base, double& height) {
    archive_all(to_, base, height);
  }
  void triangles(Solid& solid) { archive_all(to_, solid.triangles, solid.base, solid.height); }
  void patrol(const char*, std::vector<Vector3d>& points, std::vector<PatrolStop>& stops) {
    archive(to_, points);
    list(stops, [this](PatrolStop& stop) { fields(*this, stop); });
  }
  void script(const char*, std::vector<ScriptStep>& steps) {
    list(steps, [this](ScriptStep& step) {
      archive(to_, step.what);
      fields(*this, step);
    });
  }
  void track(const char*, std::shared_ptr<const Track>& track) {
    bool is_there = track != nullptr;
    archive(to_, is_there);
    if (!is_there) return track.reset();
    Track own;
    if constexpr (!Archive::kLoads) own = *track;
    list(own.points, [this](TrackPoint& point) {
      archive_all(to_, point.seconds, point.place, point.facing, point.fires, point.attacks,
                  point.aim, point.is_plan_aim, point.is_quiet, point.line);
      list(point.deeds, [this](TrackDeed& deed) {
        archive_all(to_, deed.what, deed.name, deed.place, deed.reach, deed.from);
      });
    });
    archive(to_, own.file);
    if constexpr (Archive::kLoads) track = std::make_shared<const Track>(std::move(own));
  }
  void only_true(const char*) {}
  void needs(const char*, const char*, std::string_view) {}

  template <typename Part>
  void part(const char*, std::optional<Part>& part) {
    bool is_there = part.has_value();
    archive(to_, is_there);
    if constexpr (Archive::kLoads) {
      part.reset();
      if (is_there) part.emplace();
    }
    if (part) fields(*this, *part);
  }
  template <typename Part>
  void part(const char*, Part& part) {
    fields(*this, part);
  }
  template <typename Part>
  void parts(const char*, std::vector<Part>& parts) {
    list(parts, [this](Part& part) {
      archive(to_, part.name);
      fields(*this, part);
    });
  }

 private:
  template <typename T, typename One>
  void list(std::vector<T>& values, One&& one) {
    const std::size_t count = to_.size(values.size(), 1);
    if constexpr (Archive::kLoads) values.assign(count, T{});
    for (T& value : values) one(value);
  }

  Archive& to_;
};

/// The bytes of all fields of a part. What does not count for it is not among them.
template <typename Part>
std::string bytes_of_fields(const Part& part) {
  std::string bytes;
  Saver saver(bytes);
  FieldArchive<Saver> fields_of(saver);
  Part copy = part;
  fields(fields_of, copy);
  return bytes;
}

/// The part again. Throws Damaged where the bytes are none.
template <typename Part>
void load_fields(std::string_view bytes, Part& part) {
  Loader loader(bytes);
  FieldArchive<Loader> fields_of(loader);
  fields(fields_of, part);
}

}  // namespace gaze
