#include "file/node.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "level/spelling.hpp"

namespace gaze {

const Node* Node::find(std::string_view key) const {
  for (const Entry& entry : entries) {
    if (entry.key == key) return &entry.value;
  }
  return nullptr;
}

Node& Node::put(const std::string& key, Node value, const Place& key_place) {
  for (Entry& entry : entries) {
    if (entry.key != key) continue;
    entry.place = key_place;
    entry.value = std::move(value);
    return entry.value;
  }
  return entries.emplace_back(Entry{key, key_place, std::move(value)}).value;
}

void Faults::add(const Place& place, std::string message) {
  faults_.push_back({place, std::move(message)});
}

void Faults::add_inherited(Faults other, const std::string& path) {
  for (Fault& fault : other.faults_) {
    std::string general = fault.message;
    for (std::size_t at = general.find(path); at != std::string::npos; at = general.find(path)) {
      general.erase(at, path.size());
    }
    if (inherited_.insert({fault.place, general}).second) faults_.push_back(std::move(fault));
  }
}

bool Faults::has_in(const Node& node) const {
  const auto is_there = [&](const Fault& fault) { return fault.place == node.place; };
  const auto has = [this](const Node& item) { return has_in(item); };
  return std::any_of(faults_.begin(), faults_.end(), is_there) ||
         (!faults_.empty() && std::any_of(node.items.begin(), node.items.end(), has));
}

std::vector<Fault> Faults::take() {
  std::set<std::pair<Place, std::string>> known;
  std::vector<Fault> unique;
  for (Fault& fault : faults_) {
    if (known.insert({fault.place, fault.message}).second) unique.push_back(std::move(fault));
  }
  std::map<std::string, std::size_t> rank;  // files in the order in which they were read
  for (const Fault& fault : unique) rank.try_emplace(fault.place.file, rank.size());
  std::stable_sort(unique.begin(), unique.end(), [&](const Fault& a, const Fault& b) {
    const std::size_t left = rank[a.place.file];
    const std::size_t right = rank[b.place.file];
    return left != right ? left < right : a.place < b.place;
  });
  return unique;
}

Node merge(const Node& inherited, const Node& own) {
  if (inherited.type != Node::Type::table || own.type != Node::Type::table) return own;
  Node result = inherited;
  result.place = own.place;
  for (const Node::Entry& entry : own.entries) {
    const Node* base = inherited.find(entry.key);
    result.put(entry.key, base != nullptr ? merge(*base, entry.value) : entry.value, entry.place);
  }
  return result;
}

std::string found(const Node& node) {
  switch (node.type) {
    case Node::Type::boolean:
      return node.boolean ? "true" : "false";
    case Node::Type::integer:
      return fmt::format("{}", node.integer);
    case Node::Type::number:
      return fmt::format("{}", node.number);
    case Node::Type::text:
      return fmt::format("the text \"{}\"", node.text.substr(0, 60));
    case Node::Type::array:
      return fmt::format("a list of {}", node.items.size());
    case Node::Type::table:
      return "a table";
    default:
      return node.text;
  }
}

}  // namespace gaze
