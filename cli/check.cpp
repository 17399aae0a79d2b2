#include <fmt/format.h>

#include <algorithm>
#include <ostream>
#include <set>
#include <utility>

#include "level/spelling.hpp"
#include "play.hpp"
#include "waiting.hpp"

namespace gaze::cli {
namespace {

std::string verdict_line(const std::vector<Finding>& findings, std::size_t files, bool notes) {
  const auto count = [&](Finding::Severity severity) {
    const auto number = std::count_if(
        findings.begin(), findings.end(),
        [=](const Finding& finding) { return finding.severity == severity && !finding.pair; });
    return fmt::format("{} {}{}", number, name_of(severity), number == 1 ? "" : "s");
  };
  const std::string told = count(Finding::Severity::note);
  const bool any_pair = std::any_of(findings.begin(), findings.end(), [](const Finding& finding) {
    return finding.pair.has_value();
  });
  const char* hidden = "";
  if (!notes && told[0] != '0') hidden = " (--notes shows them)";
  if (!notes && any_pair) hidden = " (--notes shows them, and how kinds fare against each other)";
  return fmt::format("{} level{} read: {}, {}, {}{}\n", files, files == 1 ? "" : "s",
                     count(Finding::Severity::error), count(Finding::Severity::warning), told,
                     hidden);
}

/// The findings of several levels. Those that share a file of kinds would say much of it once each.
class Told {
 public:
  void add(std::vector<Finding> more) {
    for (Finding& finding : more) {
      if (!said_.emplace(finding.place, finding.message).second) continue;
      findings_.push_back(std::move(finding));
    }
  }

  const std::vector<Finding>& findings() const { return findings_; }

 private:
  std::vector<Finding> findings_;
  std::set<std::pair<Place, std::string>> said_;
};

void print(const std::vector<Finding>& findings, const CheckOptions& options, std::size_t files,
           const Streams& streams) {
  for (const Finding& finding : findings) {
    if (finding.severity == Finding::Severity::note && !options.notes) continue;
    if (finding.pair) continue;
    streams.out << wrapped(finding_line(finding), streams.columns, 4);
  }
  if (options.notes) streams.out << pair_table(findings, streams.columns);
  if (files > 0) streams.out << verdict_line(findings, files, options.notes);
}

}  // namespace

int check(const CheckOptions& options, const Streams& streams) {
  Told told;
  std::vector<Fault> faults;
  std::size_t unread = 0;
  for (const std::string& file : options.files) {
    LevelOptions level = options.level;
    level.file = file;
    try {
      const Level read_one = read(level);
      const Waiting waiting(streams.err, "judging the level");
      told.add(judge(read_one));
    } catch (const LevelError& error) {
      faults.insert(faults.end(), error.faults().begin(), error.faults().end());
      ++unread;
    }
  }
  const std::vector<Finding>& findings = told.findings();
  const std::size_t read_files = options.files.size() - unread;
  if (options.json) {
    streams.out << findings_json(findings);
  } else {
    print(findings, options, read_files, streams);
  }
  if (!faults.empty()) throw LevelError(std::move(faults));
  return has_fault(findings) ? check_failed : done;
}

}  // namespace gaze::cli
