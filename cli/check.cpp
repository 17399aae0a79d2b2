#include <fmt/format.h>

#include <algorithm>
#include <ostream>

#include "play.hpp"

namespace gaze::cli {
namespace {

std::string verdict_line(const std::vector<Finding>& findings, std::size_t files) {
  const auto count = [&](Finding::Severity severity) {
    const auto number =
        std::count_if(findings.begin(), findings.end(),
                      [=](const Finding& finding) { return finding.severity == severity; });
    return fmt::format("{} {}{}", number, name_of(severity), number == 1 ? "" : "s");
  };
  return fmt::format("{} level{} read: {}, {}, {}\n", files, files == 1 ? "" : "s",
                     count(Finding::Severity::error), count(Finding::Severity::warning),
                     count(Finding::Severity::note));
}

}  // namespace

int check(const CheckOptions& options, const Streams& streams) {
  std::vector<Finding> findings;
  std::vector<Fault> faults;
  std::size_t unread = 0;
  for (const std::string& file : options.files) {
    LevelOptions level = options.level;
    level.file = file;
    try {
      for (Finding& finding : judge(read(level))) findings.push_back(std::move(finding));
    } catch (const LevelError& error) {
      faults.insert(faults.end(), error.faults().begin(), error.faults().end());
      ++unread;
    }
  }
  const std::size_t read_files = options.files.size() - unread;
  if (options.json) {
    streams.out << findings_json(findings);
  } else {
    for (const Finding& finding : findings) streams.out << finding_line(finding);
    if (read_files > 0) streams.out << verdict_line(findings, read_files);
  }
  if (!faults.empty()) throw LevelError(std::move(faults));
  return has_fault(findings) ? check_failed : done;
}

}  // namespace gaze::cli
