#pragma once

#include <array>
#include <span>
#include <string>
#include <vector>

#include "gaze/event.hpp"
#include "gaze/path.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"
#include "gaze/tools/compare.hpp"
#include "gaze/tools/differences.hpp"
#include "gaze/tools/expect.hpp"
#include "gaze/tools/figures.hpp"
#include "gaze/tools/finding.hpp"
#include "gaze/tools/sheet.hpp"
#include "gaze/tools/sneak.hpp"
#include "gaze/tools/vary.hpp"

/// What the command prints, as text and as JSON. Numbers in JSON are rounded to 9 decimals.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// One line of the timeline: time, what happened, and the rest in words.
[[nodiscard]] std::string timeline_line(const Simulation& simulation, const Event& event);

/// The timeline of a run, a line for each event. Blows of one agent with one attack at one other
/// that go on as before are one line: how many, hits and health lost.
[[nodiscard]] std::string timeline(const Simulation& simulation, std::span<const Event> events);

/// A table of all agents after a run, and what each did and suffered.
[[nodiscard]] std::string summary(const Simulation& simulation, std::span<const Event> events);

/// What one agent knows of another now, and why, in a few lines.
[[nodiscard]] std::string account(const Simulation& simulation, AgentId looker, AgentId other);

/// A line for each pair of which one looks for the other: whether it sees it, and why.
[[nodiscard]] std::string all_accounts(const Simulation& simulation);

/// The object that `gaze run --json` prints; `seconds` is how long the run was to last.
/// @param figures  Those that were taken, and what they came to, one for each.
[[nodiscard]] std::string run_json(const Simulation& simulation, std::span<const Event> events,
                                   std::span<const Figure> figures = {},
                                   std::span<const FigureValue> values = {});

/// A line for each figure: its name, what it came to, and what it is.
[[nodiscard]] std::string figure_table(std::span<const Figure> figures,
                                       std::span<const FigureValue> values);

/// The object that `gaze why --json` prints.
[[nodiscard]] std::string why_json(const Simulation& simulation, AgentId looker, AgentId other);

/// A path in a few lines: its outcome, length and reason, then its points.
[[nodiscard]] std::string path_account(const Level& level, const NavigationMesh& mesh,
                                       const Path& path, const std::string& kind,
                                       const std::string& reason);

/// The object that `gaze path --json` prints.
[[nodiscard]] std::string path_json(const Level& level, const NavigationMesh& mesh,
                                    const Path& path, const std::string& reason);

/// The list that `gaze check --json` prints.
[[nodiscard]] std::string findings_json(std::span<const Finding> findings);

/// "FILE:LINE:COLUMN: severity: message [code]"
[[nodiscard]] std::string finding_line(const Finding& finding);

/// A row for each finding about a pair of kinds, below a head of columns; empty if there is none.
/// Rows longer than so many columns are broken between words; 0: none are.
[[nodiscard]] std::string pair_table(std::span<const Finding> findings, std::size_t columns);

/// Lines that say of each whether it holds, and why not.
[[nodiscard]] std::string expect_text(std::span<const ExpectResult> results);
/// What came of one level.
struct LevelResults {
  std::string level;
  std::vector<ExpectResult> results;
};
/// The list that `gaze expect --json` prints, an object for each level.
[[nodiscard]] std::string expect_json(std::span<const LevelResults> levels);
/// The same as JUnit XML: a test suite for each level, a case for each expectation.
[[nodiscard]] std::string expect_junit(std::span<const LevelResults> levels);

/// A table of what figures came to: a row for each value, or for two values a table for each figure
/// with a row and a column for each of them; then where figures jump.
[[nodiscard]] std::string vary_text(const Variation& variation);
/// A line for each run of each point: the values, the run and the figures; empty where one is none.
[[nodiscard]] std::string vary_csv(const Variation& variation);
/// The object that `gaze vary --json` prints.
[[nodiscard]] std::string vary_json(const Variation& variation);

/// Where a wish begins or ceases to hold, with what was played on both sides.
[[nodiscard]] std::string find_text(const Search& search);
/// The object that `gaze find --json` prints.
[[nodiscard]] std::string find_json(const Search& search);

/// Where two runs part, what their levels have differently, and their figures and events side by
/// side.
/// @param names  Of the two.
[[nodiscard]] std::string compare_text(const Comparison& comparison,
                                       std::span<const ValueDifference> values,
                                       const std::array<std::string, 2>& names);
/// The object that `gaze compare --json` prints.
[[nodiscard]] std::string compare_json(const Comparison& comparison,
                                       std::span<const ValueDifference> values,
                                       const std::array<std::string, 2>& names);

/// The balance sheet: a block for each pair of kinds; what was played is said to be so.
[[nodiscard]] std::string sheet_text(std::span<const SheetRow> rows);
/// A line for each pair; empty where a number is none.
[[nodiscard]] std::string sheet_csv(std::span<const SheetRow> rows);
/// The list that `gaze sheet --json` prints.
[[nodiscard]] std::string sheet_json(std::span<const SheetRow> rows);

/// What came of the search for a way that nobody notices.
[[nodiscard]] std::string sneak_text(const Level& level, const SneakTask& task, const Sneak& sneak);
/// The object that `gaze sneak --json` prints.
[[nodiscard]] std::string sneak_json(const SneakTask& task, const Sneak& sneak);

}  // namespace gaze
GAZE_PUBLIC_END
