#include "serve/files.hpp"

#include <set>

namespace gaze::serve {
namespace {

namespace fs = std::filesystem;

}  // namespace

std::vector<fs::path> files_of(const fs::path& file, const Level& level) {
  std::set<fs::path> names{file};
  for (const auto& [path, place] : level.origins) {
    if (place.line > 0) names.insert(place.file);
  }
  return {names.begin(), names.end()};
}

// What cannot be looked at is not there.
WatchedFiles::Stamp WatchedFiles::stamp_of(const fs::path& file) {
  std::error_code fault;
  Stamp stamp;
  stamp.time = fs::last_write_time(file, fault);
  if (fault) return {};
  stamp.size = fs::file_size(file, fault);
  return fault ? Stamp{} : stamp;
}

void WatchedFiles::watch(const fs::path& file, const Level* level, const std::vector<Fault>& also) {
  std::set<fs::path> names{file};
  if (level != nullptr) {
    for (const fs::path& one : files_of(file, *level)) names.insert(one);
    for (const Agent& agent : level->agents) {
      if (agent.track && !agent.track->file.empty()) names.insert(agent.track->file);
    }
  }
  for (const auto& [name, stamp] : files_) {
    if (level == nullptr) names.insert(name);
  }
  for (const Fault& fault : also) {
    if (fault.place.line > 0) names.insert(fault.place.file);
  }
  std::map<fs::path, Stamp> watched;
  for (const fs::path& name : names) {
    const auto known = files_.find(name);
    watched[name] = known == files_.end() ? stamp_of(name) : known->second;
  }
  files_ = std::move(watched);
}

bool WatchedFiles::have_changed() {
  bool is_other = false;
  for (auto& [name, stamp] : files_) {
    const Stamp now = stamp_of(name);
    is_other = is_other || !(now == stamp);
    stamp = now;
  }
  return is_other;
}

std::vector<fs::path> WatchedFiles::all() const {
  std::vector<fs::path> names;
  for (const auto& [name, stamp] : files_) names.push_back(name);
  return names;
}

}  // namespace gaze::serve
