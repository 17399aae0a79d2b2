#include <fmt/format.h>

#include "file/field_reader.hpp"

/// Solids.
namespace gaze {

std::optional<Solid> read_solid(ReadContext& context, const Node& table, Solid::Form form,
                                const Names& names, Plane plane) {
  const KeyTable& keys = table_of(form);
  if (is_walkway(form) && plane == Plane::upright) {
    context.faults.add(
        table.place,
        fmt::format("[[{}]] belongs in ground and space levels; in upright ones blocks "
                    "are what one walks on",
                    keys.name));
    return std::nullopt;
  }
  Solid solid;
  solid.form = form;
  solid.place = table.place;
  const Scope scope{names, plane, nullptr, nullptr};
  FieldReader(context, table, path_by_id(table, keys.name), keys, scope).read(solid);
  return solid;
}

std::string path_by_id(const Node& table, std::string_view what) {
  const Node* id = table.find("id");
  const bool is_named = id != nullptr && id->type == Node::Type::text;
  return is_named ? fmt::format("{}.{}", what, id->text) : std::string(what);
}

}  // namespace gaze
