#pragma once

#include "file/read.hpp"
#include "file/table.hpp"
#include "values/fields.hpp"
#include "values/rules.hpp"

namespace gaze {

/// What the values of a table may name.
struct Scope {
  const Names& names;
  Plane plane = Plane::ground;
  const Kind* kind = nullptr;                        ///< Whose table it is, as far as it is read.
  const std::vector<std::string>* agents = nullptr;  ///< Ids.
  double ground_height = 0.0;                        ///< Metres, of the points of a ground level.
};

/// Reads the values of one table, by the list of its fields: what is left out keeps what the part
/// has already, and what is wrong too, with a fault.
class FieldReader {
 public:
  FieldReader(ReadContext& context, const Node& table, std::string path, const KeyTable& keys,
              const Scope& scope)
      : reader_(context, table, std::move(path), keys), scope_(scope) {}

  /// All fields of a part, and the rules that it has to keep.
  template <typename Part>
  void read(Part& part) {
    fields(*this, part);
    finish(broken_rules(part));
  }

  template <typename T>
  void operator()(const char* key, T& value) {
    if (reader_.key(key).must_be_given()) {
      needed(key, value);
    } else {
      may_be(key, value);
    }
  }
  template <typename T>
  void needed(const char* key, T& value) {
    reader_.need(key, needed_text(reader_.key(key)));
    if constexpr (std::is_enum_v<T>) {
      is_unclear_ |= !word(key, value);
    } else {
      may_be(key, value);
    }
  }

  /// Keys that belong to the table and are looked at elsewhere.
  void know(const std::vector<std::string>& keys) {
    for (const std::string& key : keys) reader_.find(key);
  }
  /// Reports keys that are none, and the rules that are not kept.
  void finish(const std::vector<Broken>& broken);

  /// A key that has to be there though its table does not say so.
  void need(const char* key) { reader_.need(key, needed_text(reader_.key(key))); }

  void may_be(const char* key, double& value);
  void may_be(const char* key, Angle& value);
  void may_be(const char* key, Duration& value);
  void may_be(const char* key, int& value);
  void may_be(const char* key, std::uint64_t& value);
  void may_be(const char* key, bool& value);
  void may_be(const char* key, std::vector<double>& values);
  void may_be(const char* key, std::vector<Angle>& values);
  void may_be(const char* key, SideSet& sides);
  void may_be(const char* key, StopSet& things);
  void may_be(const char* key, Vector3d& offset);
  template <typename T>
  void may_be(const char* key, std::optional<T>& value) {
    const Node* node = reader_.find(key);
    if (node == nullptr) return;
    value.reset();
    if (is_none(key, *node)) return;
    T own{};
    may_be(key, own);
    value = own;
  }
  template <typename Word>
  requires std::is_enum_v<Word>
  void may_be(const char* key, Word& value) { static_cast<void>(word(key, value)); }

  void second_word(const char* key, bool& value);
  void text(const char* key, std::string& value);
  void like(const char* key, std::string& value);
  void name(const char* key, std::string& value);
  void needed_name(const char* key, std::string& value);
  void names(const char* key, std::vector<std::string>& values);
  void tags(const char* key, std::vector<std::string>& values);
  void kinds(const char* key, std::vector<std::string>& values);
  void teams(const char* key, std::vector<std::string>& values);
  void agents(const char* key, std::vector<std::uint32_t>& values);
  void team(const char* key, std::uint32_t& value);
  void material(const char* key, std::uint32_t& value);
  void kind(const char* key, std::optional<std::uint32_t>& value);
  void kind(const char* key, std::uint32_t& value) {
    value = reader_.reference(key, scope_.names.kinds, "kind");
  }

  void pair(const char* key, double& low, double& high);
  void pair(const char* key, Angle& low, Angle& high);
  void half(const char* key, std::optional<double>& value);
  void eye(const char* height_key, const char* key, std::optional<Vector3d>& value);
  void axes(const char* key, std::optional<std::array<bool, 3>>& value);
  void solid_to(const char* key, SolidTo& value);
  void amounts(const char* key, std::map<std::string, double>& values);
  void side_factors(const char* key, std::array<double, 6>& values);
  void pockets(const char* key, std::vector<Pocket>& values);
  void along(const char* key, Angle& toward, Angle& tilt);
  void lob(const char* key, Attack::Aim& aim);
  void defeat_attack(const char* key, std::string& attack);
  void attack(const char* key, std::string& attack);
  void mode(const char* key, std::optional<Mode>& mode) { may_be(key, mode); }
  void when(const char* key, When& when);

  void outline(const char* key, std::vector<Vector2d>& points);
  void may_be_outline(const char* key, std::vector<Vector2d>& points);
  void point3(const char* key, Vector3d& point);
  void point(const char* key, Vector3d& point);
  void only_true(const char* key);
  void patrol(const char* key, std::vector<Vector3d>& points, std::vector<PatrolStop>& stops);
  void script(const char* key, std::vector<ScriptStep>& steps);
  void rise(std::optional<double>& base, double& height);
  void slab(const char* top_key, const char* thickness_key, std::optional<double>& base,
            double& height);
  void triangles(const Solid&) {}  // they have a file of their own

  void track(const char* key, std::shared_ptr<const Track>& track);
  void picks(const char* key, std::vector<EventPick>& picks);
  void settings(const char* key, std::map<std::string, std::string>& settings);

  void needs(const char* key, const char* other, std::string_view what);

  template <typename Part>
  void part(const char* key, std::optional<Part>& part) {
    if (const Node* node = table(key)) part = read_part<Part>(key, *node, reader_.path_of(key));
  }
  template <typename Part>
  void part(const char* key, Part& part) {
    if (const Node* node = table(key)) part = read_part<Part>(key, *node, reader_.path_of(key));
  }
  template <typename Part>
  void parts(const char* key, std::vector<Part>& parts) {
    const Node* tables = table(key);
    if (tables == nullptr) return;
    for (const Node::Entry& entry : tables->entries) {
      if (entry.value.type == Node::Type::boolean && !entry.value.boolean) continue;  // taken away
      const std::string path = reader_.path_of(key) + "." + entry.key;
      if (!is_table(reader_, entry.value, path)) continue;
      parts.push_back(read_part<Part>(key, entry.value, path, entry.key));
    }
  }

 private:
  static std::string needed_text(const Key& key);
  /// True if `false` stands there and says that there is none.
  bool is_none(const char* key, const Node& node) const;

  /// @return False if it is left out, or none of the words.
  template <typename Word>
  bool word(const char* key, Word& value) {
    const auto word = reader_.known_word(key);
    if (word) value = static_cast<Word>(*word);
    return word.has_value();
  }

  template <typename Part>
  Part read_part(const char* key, const Node& node, const std::string& path,
                 const std::string& name = "") {
    Part part;
    if constexpr (requires { part.name; }) part.name = name;
    FieldReader reader(reader_.context(), node, path, *table_of_kind(key), scope_);
    reader.read(part);
    return part;
  }

  /// The table of a key, if there is one.
  const Node* table(const char* key);
  std::vector<std::string> known(const char* key, const std::vector<std::string>& names,
                                 std::string_view what);
  void add_points(const char* key, std::vector<Vector2d>& points);
  std::optional<Vector3d> read_point(const Node& node, const std::string& path);
  const Node* node_of(std::string_view key) const;
  void fault(std::string_view key, const std::string& what);

  TableReader reader_;
  const Scope& scope_;
  bool is_unclear_ = false;  ///< What tells which keys it has is missing or wrong.
};

}  // namespace gaze
