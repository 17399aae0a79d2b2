#include "gaze/tools/differences.hpp"

#include <fmt/format.h>

#include <map>

#include "file/read.hpp"

/// What two level files say differently.
namespace gaze {
namespace {

struct Said {
  std::string value;
  std::string place;
};

/// All values of a file by their paths, in its order. What stands in lists is named by its id.
class Flattened {
 public:
  Flattened(const std::filesystem::path& file, const std::vector<Setting>& settings) {
    Faults faults;
    if (const auto text = read_text(file, faults)) {
      if (auto root = parse_toml(*text, file.string(), faults)) {
        include_files(*root, file.string(), faults);
        const CopySettings copies = apply_settings(*root, settings, faults);
        add_table("", *root);
        for (const auto& [id, values] : copies) {
          for (const auto& [path, value] : values) {
            add(fmt::format("agent.{}.{}", id, path), value);
          }
        }
      }
    }
    if (!faults.empty()) throw LevelError(faults.take());
  }

  const std::vector<std::string>& paths() const { return paths_; }
  const Said* find(const std::string& path) const {
    const auto at = said_.find(path);
    return at == said_.end() ? nullptr : &at->second;
  }

 private:
  void add_table(const std::string& path, const Node& table) {
    for (const Node::Entry& entry : table.entries) {
      add(path.empty() ? entry.key : path + "." + entry.key, entry.value);
    }
  }

  void add(const std::string& path, const Node& node) {
    if (node.type == Node::Type::table) return add_table(path, node);
    const bool is_list_of_tables = node.type == Node::Type::array && !node.items.empty() &&
                                   node.items[0].find("id") != nullptr;
    if (is_list_of_tables) {
      for (const Node& item : node.items) {
        const Node* id = item.find("id");
        add(path + "." + (id != nullptr ? id->text : std::string("without-id")), item);
      }
      return;
    }
    std::string place = node.place.line > 0 ? text_of(node.place) : node.place.file;
    if (said_.try_emplace(path, Said{toml_of(node), std::move(place)}).second) {
      paths_.push_back(path);
    }
  }

  std::vector<std::string> paths_;
  std::map<std::string, Said> said_;
};

}  // namespace

std::vector<ValueDifference> differences(const std::filesystem::path& one,
                                         const std::vector<Setting>& one_settings,
                                         const std::filesystem::path& other,
                                         const std::vector<Setting>& other_settings) {
  const Flattened first(one, one_settings);
  const Flattened second(other, other_settings);
  std::vector<ValueDifference> found;
  const auto compare = [&](const std::string& path) {
    const Said* a = first.find(path);
    const Said* b = second.find(path);
    if (a != nullptr && b != nullptr && a->value == b->value) return;
    ValueDifference difference{path, {}, {}};
    if (a != nullptr)
      std::tie(difference.values[0], difference.places[0]) = std::tie(a->value, a->place);
    if (b != nullptr)
      std::tie(difference.values[1], difference.places[1]) = std::tie(b->value, b->place);
    found.push_back(std::move(difference));
  };
  for (const std::string& path : first.paths()) compare(path);
  for (const std::string& path : second.paths()) {
    if (first.find(path) == nullptr) compare(path);
  }
  return found;
}

}  // namespace gaze
