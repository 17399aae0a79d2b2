namespace gaze {
/// Thrown where the library takes for granted what a text need not keep to ("[.a]"); it would go on
/// from there into undefined behaviour.
struct Assumption {};
[[noreturn, gnu::noinline]] static void refuse() {
  throw Assumption();
}
static constexpr void assume(bool holds) {
  if (!holds) refuse();
}
}  // namespace gaze

#define TOML_HEADER_ONLY 1
#define TOML_ENABLE_FORMATTERS 0
#undef NDEBUG
#define TOML_ASSERT(expression) gaze::assume(static_cast<bool>(expression))
#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fstream>

#include "file/key_depth.hpp"
#include "file/node.hpp"

namespace gaze {
namespace {

Place place_of(const toml::source_region& source, const std::string& file) {
  return {file, static_cast<int>(source.begin.line), static_cast<int>(source.begin.column)};
}

std::string one_line(std::string text) {
  std::replace_if(
      text.begin(), text.end(), [](unsigned char c) { return c < 0x20U; }, ' ');
  return text;
}

class Converter {
 public:
  explicit Converter(const std::string& file) : file_(file) {}

  Node convert(const toml::node& from) const {
    Node node;
    node.place = place_of(from.source(), file_);
    if (const auto* table = from.as_table()) {
      fill_table(node, *table);
    } else if (const auto* array = from.as_array()) {
      node.type = Node::Type::array;
      for (const toml::node& item : *array) node.items.push_back(convert(item));
    } else {
      fill_value(node, from);
    }
    return node;
  }

 private:
  // The library keeps keys in alphabetical order; designers expect that of their file.
  void fill_table(Node& node, const toml::table& table) const {
    for (const auto& [key, value] : table) {
      node.entries.push_back(
          {std::string(key.str()), place_of(key.source(), file_), convert(value)});
    }
    std::stable_sort(node.entries.begin(), node.entries.end(),
                     [](const Node::Entry& a, const Node::Entry& b) { return a.place < b.place; });
  }

  static void fill_value(Node& node, const toml::node& from) {
    if (const auto* boolean = from.as_boolean()) {
      node.type = Node::Type::boolean;
      node.boolean = boolean->get();
    } else if (const auto* integer = from.as_integer()) {
      node.type = Node::Type::integer;
      node.integer = integer->get();
      node.number = static_cast<double>(node.integer);
    } else if (const auto* number = from.as_floating_point()) {
      node.type = Node::Type::number;
      node.number = number->get();
    } else if (const auto* text = from.as_string()) {
      node.type = Node::Type::text;
      node.text = text->get();
    } else {
      node.type = Node::Type::other;
      node.text = "a date or time";
    }
  }

  const std::string& file_;
};

bool breaks_assumption(std::string_view text) {
  try {
    static_cast<void>(toml::parse(text));
  } catch (const toml::parse_error&) {
    return false;
  } catch (const Assumption&) {
    return true;
  }
  return false;
}

// The library does not say where; the shortest run of lines that does it ends there.
int line_of_assumption(std::string_view text) {
  std::vector<std::size_t> ends;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (text[i] == '\n') ends.push_back(i + 1);
  }
  ends.push_back(text.size());
  const auto line = std::partition_point(ends.begin(), ends.end(), [&](std::size_t end) {
    return !breaks_assumption(text.substr(0, end));
  });
  return static_cast<int>(line - ends.begin()) + 1;
}

std::optional<std::string> why_unreadable(const std::filesystem::path& file) {
  std::error_code error;
  const auto status = std::filesystem::status(file, error);
  if (!std::filesystem::exists(status)) return "there is no such file";
  if (std::filesystem::is_directory(status)) return "is a folder, not a level file";
  if (!std::filesystem::is_regular_file(status)) return "is not a regular file";
  const auto size = std::filesystem::file_size(file, error);
  if (!error && size > ReadLimits::file_bytes) {
    return fmt::format("has {} bytes; at most {} are allowed", size, ReadLimits::file_bytes);
  }
  return std::nullopt;
}

}  // namespace

std::optional<Node> parse_toml(std::string_view text, const std::string& file, Faults& faults) {
  if (auto place = find_endless_key(text)) {
    place->file = file;
    faults.add(*place, fmt::format("a key of more than {} parts", kMostKeyParts));
    return std::nullopt;
  }
  try {
    return Converter(file).convert(toml::parse(text, std::string_view(file)));
  } catch (const toml::parse_error& error) {
    faults.add(place_of(error.source(), file),
               "not TOML: " + one_line(std::string(error.description())));
  } catch (const Assumption&) {
    faults.add({file, line_of_assumption(text), 1}, "not TOML: a key is expected in this line");
  }
  return std::nullopt;
}

std::optional<std::string> read_text(const std::filesystem::path& file, Faults& faults) {
  const Place top{file.string(), 1, 1};
  if (const auto why = why_unreadable(file)) {
    faults.add(top, *why);
    return std::nullopt;
  }
  errno = 0;
  std::ifstream stream(file, std::ios::binary);
  std::string text{std::istreambuf_iterator<char>(stream), std::istreambuf_iterator<char>()};
  if (!stream.is_open() || stream.bad()) {
    faults.add(top, fmt::format("cannot be read: {}", std::strerror(errno)));
    return std::nullopt;
  }
  return text;
}

}  // namespace gaze
