#include "file/field_reader.hpp"

namespace gaze {

const std::vector<std::string>& kind_keys() {
  static const std::vector<std::string> kKeys = [] {
    std::vector<std::string> keys = split(kKindKeys.parts);
    for (const Key& key : kKindKeys.keys) {
      if (key.name != "like") keys.emplace_back(key.name);
    }
    return keys;
  }();
  return kKeys;
}

Kind read_kind(ReadContext& context, const Node& table, const std::string& name,
               const std::string& path, const Names& names, Plane plane) {
  Kind kind;
  kind.name = name;
  kind.place = table.place;
  const Scope scope{names, plane, &kind, nullptr};
  FieldReader(context, table, path, kKindKeys, scope).read(kind);
  return kind;
}

}  // namespace gaze
