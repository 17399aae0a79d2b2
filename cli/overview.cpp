#include <fmt/format.h>
#include <fmt/ranges.h>

#include <nlohmann/json.hpp>

#include "level/numbers.hpp"
#include "level/rounded.hpp"
#include "stretch.hpp"

namespace gaze::cli {
namespace {

std::string headline(const Overview& all, const std::string& agent, const std::string& other) {
  const std::string over = fmt::format("Over {:.2f} s {}", all.seconds, agent);
  if (all.noticed.empty()) return fmt::format("{} never notices {}.\n", over, other);
  const std::size_t times = all.noticed.size();
  return fmt::format("{} notices {} {}.\n", over, other,
                     times == 1 ? "once" : fmt::format("{} times", times));
}

std::string test_text(const Overview::Test& test, double seconds) {
  const std::string failed = test.failed > 0.0
                                 ? fmt::format("fails for {:.2f} of {:.2f} s", test.failed, seconds)
                                 : std::string("always passes");
  const bool is_range = test.name == "range";
  return fmt::format(
      "  {:<14} {}; best at {:.3f} s: {}\n", test.name, failed, test.at,
      beside_limit(test.best, test.limit, is_range ? " m" : " degrees off", is_range ? 2 : 1));
}

}  // namespace

std::string overview_text(const Overview& all, const std::string& agent, const std::string& other,
                          double notice_seconds) {
  std::string text = headline(all, agent, other);
  for (const Overview::Noticed& one : all.noticed) {
    text += fmt::format("  {:<14} from {:.3f} s to {:.3f} s{}\n", "noticed", one.from, one.to,
                        one.by ? fmt::format(", by {}", name_of(*one.by)) : "");
  }
  text += fmt::format("  {:<14} {:.2f} m, at {:.3f} s\n", "nearest", all.nearest, all.nearest_at);
  for (const Overview::Test& test : all.tests) text += test_text(test, all.seconds);
  if (all.hidden > 0.0) {
    text += fmt::format("  {:<14} fails for {:.2f} s: {}\n", "line of sight", all.hidden,
                        fmt::join(all.solids, ", "));
  }
  for (const std::string& hindrance : all.hindrances) {
    text += fmt::format("  {:<14} {}\n", "at times", hindrance);
  }
  if (all.tests.empty()) return text;
  if (all.seen == 0.0) return text + fmt::format("  {:<14} never at once\n", "all pass");
  text += fmt::format("  {:<14} for {:.2f} s at the longest, from {:.3f} s", "all pass", all.seen,
                      all.seen_from);
  if (!all.noticed.empty()) return text + "\n";
  return text + fmt::format(
                    "; noticing takes {:.2f} s or more, and {:.0f} % of that was gathered "
                    "at most\n",
                    notice_seconds, all.evidence * 100.0);
}

std::string overview_json(const Overview& all, const std::string& agent, const std::string& other) {
  nlohmann::ordered_json json;
  json["agent"] = agent;
  json["other"] = other;
  json["seconds"] = rounded(all.seconds);
  json["noticed"] = nlohmann::ordered_json::array();
  for (const Overview::Noticed& one : all.noticed) {
    json["noticed"].push_back({{"from", rounded(one.from)}, {"to", rounded(one.to)}});
    if (one.by) json["noticed"].back()["by"] = name_of(*one.by);
  }
  json["nearest"] = {{"distance", rounded(all.nearest)}, {"at", rounded(all.nearest_at)}};
  json["tests"] = nlohmann::ordered_json::array();
  for (const Overview::Test& test : all.tests) {
    json["tests"].push_back({{"test", test.name},
                             {"failed", rounded(test.failed)},
                             {"best", rounded(test.best)},
                             {"limit", rounded(test.limit)},
                             {"at", rounded(test.at)}});
  }
  json["hidden"] = rounded(all.hidden);
  json["solids"] = all.solids;
  json["hindrances"] = all.hindrances;
  json["seen"] = rounded(all.seen);
  json["evidence"] = rounded(all.evidence);
  return json.dump(1) + "\n";
}

}  // namespace gaze::cli
