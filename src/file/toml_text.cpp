#include <fmt/format.h>

#include "file/node.hpp"

/// Values as they stand in a file.
namespace gaze {
namespace {

std::string quoted(const std::string& text) {
  std::string result = "\"";
  for (const char c : text) {
    const auto code = static_cast<unsigned char>(c);
    if (code < 0x20 || code == 0x7F) {
      result += fmt::format("\\u{:04X}", code);
    } else {
      if (c == '"' || c == '\\') result += '\\';
      result += c;
    }
  }
  return result + "\"";
}

}  // namespace

std::string toml_of(const Node& node) {
  switch (node.type) {
    case Node::Type::text:
      return quoted(node.text);
    case Node::Type::integer:
      return fmt::format("{}", node.integer);
    case Node::Type::number:
      return fmt::format("{:#}", node.number);
    case Node::Type::boolean:
      return node.boolean ? "true" : "false";
    case Node::Type::array: {
      std::string items;
      for (const Node& item : node.items) items += (items.empty() ? "" : ", ") + toml_of(item);
      return "[" + items + "]";
    }
    case Node::Type::table: {
      std::string entries;
      for (const Node::Entry& entry : node.entries) {
        entries += entries.empty() ? "" : ", ";
        entries += fmt::format("{} = {}", quoted(entry.key), toml_of(entry.value));
      }
      return "{" + entries + "}";
    }
    default:
      return node.text;
  }
}

}  // namespace gaze
