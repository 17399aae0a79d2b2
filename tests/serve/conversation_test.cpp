#include "serve/conversation.hpp"

#include <fmt/format.h>

#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>

#include "scenes.hpp"
#include "serve/frame_reader.hpp"
#include "support/levels.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::json;

/// A page and a session without any socket.
struct Page {
  Session session{GAZE_DEMO, {}, [](const std::filesystem::path&, const std::string&) {
                    throw UsageError("nothing is written here");
                  }};
  Conversation conversation{session};

  /// Says something, and gives what it is told by name; of several of one name the last.
  std::map<std::string, Json> say(const Json& message) {
    conversation.hear(message.dump());
    return hear();
  }
  std::map<std::string, Json> hear() {
    std::map<std::string, Json> told;
    frames.clear();
    for (const Said& said : conversation.speak()) {
      if (said.is_binary) {
        frames.push_back(testing::read_frame(said.bytes));
      } else {
        Json json = Json::parse(said.bytes);
        told[json["tell"]] = json;
      }
    }
    return told;
  }
  std::vector<testing::ReadFrame> frames;
};

TEST(Conversation, BeginsWithAllThatThereIs) {
  Page page;
  const auto told = page.hear();
  for (const char* name :
       {"level", "state", "values", "faults", "takes", "changes", "figures", "checks"}) {
    EXPECT_TRUE(told.contains(name)) << name;
  }
  EXPECT_EQ(told.at("level")["name"], "Propagation house, after closing");
  EXPECT_EQ(told.at("state")["tick"], 0);
  EXPECT_EQ(told.at("level")["meanings"].size(), static_cast<std::size_t>(Meaning::shot) + 1);
  ASSERT_EQ(page.frames.size(), 2U);
  EXPECT_EQ(page.frames[0].of, 1U);
  EXPECT_EQ(page.frames[1].of, 2U);
  // Nothing is told twice, but for what the checker finds meanwhile.
  for (const auto& [name, message] : page.hear()) EXPECT_EQ(name, "checks");
  EXPECT_TRUE(page.frames.empty());
}

TEST(Conversation, TellsWhatASimulationSays) {
  Page page;
  static_cast<void>(page.say({{"do", "ask"}, {"agent", "pruner-1"}, {"other", "collector"}}));
  const auto told = page.say({{"do", "step"}, {"ticks", 240}});
  Simulation game(read_level(GAZE_DEMO));
  std::size_t events = 0;
  for (int i = 0; i < 240; ++i) {
    game.step();
    events += game.events().size();
  }
  EXPECT_EQ(told.at("state")["tick"], 240);
  EXPECT_EQ(told.at("events")["list"].size(), events);
  const Verdict verdict = game.look("pruner-1", "collector");
  const Json& why = told.at("why")["why"];
  EXPECT_NEAR(why["tests"][0]["value"].get<double>(), verdict.range.value, 1e-8);
  EXPECT_EQ(why["sees"], verdict.sees);
  const Json& history = told.at("history");
  ASSERT_EQ(history["ticks"].size(), 41U);
  EXPECT_EQ(history["ticks"][40], 240);
  EXPECT_NEAR(history["distance"][40].get<double>(), verdict.range.value, 0.006);
  EXPECT_EQ(history["limits"]["distance"], verdict.range.limit);
}

TEST(Conversation, ValuesHaveUnitRangeDefaultAndPlace) {
  Page page;
  const auto told = page.hear();
  bool is_there = false;
  for (const Json& value : told.at("values")["kinds"]["pruner"]) {
    if (value["path"] != "kind.pruner.sight.range") continue;
    is_there = true;
    EXPECT_EQ(value["value"], 7.0);
    EXPECT_EQ(value["unit"], "m");
    EXPECT_EQ(value["low"], 0.0);
    EXPECT_TRUE(value["above_low"]);
    EXPECT_FALSE(value["meaning"].get<std::string>().empty());
    // The file and line at which it stands.
    const std::string set_at = value["set_at"];
    const std::size_t colon = set_at.find(':');
    std::ifstream file(std::filesystem::path(GAZE_DEMO).parent_path() / set_at.substr(0, colon));
    std::string line;
    for (int i = std::stoi(set_at.substr(colon + 1)); i > 0; --i) std::getline(file, line);
    EXPECT_NE(line.find("range = 7"), std::string::npos) << line;
  }
  EXPECT_TRUE(is_there);
}

TEST(Conversation, EventsThatAreForgottenAreTakenBack) {
  Page page;
  auto told = page.say({{"do", "step"}, {"ticks", 600}});
  const std::size_t all = told.at("events")["list"].size();
  static_cast<void>(page.say({{"do", "go_to"}, {"tick", 200}}));
  told = page.say({{"do", "steer"}, {"agent", "collector"}, {"way", {0.0, 1.0}}});
  const std::size_t from = told.at("events")["from"];
  EXPECT_LT(from, all);
  EXPECT_TRUE(told.at("events")["list"].empty());
  EXPECT_EQ(page.session.run().events().size(), from);
  EXPECT_TRUE(told.at("changes")["has_ghost"]);
  EXPECT_EQ(told.at("state")["steered"], Json::array({"collector"}));
}

double area_of(const testing::FrameMark& mark) {
  double twice = 0.0;
  for (std::size_t i = 0; i < mark.points.size(); ++i) {
    const auto& [x, y] = mark.points[i];
    const auto& [next_x, next_y] = mark.points[(i + 1) % mark.points.size()];
    twice += static_cast<double>(x) * static_cast<double>(next_y) -
             static_cast<double>(next_x) * static_cast<double>(y);
  }
  return std::abs(twice) / 2e6;  // square metres
}

// The polygons of a mesh, and the spots that an attack reaches, have the areas that they should.
TEST(Conversation, LaysMeshAndReachOverTheLevel) {
  Page page;
  static_cast<void>(page.hear());
  auto told = page.say({{"do", "overlay"}, {"what", "mesh"}, {"agent", "pruner-1"}});
  const Simulation& game = page.session.game();
  const auto mesh = game.mesh(game.agent("pruner-1"));
  ASSERT_TRUE(mesh);
  EXPECT_EQ(told.at("overlay")["names"].size(), mesh->islands().size());
  ASSERT_EQ(page.frames.size(), 1U);
  EXPECT_EQ(page.frames[0].of, 4U);
  double area = 0.0;
  for (const auto& mark : page.frames[0].marks) area += area_of(mark);
  EXPECT_NEAR(area, mesh->area(), 0.002 * mesh->area());

  told = page.say({{"do", "overlay"}, {"what", "reach"}, {"agent", "pruner-1"}});
  ASSERT_EQ(told.at("overlay")["names"].size(), 1U);
  const std::string name = told.at("overlay")["names"][0];  // "shears: 3.24 m² upon a collector"
  EXPECT_TRUE(name.starts_with("shears: ")) << name;
  area = 0.0;
  for (const auto& mark : page.frames.back().marks) area += area_of(mark);
  EXPECT_NEAR(area, std::stod(name.substr(8)), 0.01);
  EXPECT_GT(area, 0.5);

  told = page.say({{"do", "overlay"}, {"what", ""}, {"agent", "pruner-1"}});
  EXPECT_TRUE(page.frames.back().marks.empty());
  EXPECT_TRUE(
      page.say({{"do", "overlay"}, {"what", "x"}, {"agent", "pruner-1"}}).contains("refused"));
}

// Whoever is asked about whom, things and the defeated too, in each plane.
TEST(Conversation, EverybodyCanBeAskedAboutEverybody) {
  for (const char* name : {"propagation_house", "terraces", "root_cellar", "sense_rooms"}) {
    if (testing::is_sanitized() && name != std::string_view("root_cellar")) continue;
    Session session(std::string(GAZE_SOURCE) + "/demo/" + name + ".toml", {},
                    [](const std::filesystem::path&, const std::string&) {});
    Conversation page(session);
    for (std::uint64_t part = 0; part < testing::rounds(3); ++part) {
      const auto agents = session.game().agents();
      for (const AgentId agent : agents) {
        const std::string id = session.game().id_of(agent);
        page.hear(Json{{"do", "overlay"}, {"what", "mesh"}, {"agent", id}}.dump());
        for (const AgentId other : agents) {
          const std::string whom = session.game().id_of(other);
          page.hear(Json{{"do", "ask"}, {"agent", id}, {"other", whom}}.dump());
          bool is_answered = false;
          for (const Said& said : page.speak()) {
            if (said.is_binary) continue;
            const Json told = Json::parse(said.bytes);
            EXPECT_NE(told["tell"], "refused") << id << " " << whom << " " << told;
            is_answered = is_answered || told["tell"] == "why";
          }
          EXPECT_TRUE(is_answered || !session.game().is_there(agent)) << id << " " << whom;
        }
      }
      session.step(500);
    }
  }
}

TEST(Conversation, SaysWhatItCannotDo) {
  Page page;
  static_cast<void>(page.hear());
  const std::vector<std::pair<std::string, std::string>> refusals{
      {"{", "a message that is no JSON"},
      {"[]", "a message is an object"},
      {"{}", "'do' is to be a text"},
      {R"({"do": "dance"})", "there is no message 'dance'"},
      {R"({"do": "go_to"})", "'tick' is to be a number"},
      {R"({"do": "go_to", "tick": 1e300})", "'tick' is out of all range"},
      {R"({"do": "pace", "pace": 100})", "a pace of 100; 0.05 to 8 is allowed"},
      {R"({"do": "steer", "agent": "collector", "way": [1]})",
       "'way' is to be a list of two numbers"},
      {R"({"do": "steer", "agent": "collectr", "way": [0, 1]})", "there is no agent 'collectr'"},
      {R"({"do": "hand", "agent": "collector", "what": "juggle"})",
       "'juggle' is no deed: take, throw, drop"},
      {R"({"do": "undo"})", "nothing has been written that could be taken back"},
      {R"({"do": "save_take", "name": "../x", "agent": "collector"})",
       "a take is named by up to 60 letters, digits, - and _"},
  };
  for (const auto& [message, why] : refusals) {
    page.conversation.hear(message);
    const auto told = page.hear();
    ASSERT_TRUE(told.contains("refused")) << message;
    EXPECT_EQ(told.at("refused")["why"], why) << message;
  }
}

std::string some_message(scenes::Random& random) {
  const char* names[] = {"play",  "pause",  "pace",   "step",       "go_to",       "restart",
                         "steer", "let_go", "hand",   "try",        "drop_values", "keep",
                         "undo",  "ask",    "layers", "drop_ghost", "save_take",   "load_take"};
  const Json odd[] = {nullptr,
                      true,
                      -1,
                      1e308,
                      -1e308,
                      0.5,
                      "",
                      "collector",
                      "pruner-1",
                      "take",
                      "throw",
                      "kind.pruner.sight.range",
                      "5",
                      "\xC3\xA9",
                      Json::array(),
                      Json::array({1, 2}),
                      Json::array({1e308, -1e308}),
                      Json::object(),
                      100000};
  const char* keys[] = {"agent", "other", "way",  "aim",   "place", "what",  "tick",
                        "ticks", "pace",  "path", "value", "name",  "fires", "trails"};
  Json message{{"do", names[random.next() % std::size(names)]}};
  for (std::uint64_t i = random.next() % 6; i > 0; --i) {
    message[keys[random.next() % std::size(keys)]] = odd[random.next() % std::size(odd)];
  }
  std::string text = message.dump();
  if (random.next() % 4 == 0) {  // broken on the way
    for (std::uint64_t i = 1 + random.next() % 4; i > 0; --i) {
      text[random.next() % text.size()] = static_cast<char>(random.next());
    }
  }
  return text;
}

// Whatever a page sends, the play goes on, and what is told can be read.
TEST(Conversation, GoesOnWhateverItHears) {
  Page page;
  scenes::Random random(11);
  for (std::uint64_t i = 0; i < testing::rounds(1500); ++i) {
    page.conversation.hear(some_message(random));
    page.session.advance(0.02);
    static_cast<void>(page.hear());
  }
  page.conversation.hear(std::string(60'000, '['));
  page.conversation.hear(std::string("\0\xff\xfe", 3));
  static_cast<void>(page.hear());
  const std::int64_t tick = page.session.game().tick();
  static_cast<void>(page.say({{"do", "step"}, {"ticks", 1}}));
  EXPECT_EQ(page.session.game().tick(), tick + 1);
}

}  // namespace
}  // namespace gaze::serve
