#include "serve/checks_message.hpp"

#include <nlohmann/json.hpp>
#include <sstream>

#include "gaze/tools/report.hpp"
#include "geometry/plan.hpp"
#include "level/rounded.hpp"
#include "serve/json_text.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::ordered_json;

using Points = std::vector<Vector2d>;

/// Which of the things of a level begins last before a line of a file: the finding is about that.
class Nearest {
 public:
  explicit Nearest(const Place& place) : place_(place) {}

  void offer(const Place& own, const Points& points) {
    const bool is_before = own.file == place_.file && own.line > 0 && own.line <= place_.line;
    if (!is_before || own.line <= line_) return;
    line_ = own.line;
    points_ = points;
  }
  const Points& points() const { return points_; }

 private:
  const Place& place_;
  int line_ = 0;
  Points points_;
};

Points first_of_kind(const Level& level, const Kind& kind) {
  for (const Agent& agent : level.agents) {
    if (&level.kind_of(agent) == &kind) return {plan_part(level.plane, agent.position)};
  }
  return {};
}

// None, or those whose middle it is.
Points points_at(const Level& level, const Place& place) {
  Nearest nearest(place);
  for (const Agent& agent : level.agents) {
    nearest.offer(agent.place, {plan_part(level.plane, agent.position)});
  }
  for (const Kind& kind : level.kinds) nearest.offer(kind.place, first_of_kind(level, kind));
  for (const Solid& solid : level.solids) {
    const Points ends{plan_part(level.plane, solid.from), plan_part(level.plane, solid.to)};
    nearest.offer(solid.place, solid.points.empty() ? ends : solid.points);
  }
  for (const Zone& zone : level.zones) nearest.offer(zone.place, zone.outline);
  return nearest.points();
}

Json finding_json(const Finding& finding, const Level& level) {
  Json json{{"severity", name_of(finding.severity)},
            {"code", finding.code},
            {"message", finding.message},
            {"line", finding.place.line}};
  const Points points = points_at(level, finding.place);
  if (points.empty()) return json;
  Vector2d middle{0.0, 0.0};
  for (const Vector2d& p : points) middle += p / static_cast<double>(points.size());
  json["place"] = {rounded(middle.x()), rounded(middle.y())};
  return json;
}

// The first line is the expectation and what it came to, the others are what led there.
Json expectation_json(const ExpectResult& result) {
  std::istringstream lines(expect_text({&result, 1}));
  std::string line;
  std::getline(lines, line);
  Json json{{"holds", result.holds}, {"text", line.substr(std::min<std::size_t>(7, line.size()))}};
  json["reasons"] = Json::array();
  while (std::getline(lines, line)) {
    json["reasons"].push_back(line.substr(std::min(line.find_first_not_of(' '), line.size())));
  }
  return json;
}

}  // namespace

std::string checks_message(const Checked& checked, const Level& level) {
  Json json{{"tell", "checks"}, {"is_done", checked.is_done}};
  json["findings"] = Json::array();
  for (const Finding& finding : checked.findings) {
    json["findings"].push_back(finding_json(finding, level));
  }
  json["expectations"] = Json::array();
  for (const ExpectResult& one : checked.expectations) {
    json["expectations"].push_back(expectation_json(one));
  }
  return json_text(json);
}

}  // namespace gaze::serve
