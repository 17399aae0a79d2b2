// A page that sends random messages: plays, jumps, steers, throws, tries values, keeps and reverts
// them, asks, shows overlays, and sends bytes that are not a message. The run continues, and memory
// does not grow.
//
// `scripts/thorough 110 'PageSoak.*'` sends messages for ten minutes.

#include <fmt/format.h>
#include <malloc.h>

#include <array>
#include <chrono>
#include <fstream>
#include <iostream>
#include <nlohmann/json.hpp>

#include "scenes.hpp"
#include "serve/conversation.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::json;
namespace fs = std::filesystem;

// Returns the allocated memory of the process, bytes.
double bytes_in_use() {
  const auto memory = mallinfo2();
  return static_cast<double>(memory.uordblks + memory.hblkhd);
}

class RandomPage {
 public:
  RandomPage(Session& session, std::uint64_t seed) : session_(session), random_(seed) {}

  std::string message() {
    const std::uint64_t choice = random_.next() % 20;
    if (choice < 4)
      return Json{{"do", "step"}, {"ticks", static_cast<int>(whole(200)) - 60}}.dump();
    if (choice < 6) return Json{{"do", "go_to"}, {"tick", number()}}.dump();
    if (choice < 8) return steer().dump();
    if (choice < 11) return attempt().dump();
    if (choice < 13) return overlay().dump();
    if (choice < 14) return hand().dump();
    if (choice < 15) return Json{{"do", "ask"}, {"agent", agent()}, {"other", agent()}}.dump();
    if (choice < 16) return noise();
    return simple().dump();
  }

 private:
  std::uint64_t whole(std::uint64_t below) { return random_.next() % below; }
  std::string agent() {
    const auto& agents = session_.game().level().agents;
    return whole(12) == 0 ? "nobody" : agents[whole(agents.size())].id;
  }
  double number() {
    constexpr std::array kOdd{-1e300, 20'001.0, 0.0, 1e-9, 86'400.0, 1e12, 12.0};
    return whole(3) == 0 ? kOdd[whole(kOdd.size())] : static_cast<double>(whole(1200));
  }
  double metres() { return whole(20) == 0 ? number() : random_.between(-2.0, 22.0); }
  Json place() { return {metres(), metres()}; }
  Json steer() {
    return {{"do", "steer"},        {"agent", agent()},       {"way", place()},
            {"aim", place()},       {"fires", whole(2) == 0}, {"quiet", whole(2) == 0},
            {"hops", whole(2) == 0}};
  }
  Json hand() {
    constexpr std::array kDeeds{"take", "drop", "throw", "juggle"};
    return {{"do", "hand"}, {"agent", agent()}, {"what", kDeeds[whole(4)]}, {"place", place()}};
  }
  Json attempt() {
    constexpr std::array kPaths{"seconds",
                                "ticks_per_second",
                                "kind.pruner.sight.range",
                                "kind.pruner.sight.field_of_view",
                                "kind.pruner.move.speed",
                                "kind.pruner.nonsense",
                                "seed"};
    return {{"do", "try"},
            {"path", kPaths[whole(kPaths.size())]},
            {"value", fmt::format("{}", whole(4) == 0 ? number() : random_.between(1.0, 90.0))}};
  }
  Json overlay() {
    constexpr std::array kWhat{"mesh", "reach", "", "weather"};
    return {{"do", "overlay"}, {"what", kWhat[whole(4)]}, {"agent", agent()}};
  }
  Json simple() {
    constexpr std::array kDoings{"play", "pause",      "restart",     "drop_values", "drop_ghost",
                                 "keep", "undo",       "let_go",      "save_take",   "load_take",
                                 "pace", "drop_ghost", "drop_values", "undo",        "sing"};
    return {{"do", kDoings[whole(kDoings.size())]},
            {"agent", agent()},
            {"name", fmt::format("take-{}", whole(3))},
            {"pace", number()}};
  }
  std::string noise() {
    std::string text = Json{{"do", "step"}, {"ticks", 3}}.dump();
    for (std::uint64_t i = whole(8); i > 0; --i) {
      text[whole(text.size())] = static_cast<char>(random_.next());
    }
    return text;
  }

  Session& session_;
  scenes::Random random_;
};

using PageSoak = testing::InTemporaryFolder;

TEST_F(PageSoak, AnswersAllAndDoesNotGrow) {
  fs::copy(fs::path(GAZE_DEMO).parent_path(), folder,
           fs::copy_options::recursive | fs::copy_options::overwrite_existing);
  Session session(folder / "propagation_house.toml", {},
                  [](const fs::path& file, const std::string& text) {
                    std::ofstream(file, std::ios::binary) << text;
                  });
  Conversation conversation(session);
  RandomPage page(session, 71);
  static_cast<void>(conversation.speak());
  const std::uint64_t count = testing::rounds(1200);
  std::size_t refused = 0;
  double longest = 0.0;
  double at_half = 0.0;
  for (std::uint64_t i = 0; i < count; ++i) {
    const std::string message = page.message();
    SCOPED_TRACE(message);
    const auto begin = std::chrono::steady_clock::now();
    conversation.hear(message);
    session.advance(1.0 / 30.0);
    session.look_at_files();
    for (const Said& said : conversation.speak()) {
      if (said.is_binary) continue;
      if (Json::parse(said.bytes)["tell"] == "refused") ++refused;
    }
    const std::chrono::duration<double> taken = std::chrono::steady_clock::now() - begin;
    longest = std::max(longest, taken.count());
    ASSERT_LE(session.game().tick(), session.run().end());
    if (i == count / 2) at_half = bytes_in_use();
  }
  const double grown = bytes_in_use() - at_half;
  std::cout << fmt::format("{} messages, {} refused, longest answer {:.3f} s, {:.1f} MB more\n",
                           count, refused, longest, grown / 1e6);
  EXPECT_GT(refused, testing::enough(count / 10));
  EXPECT_LT(refused, count);
  EXPECT_LT(grown, 30e6);
}

}  // namespace
}  // namespace gaze::serve
