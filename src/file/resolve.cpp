#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "file/read.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

const std::vector<std::string> kShared{"team", "material", "kind"};

/// Merges kinds with what they are like, each once.
class KindResolver {
 public:
  KindResolver(const Node& kinds, Faults& faults) : kinds_(kinds), faults_(faults) {
    for (const Node::Entry& entry : kinds.entries) names_.push_back(entry.key);
  }

  Node resolve(const std::string& name) {
    if (const auto done = done_.find(name); done != done_.end()) return done->second;
    const Node& own = *kinds_.find(name);
    const Node* like = own.find("like");
    Node result = own;
    trail_.push_back(name);
    if (like != nullptr && is_usable(name, *like)) result = merge(resolve(like->text), own);
    trail_.pop_back();
    done_[name] = result;
    return result;
  }

 private:
  bool is_usable(const std::string& name, const Node& like) {
    if (like.type != Node::Type::text) {
      faults_.add(like.place, fmt::format("kind.{}.like is {}; the name of a kind is needed", name,
                                          found(like)));
      return false;
    }
    const Node* base = kinds_.find(like.text);
    if (base == nullptr) {
      faults_.add(like.place,
                  fmt::format("there is no kind '{}'{}", like.text, suggestion(like.text, names_)));
      return false;
    }
    if (base->type != Node::Type::table) return false;  // reported where it stands
    const auto start = std::find(trail_.begin(), trail_.end(), like.text);
    if (start == trail_.end()) return true;
    std::string circle;
    for (auto it = start; it != trail_.end(); ++it) circle += *it + " is like ";
    faults_.add(like.place, fmt::format("kinds in a circle: {}{}", circle, like.text));
    return false;
  }

  const Node& kinds_;
  Faults& faults_;
  std::vector<std::string> names_;
  std::vector<std::string> trail_;
  std::map<std::string, Node> done_;
};

void add_shared(Node& root, const Node::Entry& shared, Faults& faults) {
  const Node* existing = root.find(shared.key);
  Node merged = existing != nullptr ? *existing : Node{};
  if (shared.value.type != Node::Type::table || merged.type != Node::Type::table) {
    faults.add(shared.value.place,
               fmt::format("{} is {}; a table is needed", shared.key, found(shared.value)));
    return;
  }
  for (const Node::Entry& entry : shared.value.entries) {
    if (const Node* twice = merged.find(entry.key)) {
      faults.add(twice->place, fmt::format("{} '{}' is defined twice; the other is at {}",
                                           shared.key, entry.key, text_of(entry.place)));
      continue;
    }
    merged.put(entry.key, entry.value, entry.place);
  }
  root.put(shared.key, std::move(merged), shared.place);
}

void add_file(Node& root, const Node& included, Faults& faults) {
  for (const Node::Entry& entry : included.entries) {
    if (entry.key == "format") continue;
    if (std::find(kShared.begin(), kShared.end(), entry.key) == kShared.end()) {
      faults.add(entry.place,
                 fmt::format("'{}' in an included file; team, material and kind are allowed there",
                             entry.key));
      continue;
    }
    add_shared(root, entry, faults);
  }
}

}  // namespace

void include_files(Node& root, const std::string& file, Faults& faults) {
  const Node* include = root.find("include");
  if (include == nullptr || include->type != Node::Type::array) return;  // reported by its reader
  const std::vector<Node> names = include->items;
  if (names.size() > LevelLimits::list_items) return;
  std::vector<std::string> done;
  for (const Node& name : names) {
    if (name.type != Node::Type::text) continue;
    if (std::find(done.begin(), done.end(), name.text) != done.end()) {
      faults.add(name.place, fmt::format("'{}' is included twice", name.text));
      continue;
    }
    done.push_back(name.text);
    if (name.text.empty()) {
      faults.add(name.place, "include has an empty text; the name of a file is needed");
      continue;
    }
    const auto beside = std::filesystem::path(file).parent_path() / name.text;
    const std::size_t before = faults.count();
    const auto text = read_text(beside, faults);
    if (faults.count() > before) {
      faults.add(name.place, fmt::format("cannot include '{}'", name.text));
    }
    if (!text) continue;
    if (const auto included = parse_toml(*text, beside.string(), faults)) {
      add_file(root, *included, faults);
    }
  }
}

std::vector<Node::Entry> resolve_kinds(const Node& root, Faults& faults) {
  std::vector<Node::Entry> resolved;
  const Node* kinds = root.find("kind");
  if (kinds == nullptr || kinds->type != Node::Type::table) return resolved;
  KindResolver resolver(*kinds, faults);
  for (const Node::Entry& entry : kinds->entries) {
    if (entry.value.type != Node::Type::table) continue;
    resolved.push_back({entry.key, entry.place, resolver.resolve(entry.key)});
  }
  return resolved;
}

}  // namespace gaze
