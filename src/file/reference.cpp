#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cctype>

#include "gaze/tools/level_keys.hpp"
#include "level/spelling.hpp"
#include "values/key_text.hpp"
#include "values/keys.hpp"

/// The keys as a page to read.
namespace gaze {
namespace {

constexpr std::size_t kMostColumns = 120;
constexpr std::size_t kTextColumns = 100;

// As pages on the web make it out of a heading.
std::string anchor_of(std::string_view title) {
  std::string anchor;
  for (const char c : title) {
    const auto letter = static_cast<unsigned char>(c);
    if (std::isalnum(letter) != 0) anchor += static_cast<char>(std::tolower(letter));
    if (c == ' ' || c == '-') anchor += '-';
  }
  return anchor;
}

std::string heading_of(const KeyTable& table) {
  return table.title.starts_with("[") ? fmt::format("`{}`", table.title) : std::string(table.title);
}

bool has_ways(const KeyTable& table) {
  return std::any_of(table.keys.begin(), table.keys.end(),
                     [](const Key& key) { return !key.only_for.empty(); });
}

std::string row_of(const KeyTable& table, const Key& key, const std::string& type) {
  const std::string_view whose = key.only_for.empty() ? "all" : key.only_for;
  const std::string ways = has_ways(table) ? fmt::format(" {} |", whose) : "";
  return fmt::format("| `{}` |{} {} | {} | {} |\n", key.name, ways, type, left_out_text(key),
                     key.meaning);
}

// What would make a row too long stands below the table.
std::string rows_of(const KeyTable& table, std::string& notes) {
  std::string rows;
  for (const Key& key : table.keys) {
    std::string row = row_of(table, key, type_text(key));
    std::string note(key.note);
    if (row.size() > kMostColumns) {
      row = row_of(table, key, "see below");
      note = fmt::format("{}.{}{}", type_text(key), note.empty() ? "" : " ", note);
    }
    rows += row;
    if (!note.empty())
      notes += wrapped(fmt::format("- `{}`: {}", key.name, note), kTextColumns, 2) + "\n";
  }
  return rows;
}

std::string section_of(const KeyTable& table) {
  std::string notes;
  const std::string rows = rows_of(table, notes);
  const std::string_view ways = has_ways(table) ? " for |" : "";
  const std::string_view line = has_ways(table) ? "---|" : "";
  return fmt::format(
      "### {}\n\n{}\n\n| key |{} type, range | left out | meaning |\n|---|{}---|---|---|\n{}\n{}{}"
      "```toml\n{}```\n\n",
      heading_of(table), wrapped(table.intro, kTextColumns, 0), ways, line, rows, notes,
      notes.empty() ? "" : "\n", table.example);
}

}  // namespace

std::string level_reference() {
  std::string page;
  for (const KeyTable* table : all_key_tables()) {
    page += fmt::format("- [{}](#{})\n", heading_of(*table), anchor_of(table->title));
  }
  page += '\n';
  for (const KeyTable* table : all_key_tables()) page += section_of(*table);
  page.pop_back();
  return page;
}

std::string level_example() {
  std::string text;
  for (const KeyTable* table : all_key_tables()) text += fmt::format("{}\n", table->example);
  return text;
}

}  // namespace gaze
