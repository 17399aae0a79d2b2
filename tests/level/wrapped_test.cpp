// Long lines in a narrow terminal.

#include <sstream>

#include "level/spelling.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

TEST(Wrapped, BreaksBetweenWordsWithAHangingIndent) {
  EXPECT_EQ(wrapped("one two three four", 9, 2), "one two\n  three\n  four");
  EXPECT_EQ(wrapped("one two three four", 10, 2), "one two\n  three\n  four");
  EXPECT_EQ(wrapped("one two three four", 13, 2), "one two three\n  four");
  EXPECT_EQ(wrapped("one two", 7, 2), "one two");
  EXPECT_EQ(wrapped("one two", 0, 2), "one two");
  EXPECT_EQ(wrapped("", 5, 2), "");
  EXPECT_EQ(wrapped("unbreakable but", 5, 2), "unbreakable\n  but");  // longer than the terminal
}

// Put together again it is the line; no part is too long, but for a single word.
TEST(Wrapped, LosesNothing) {
  scenes::Random random(4);
  for (int i = 0; i < 500; ++i) {
    std::string line;
    for (int k = 0; k < 12; ++k) {
      if (k > 0) line += ' ';
      line += std::string(1 + random.next() % 14, static_cast<char>('a' + k));
    }
    const std::size_t columns = 6 + random.next() % 40;
    std::istringstream parts(wrapped(line, columns, 4));
    std::string together;
    for (std::string part; std::getline(parts, part);) {
      if (!together.empty()) {
        ASSERT_EQ(part.substr(0, 4), "    ");
        part = part.substr(4);
        together += ' ';
        if (part.find(' ') != std::string::npos) {
          ASSERT_LE(part.size() + 4, columns);
        }
      } else if (part.find(' ') != std::string::npos) {
        ASSERT_LE(part.size(), columns);
      }
      together += part;
    }
    EXPECT_EQ(together, line);
  }
}

}  // namespace
}  // namespace gaze
