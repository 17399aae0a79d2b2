#include <fmt/format.h>

#include <optional>
#include <ostream>

#include "gaze/tools/report.hpp"
#include "output.hpp"
#include "play.hpp"
#include "study.hpp"

namespace gaze::cli {

int expect(const ExpectOptions& options, const Streams& streams) {
  std::optional<OutputFile> junit;
  if (!options.junit.empty()) junit.emplace(options.junit);
  std::vector<LevelResults> all;
  bool all_hold = true;
  Studying studying(streams, "runs");
  for (const std::string& file : options.files) {
    LevelOptions level = options.level;
    level.file = file;
    all.push_back({file, gaze::expect(source_of(level), options.only, studying.options())});
    for (const ExpectResult& result : all.back().results) all_hold &= result.holds;
    if (studying.was_ended()) break;
  }
  if (junit) {
    junit->write(expect_junit(all));
    junit->finish();
  }
  if (options.json) {
    streams.out << expect_json(all);
  } else {
    for (const LevelResults& level : all) {
      if (options.files.size() > 1) streams.out << level.level << ":\n";
      if (level.results.empty()) streams.out << "no expectations\n";
      streams.out << expect_text(level.results);
    }
  }
  if (all.size() < options.files.size() || studying.was_ended()) return ended_early;
  return all_hold ? done : check_failed;
}

}  // namespace gaze::cli
