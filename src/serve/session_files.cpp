#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <iterator>
#include <set>
#include <utility>

#include "file/regular_file.hpp"
#include "gaze/level_file.hpp"
#include "gaze/tools/trace.hpp"
#include "gaze/tools/with_value.hpp"
#include "serve/session.hpp"

/// What a session writes: values into the level's files, and takes beside them.
namespace gaze::serve {
namespace {

namespace fs = std::filesystem;

std::string text_of_file(const fs::path& file) {
  FileText read = read_regular_file(file, ReadLimits::file_bytes);
  if (!read.fault.empty()) throw UsageError(fmt::format("{} {}", file.string(), read.fault));
  return std::move(read.bytes);
}

// Where a value stands, or else whose it is.
fs::path home_of(const Level& level, const std::string& path, const fs::path& main) {
  std::string longest = path;
  while (!longest.empty()) {
    const auto at = level.origins.find(longest);
    if (at != level.origins.end() && at->second.line > 0) return at->second.file;
    const std::size_t dot = longest.rfind('.');
    longest.resize(dot == std::string::npos ? 0 : dot);
  }
  for (const Kind& kind : level.kinds) {
    const bool is_its = path.starts_with("kind." + kind.name + ".");
    if (is_its && kind.place.line > 0) return kind.place.file;
  }
  for (const Agent& agent : level.agents) {
    const bool is_its = path.starts_with("agent." + agent.id + ".");
    if (is_its && agent.place.line > 0) return agent.place.file;
  }
  return main;
}

}  // namespace

Session::Undo Session::undo_of(const Written& written) {
  const std::string& before = written.before;
  const std::string& after = written.after;
  const auto head = std::mismatch(before.begin(), before.end(), after.begin(), after.end());
  const auto tail = std::mismatch(before.rbegin(), std::make_reverse_iterator(head.first),
                                  after.rbegin(), std::make_reverse_iterator(head.second));
  Undo undo;
  undo.file = written.file;
  undo.at = static_cast<std::size_t>(head.first - before.begin());
  undo.removed.assign(head.first, tail.first.base());
  undo.added = static_cast<std::size_t>(tail.second.base() - head.second);
  undo.digest = std::hash<std::string>{}(after);
  return undo;
}

void Session::write_all(const std::vector<Written>& written) {
  std::size_t count = 0;
  try {
    for (; count < written.size(); ++count) writer_(written[count].file, written[count].after);
    begin({}, run_->inputs(), run_->end(), game().tick());
  } catch (...) {
    for (std::size_t i = 0; i < count; ++i) writer_(written[i].file, written[i].before);
    throw;
  }
  static_cast<void>(files_.have_changed());  // it was this session
}

// All of them, or none: what has been written is put back if the level cannot be read with it.
void Session::keep_values() {
  if (tried_.empty()) return;
  const Level level = read_level(file_, settings({}));
  std::vector<Written> written;
  for (const Setting& setting : tried_) {
    const fs::path file = home_of(level, setting.path, file_);
    const auto same = std::find_if(written.begin(), written.end(),
                                   [&](const Written& one) { return one.file == file; });
    if (same == written.end()) {
      const std::string text = text_of_file(file);
      written.push_back({file, text, with_value(text, file.string(), setting)});
    } else {
      same->after = with_value(same->after, file.string(), setting);
    }
  }
  write_all(written);
  for (const Written& one : written) undo_.push_back(undo_of(one));
  ghost_.reset();
  ++revisions_.values;
  ++revisions_.ghost;
}

void Session::undo() {
  if (undo_.empty()) throw UsageError("nothing has been written that could be taken back");
  const Undo& last = undo_.back();
  std::string text = text_of_file(last.file);
  if (std::hash<std::string>{}(text) != last.digest) {
    throw UsageError(fmt::format("{} has been changed since; it is left as it is",
                                 last.file.filename().string()));
  }
  writer_(last.file, text.replace(last.at, last.added, last.removed));
  undo_.pop_back();
  static_cast<void>(files_.have_changed());
  read_anew(tried_);
}

namespace {

// Of a trace the first columns; of a track made otherwise its time and place.
bool is_track(const fs::path& file) {
  constexpr std::string_view kHead = "time,";
  return read_start_of_file(file, kHead.size()).bytes == kHead;
}

void need_name(const std::string& name) {
  constexpr std::size_t kMost = 60;
  const auto is_usable = [](unsigned char c) {
    return std::isalnum(c) != 0 || c == '-' || c == '_';
  };
  if (!name.empty() && name.size() <= kMost && std::all_of(name.begin(), name.end(), is_usable)) {
    return;
  }
  throw UsageError("a take is named by up to 60 letters, digits, - and _");
}

}  // namespace

std::vector<std::string> Session::takes() const {
  std::set<std::string> names;
  std::error_code fault;
  const fs::path folder = file_.parent_path().empty() ? fs::path(".") : file_.parent_path();
  for (const fs::directory_entry& entry : fs::directory_iterator(folder, fault)) {
    if (entry.path().extension() != ".csv" || !is_track(entry.path())) continue;
    names.insert(entry.path().stem().string());
  }
  return {names.begin(), names.end()};
}

void Session::save_take(const std::string& name, const std::string& agent) {
  need_name(name);
  static_cast<void>(game().agent(agent));
  Simulation played = run_->at(0);
  std::string text = trace_head(TraceFormat::csv);
  while (true) {
    text += trace_line(played, played.agent(agent), TraceFormat::csv);
    if (played.tick() == run_->end()) break;
    run_->inputs().apply(played);
    played.step();
  }
  const fs::path file = file_.parent_path() / (name + ".csv");
  if (fs::is_symlink(file)) {
    throw UsageError(
        fmt::format("{}.csv is a link; a take is written into the folder alone", name));
  }
  if (fs::exists(file) && !is_track(file)) {
    throw UsageError(fmt::format("{}.csv is there and is no take", name));
  }
  writer_(file, text);
  ++revisions_.takes;
}

void Session::load_take(const std::string& name, const std::string& agent) {
  need_name(name);
  static_cast<void>(game().agent(agent));
  const auto before = std::exchange(take_, LoadedTake{agent, name, agent});
  try {
    Past past = run_->past();
    begin(tried_, {}, 0, 0);
    ghost_ = std::move(past);
  } catch (...) {
    take_ = before;
    throw;
  }
  ++revisions_.ghost;
}

}  // namespace gaze::serve
