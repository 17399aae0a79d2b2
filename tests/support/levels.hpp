#pragma once

#include <gtest/gtest.h>

#include <algorithm>
#include <cstdlib>
#include <string>

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

/// Defined by the run-time library of the address sanitizer, if the program is linked with it.
extern "C" __attribute__((weak)) void __asan_init();

/// Small levels for tests, written as a designer would.
namespace gaze::testing {

/// Returns whether the library under test is built with the address sanitizer. The tests themselves
/// are not.
inline bool is_sanitized() {
  return __asan_init != nullptr;
}

/// Fraction of the rounds of random tests that run: the number in GAZE_ROUNDS if that is set. Else
/// all; under sanitizers a twelfth, for each round takes six times as long there, and they look for
/// reads and writes out of bounds, not for wrong answers.
inline double fraction_of_rounds() {
  const char* fraction = std::getenv("GAZE_ROUNDS");
  if (fraction != nullptr) return std::strtod(fraction, nullptr);
  return is_sanitized() ? 1.0 / 12.0 : 1.0;
}

/// Rounds that a random test runs of `count`: at least 1.
inline std::uint64_t rounds(std::uint64_t count) {
  const double product = static_cast<double>(count) * fraction_of_rounds();
  return static_cast<std::uint64_t>(std::max(1.0, product));
}

/// Minimum number of cases of one sort that a random test must meet, so that it cannot pass without
/// testing anything. `count` if all rounds run. With fewer rounds half of that fraction of `count`,
/// because few rounds vary more.
template <typename Count>
Count enough(Count count) {
  const double fraction = fraction_of_rounds();
  if (fraction >= 1.0) return count;
  return static_cast<Count>(static_cast<double>(count) * fraction / 2.0);
}

inline const char* const kTeams = R"(
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]
)";

/// A line of its own; nothing if it is empty.
inline std::string line_of(const std::string& text) {
  return text.empty() || text.back() == '\n' ? text : text + "\n";
}

/// An agent of a level file; `more` are further lines of its table.
inline std::string placed(const std::string& id, const std::string& kind, const std::string& at,
                          const std::string& more = "") {
  return "[[agent]]\nid = \"" + id + "\"\nkind = \"" + kind + "\"\nat = " + at + "\n" +
         line_of(more);
}

/// A brick wall of a level file along a path.
inline std::string wall(const std::string& id, const std::string& path,
                        const std::string& more = "") {
  return "[[wall]]\nid = \"" + id + "\"\nmaterial = \"brick\"\npath = " + path + "\n" +
         line_of(more);
}

/// A block of brick of a level file.
inline std::string block(const std::string& id, const std::string& outline,
                         const std::string& more = "") {
  return "[[block]]\nid = \"" + id + "\"\nmaterial = \"brick\"\noutline = " + outline + "\n" +
         line_of(more);
}

/// Reads a level from text with the two teams of the garden added.
inline Level garden(const std::string& text, const std::vector<Setting>& settings = {}) {
  return read_level_text(text + kTeams, "garden.toml", settings);
}

/// All events of a run of so many steps.
inline std::vector<Event> play(Simulation& simulation, std::int64_t steps) {
  std::vector<Event> events;
  for (std::int64_t i = 0; i < steps; ++i) {
    simulation.step();
    events.insert(events.end(), simulation.events().begin(), simulation.events().end());
  }
  return events;
}

inline std::vector<Event> only(const std::vector<Event>& events, Event::What what) {
  std::vector<Event> result;
  for (const Event& event : events) {
    if (event.what == what) result.push_back(event);
  }
  return result;
}

inline double seconds_of(const Event& event, const Simulation& simulation) {
  return static_cast<double>(event.tick) / simulation.level().ticks_per_second;
}

/// The texts of all faults of a level that must not be readable.
inline std::string faults_of(const std::string& text, const std::vector<Setting>& settings = {}) {
  try {
    static_cast<void>(read_level_text(text, "bad.toml", settings));
  } catch (const LevelError& error) {
    std::string lines;
    for (const Fault& fault : error.faults()) lines += fault.text() + "\n";
    return lines;
  }
  return "readable";
}

/// The messages of all findings of one sort about a level of the garden.
inline std::vector<std::string> findings_of(const std::string& text, const std::string& code,
                                            const std::vector<Setting>& settings = {}) {
  std::vector<std::string> messages;
  for (const Finding& finding : judge(garden(text, settings))) {
    if (finding.code == code) messages.push_back(finding.message);
  }
  return messages;
}

/// One block over a rectangle, brick, from the ground up.
inline Solid box(const Vector2d& low, const Vector2d& high, double height = 2.5) {
  Solid solid;
  solid.id = "box";
  solid.points = {low, {high.x(), low.y()}, high, {low.x(), high.y()}};
  solid.height = height;
  return solid;
}

/// A mesh of square cells of two triangles each, `cells` each way from the origin on.
/// @param height  Of its corners, by column and row.
template <typename Height>
Solid terrain(int cells, double cell, Height&& height) {
  Solid solid;
  solid.id = "hills";
  solid.form = Solid::Form::mesh;
  const auto place = [&](int i, int j) { return Vector3d{i * cell, j * cell, height(i, j)}; };
  for (int i = 0; i < cells; ++i) {
    for (int j = 0; j < cells; ++j) {
      solid.triangles.push_back({place(i, j), place(i + 1, j), place(i + 1, j + 1)});
      solid.triangles.push_back({place(i, j), place(i + 1, j + 1), place(i, j + 1)});
    }
  }
  return solid;
}

inline Level level_of(std::vector<Solid> solids, Plane plane = Plane::ground) {
  Level level;
  level.plane = plane;
  level.solids = std::move(solids);
  return level;
}

}  // namespace gaze::testing
