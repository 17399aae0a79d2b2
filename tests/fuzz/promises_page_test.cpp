// The page of promises names tests; all of them have to be there.

#include <gtest/gtest.h>

#include <filesystem>
#include <regex>
#include <set>

#include "support/text.hpp"

namespace gaze {
namespace {

std::set<std::string> names_of_tests() {
  std::set<std::string> names;
  const auto& all = *::testing::UnitTest::GetInstance();
  for (int i = 0; i < all.total_test_suite_count(); ++i) {
    const auto& suite = *all.GetTestSuite(i);
    for (int k = 0; k < suite.total_test_count(); ++k) {
      const std::string test = suite.GetTestInfo(k)->name();
      names.insert(std::string(suite.name()) + "." + test.substr(0, test.find('/')));
    }
  }
  return names;
}

TEST(PromisesPage, NamesTestsThatThereAre) {
  const auto docs = std::filesystem::path(GAZE_DEMO).parent_path().parent_path() / "docs";
  const std::string page = testing::bytes_of(docs / "promises.md");
  const std::set<std::string> names = names_of_tests();
  const std::regex name("`([A-Za-z/]+\\.[A-Z][A-Za-z]+)`");
  int count = 0;
  for (std::sregex_iterator it(page.begin(), page.end(), name), end; it != end; ++it) {
    EXPECT_TRUE(names.contains((*it)[1])) << (*it)[1];
    ++count;
  }
  EXPECT_GT(count, 50);
}

}  // namespace
}  // namespace gaze
