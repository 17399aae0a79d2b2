#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "file/field_reader.hpp"
#include "level/spelling.hpp"

/// The points of a patrol, and the steps of a script.
namespace gaze {
namespace {

// In the order of ScriptStep::What.
const std::vector<std::string> kStepWords{"go",     "wait", "face",  "noise", "quiet", "hop",
                                          "repeat", "take", "throw", "drop",  "aim"};

// Which of the words it holds, or what it holds instead.
std::string fault_of_step(const Node& node, const std::string& path,
                          const std::vector<std::string>& words) {
  std::vector<std::string> held;
  std::vector<std::string> keys;
  for (const Node::Entry& entry : node.entries) {
    keys.push_back("'" + entry.key + "'");
    const bool is_word = std::find(words.begin(), words.end(), entry.key) != words.end();
    if (is_word) held.push_back("'" + entry.key + "'");
  }
  std::string hint;
  for (const Node::Entry& entry : node.entries) {
    if (hint.empty()) hint = suggestion(entry.key, words);
  }
  const std::vector<std::string>& told = held.empty() ? keys : held;
  return fmt::format("{} holds {}; exactly one is allowed of: {}{}", path,
                     told.empty() ? "nothing" : fmt::format("{}", fmt::join(told, " and ")),
                     fmt::join(words, ", "), held.empty() ? hint : "");
}

// Which of its words a step holds, if it holds just one.
std::optional<ScriptStep::What> what_of(const Node& step) {
  std::optional<ScriptStep::What> what;
  for (std::size_t i = 0; i < kStepWords.size(); ++i) {
    if (step.find(kStepWords[i]) == nullptr) continue;
    if (what) return std::nullopt;
    what = static_cast<ScriptStep::What>(i);
  }
  return what;
}

}  // namespace

void FieldReader::script(const char* key, std::vector<ScriptStep>& steps) {
  const std::vector<Node>& items = reader_.items(key, LevelLimits::list_items);
  for (std::size_t i = 0; i < items.size(); ++i) {
    const std::string path = fmt::format("{}[{}]", reader_.path_of(key), i + 1);
    ScriptStep& step = steps.emplace_back();
    step.written = items[i].place;
    if (!is_table(reader_, items[i], path)) continue;
    const auto what = what_of(items[i]);
    if (!what) {
      reader_.fault(items[i].place, fault_of_step(items[i], path, kStepWords));
      continue;
    }
    step.what = *what;
    FieldReader(reader_.context(), items[i], path, kStepKeys, scope_).read(step);
  }
}

// Points, or tables of a point and what is done there: { at = POINT, wait = S, look = DEGREES }.
void FieldReader::patrol(const char* key, std::vector<Vector3d>& points,
                         std::vector<PatrolStop>& stops) {
  for (const Node& item : reader_.items(key, LevelLimits::list_items)) {
    const std::string path = "a point of " + reader_.path_of(key);
    Vector3d& at = points.emplace_back(0.0, 0.0, 0.0);
    PatrolStop& stop = stops.emplace_back();
    if (item.type == Node::Type::table) {
      FieldReader table(reader_.context(), item, path, kStopKeys, scope_);
      table.point("at", at);
      table.read(stop);
    } else if (const auto point = read_point(item, path)) {
      at = *point;
    }
  }
}

}  // namespace gaze
