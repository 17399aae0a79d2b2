#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>
#include <sstream>

#include "support/command.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

using testing::lines_of;

/// The level of the page as it grows: its tables, each with a line that tells it apart.
class GrowingLevel {
 public:
  // Tables stand apart by empty lines; one that is there already takes the place of the one before.
  void add(const std::string& block) {
    std::string table;
    for (const std::string& line : lines_of(block + "\n\n")) {
      if (!line.empty()) {
        table += line + "\n";
      } else if (!table.empty()) {
        put(std::move(table));
        table.clear();
      }
    }
  }

  std::string text() const {
    std::string text;
    for (const auto& [name, table] : tables_) text += table + "\n";
    return text;
  }

 private:
  void put(std::string table) {
    const std::string name = name_of(table);
    const auto it = std::find_if(tables_.begin(), tables_.end(),
                                 [&](const auto& entry) { return entry.first == name; });
    if (it == tables_.end()) {
      tables_.emplace_back(name, std::move(table));
    } else {
      it->second = std::move(table);
    }
  }

  static std::string name_of(const std::string& table) {
    const auto lines = lines_of(table);
    return lines[0] + (lines.size() > 1 && lines[1].starts_with("id =") ? lines[1] : "");
  }

  std::vector<std::pair<std::string, std::string>> tables_;
};

/// What a page shows of the command is called, and has to come back.
class Pages : public testing::InTemporaryFolder {
 protected:
  // Files that the page's reader writes are in a folder of their own; the demo is beside the page.
  std::string in_place(const std::string& word) const {
    if (word.starts_with("demo/")) return kSource + word;
    const std::string ending = std::filesystem::path(word).extension().string();
    const bool is_file = ending == ".toml" || ending == ".png" || ending == ".csv";
    return is_file && word.find('=') == std::string::npos ? (folder / word).string() : word;
  }

  static void erase_all(std::string& text, const std::string& part) {
    for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at)) {
      text.erase(at, part.size());
    }
  }

  // What a call prints, with the names of files as the page has them.
  std::vector<std::string> printed(const std::string& call) {
    std::istringstream words(call);
    std::vector<std::string> arguments;
    for (std::string word; words >> word;) arguments.push_back(in_place(word));
    const auto answer = testing::gaze_call({arguments.begin() + 2, arguments.end()});
    std::string text = answer.out + answer.err;
    erase_all(text, folder.string() + "/");
    erase_all(text, kSource);
    return lines_of(text);
  }

  // Line by line; "..." stands for any number of lines.
  static void compare(const std::vector<std::string>& shown, const std::vector<std::string>& real,
                      const std::string& call) {
    std::size_t at = 0;
    bool is_left_out = false;
    for (const std::string& line : shown) {
      if (line == "...") {
        is_left_out = true;
        continue;
      }
      while (is_left_out && at < real.size() && real[at] != line) ++at;
      ASSERT_LT(at, real.size()) << call << ": " << line;
      EXPECT_EQ(real[at], line) << call;
      ++at;
      is_left_out = false;
    }
    EXPECT_TRUE(is_left_out || at == real.size()) << call << ": there is more than is shown";
  }

  void run(const std::vector<std::string>& lines) {
    for (std::size_t i = 0; i < lines.size();) {
      const std::string call = lines[i++];
      ASSERT_TRUE(call.starts_with("$ gaze ")) << call;
      std::vector<std::string> shown;
      while (i < lines.size() && !lines[i].starts_with("$ ")) shown.push_back(lines[i++]);
      compare(shown, printed(call), call);
      ++calls_;
    }
  }

  // Calls `use(kind, text)` for each block of the page between fences, such as ("toml", ...).
  template <typename Use>
  static void for_blocks(const std::string& page, Use use) {
    std::string kind;
    std::string block;
    for (const std::string& line : lines_of(testing::bytes_of(kSource + page))) {
      if (!line.starts_with("```")) {
        if (!kind.empty()) block += line + "\n";
        continue;
      }
      if (!kind.empty()) use(kind, block);
      kind = kind.empty() ? line.substr(3) : "";
      block.clear();
    }
  }

  inline static const std::string kSource = GAZE_SOURCE "/";
  std::size_t calls_ = 0;
};

// Everything that the page has the reader write is written, and everything that it shows comes
// back.
TEST_F(Pages, AFirstLevelIsAsItSays) {
  GrowingLevel level;
  for_blocks("docs/first-level.md", [&](const std::string& kind, const std::string& block) {
    if (kind == "toml") {
      level.add(block);
      write("guard.toml", level.text());
    } else if (kind == "console") {
      run(lines_of(block));
    }
  });
  EXPECT_GE(calls_, 12U);
  EXPECT_TRUE(std::filesystem::exists(folder / "guard.png"));
}

// The level of this page is the demo, so its TOML has to stand there.
TEST_F(Pages, TryingALevelOutIsAsItSays) {
  const std::string level = testing::bytes_of(kSource + "demo/propagation_house.toml");
  for_blocks("docs/trying.md", [&](const std::string& kind, const std::string& block) {
    if (kind == "toml") {
      EXPECT_NE(level.find(block), std::string::npos) << block;
    } else if (kind == "console") {
      run(lines_of(block));
    }
  });
  EXPECT_GE(calls_, 9U);
  for (const char* file : {"vary.png", "map.png", "map.csv", "both.png", "sneak.png", "way.csv"}) {
    EXPECT_TRUE(std::filesystem::exists(folder / file)) << file;
  }
}

}  // namespace
}  // namespace gaze
