#include "serve/replay.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>

#include "gaze/level_file.hpp"
#include "serve/checks_message.hpp"
#include "serve/conversation.hpp"
#include "serve/json_text.hpp"
#include "serve/level_message.hpp"
#include "serve/moment.hpp"
#include "serve/packed.hpp"
#include "serve/page_files.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::ordered_json;

constexpr int kFramesASecond = 30;
constexpr int kAnswersASecond = 5;

// So many ticks from one to the next.
std::int64_t every(const Level& level, int a_second) {
  return std::max(1, level.ticks_per_second / a_second);
}

/// What somebody may ask about: of all pairs those of whom one looks for the other, and everybody
/// alone. An answer that is as the one before, but for the time, is not told again.
class Answers {
 public:
  explicit Answers(const Simulation& game) {
    for (const AgentId agent : game.agents()) {
      add(game, agent, std::nullopt);
      for (const AgentId other : game.agents()) {
        const Level& level = game.level();
        const bool looks =
            agent != other && is_hostile(level, level.kind_of(level.agents[agent.index]).team,
                                         level.kind_of(level.agents[other.index]).team);
        if (looks) add(game, agent, other);
      }
    }
  }

  void note(const Simulation& game) {
    for (Pair& pair : pairs_) {
      std::string message = why_message(game, pair.agent, pair.other);
      if (message.empty()) continue;
      Json json = Json::parse(message);
      json.erase("tick");
      if (json.contains("why")) json["why"].erase("time");
      // The text of it says the same.
      json.erase("account");
      std::string text = json_text(json);
      if (text == pair.last) continue;
      pair.last = text;
      pair.list += fmt::format("{}[{},{}]", pair.list.empty() ? "" : ",", game.tick(), text);
    }
  }

  /// For each pair a packed list of ticks and answers.
  void put(Json& json) const {
    for (const Pair& pair : pairs_) {
      json.push_back({{"agent", pair.agent},
                      {"other", pair.other},
                      {"packed", base64_of(deflated("[" + pair.list + "]"))}});
    }
  }

 private:
  struct Pair {
    std::string agent;
    std::string other;
    std::string last;
    std::string list;
  };

  void add(const Simulation& game, AgentId agent, std::optional<AgentId> other) {
    pairs_.push_back({game.id_of(agent), other ? game.id_of(*other) : "", "", ""});
  }

  std::vector<Pair> pairs_;
};

// Frames one behind the other, each with its length before it.
void append(std::string& frames, const std::string& frame) {
  for (unsigned shift = 0; shift < 32; shift += 8) {
    frames.push_back(static_cast<char>(frame.size() >> shift & 0xFFU));
  }
  frames += frame;
}

Json play_of(const Session& session) {
  const Run& run = session.run();
  const Level& level = session.game().level();
  std::string frames;
  GroundFrames ground;
  Simulation game = run.at(0);
  Answers answers(game);
  while (true) {
    const bool is_last = game.tick() == run.end();
    if (const auto frame = ground.next(game)) append(frames, *frame);
    if (is_last || game.tick() % every(level, kFramesASecond) == 0) {
      append(frames, moment_frame(game, &run.trails()));
    }
    if (is_last || game.tick() % every(level, kAnswersASecond) == 0) answers.note(game);
    if (is_last) break;
    run.inputs().apply(game);
    game.step();
  }
  Json json{{"end", run.end()}, {"frames", base64_of(deflated(frames))}};
  json["answers"] = Json::array();
  answers.put(json["answers"]);
  return json;
}

Checked checked(const Session& session) {
  Checked all;
  all.is_done = true;
  all.findings = judge(session.game().level());
  all.expectations = expect(session.source());
  return all;
}

// What a page of a server would be told at the end of the play, but for what is of a moment.
Json messages_of(Session& session) {
  constexpr std::array<std::string_view, 4> kLasting{"level", "values", "events", "figures"};
  Json messages = Json::array();
  for (const Said& said : Conversation(session).speak()) {
    if (said.is_binary) continue;
    Json message = Json::parse(said.bytes);
    const auto name = message["tell"].get<std::string>();
    if (std::find(kLasting.begin(), kLasting.end(), name) != kLasting.end()) {
      messages.push_back(std::move(message));
    }
  }
  messages.push_back(Json::parse(checks_message(checked(session), session.game().level())));
  return messages;
}

std::string text_of(std::string_view name) {
  for (const PageFile& file : page_files()) {
    if (file.name == name) return std::string(file.text);
  }
  throw std::logic_error("a file of the page is missing");
}

void replace(std::string& text, std::string_view what, const std::string& by) {
  for (std::size_t at = text.find(what); at != std::string::npos;
       at = text.find(what, at + by.size())) {
    text.replace(at, what.size(), by);
  }
}

// Modules find each other by names, for a file has no folder beside it.
std::string import_map() {
  Json map;
  for (const PageFile& file : page_files()) {
    if (!file.name.ends_with(".js")) continue;
    std::string text(file.text);
    replace(text, "from \"./", "from \"gaze/");
    map["imports"]["gaze/" + std::string(file.name)] =
        "data:text/javascript;base64," + base64_of(text);
  }
  return json_text(map);
}

// Nothing in it may end the element that it stands in.
std::string inside_script(std::string json) {
  replace(json, "<", "\\u003c");
  return json;
}

}  // namespace

std::string replay_page(Session& session) {
  session.play_through();
  Json json;
  json["messages"] = messages_of(session);
  json["play"] = play_of(session);
  std::string page = text_of("index.html");
  replace(page, "<link rel=\"stylesheet\" href=\"style.css\">",
          "<style>" + text_of("style.css") + "</style>");
  replace(page, "<script type=\"module\" src=\"main.js\"></script>",
          "<meta http-equiv=\"Content-Security-Policy\" content=\"default-src 'none'; script-src "
          "'unsafe-inline' data:; style-src 'unsafe-inline'; img-src data:\">\n"
          "<script type=\"importmap\">" +
              inside_script(import_map()) +
              "</script>\n<script type=\"application/json\" id=\"replay\">" +
              inside_script(json_text(json)) +
              "</script>\n<script type=\"module\">import \"gaze/main.js\";</script>");
  return page;
}

}  // namespace gaze::serve
