#include "serve/conversation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <map>
#include <nlohmann/json.hpp>

#include "gaze/tools/report.hpp"
#include "level/rounded.hpp"
#include "level/spelling.hpp"
#include "serve/changes.hpp"
#include "serve/checks_message.hpp"
#include "serve/frame.hpp"
#include "serve/json_text.hpp"
#include "serve/level_message.hpp"
#include "serve/overlay.hpp"
#include "serve/values.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::ordered_json;

/// A message of a page. What it lacks or has wrong is said.
class Heard {
 public:
  explicit Heard(std::string_view text) : json_(Json::parse(text)) {
    if (!json_.is_object()) throw UsageError("a message is an object");
  }

  std::string text(const char* key) const {
    if (!json_.contains(key) || !json_[key].is_string()) {
      throw UsageError(fmt::format("'{}' is to be a text", key));
    }
    return json_[key].get<std::string>();
  }
  double number(const char* key) const {
    if (!json_.contains(key) || !json_[key].is_number()) {
      throw UsageError(fmt::format("'{}' is to be a number", key));
    }
    return json_[key].get<double>();
  }
  std::int64_t whole(const char* key) const {
    const double value = number(key);
    if (!(std::abs(value) <= 1e12)) throw UsageError(fmt::format("'{}' is out of all range", key));
    return std::llround(value);
  }
  bool truth(const char* key) const { return json_.value(key, Json(false)) == Json(true); }
  bool has(const char* key) const { return json_.contains(key) && !json_[key].is_null(); }
  Vector2d point(const char* key) const {
    if (!has(key) || !json_[key].is_array() || json_[key].size() != 2 ||
        !json_[key][0].is_number() || !json_[key][1].is_number()) {
      throw UsageError(fmt::format("'{}' is to be a list of two numbers", key));
    }
    return {json_[key][0].get<double>(), json_[key][1].get<double>()};
  }

 private:
  Json json_;
};

// A place of the plan at the height of an agent; seen from the side, in its depth.
Vector3d place_by(const Simulation& game, const std::string& agent, const Vector2d& plan) {
  const Vector3d feet = game.state(game.agent(agent)).position;
  const Level& level = game.level();
  if (level.plane == Plane::upright) return {plan.x(), feet.y(), plan.y()};
  const double height = level.kind_of(level.agents[game.agent(agent).index]).height;
  return {plan.x(), plan.y(), level.plane == Plane::space ? feet.z() + height / 2.0 : feet.z()};
}

Steering steering_of(const Heard& heard, const Simulation& game) {
  Steering steering;
  steering.way = heard.point("way");
  if (heard.has("aim")) {
    steering.aim = place_by(game, heard.text("agent"), heard.point("aim"));
    steering.is_plan_aim = game.level().plane == Plane::ground;
  }
  steering.fires = heard.truth("fires");
  steering.is_quiet = heard.truth("quiet");
  steering.hops = heard.truth("hops");
  return steering;
}

HandDeed deed_of(const Heard& heard, const Simulation& game) {
  const std::string what = heard.text("what");
  if (what == "take") return {HandDeed::What::take, {}};
  if (what == "drop") return {HandDeed::What::drop, {}};
  if (what != "throw") throw UsageError(fmt::format("'{}' is no deed: take, throw, drop", what));
  return {HandDeed::What::throw_, place_by(game, heard.text("agent"), heard.point("place"))};
}

using Doing = std::function<void(Session&, const Heard&)>;

// What a page may have the session do.
const std::map<std::string, Doing, std::less<>>& doings() {
  static const std::map<std::string, Doing, std::less<>> kDoings{
      {"play", [](Session& session, const Heard&) { session.play(); }},
      {"pause", [](Session& session, const Heard&) { session.pause(); }},
      {"pace",
       [](Session& session, const Heard& heard) { session.set_pace(heard.number("pace")); }},
      {"step",
       [](Session& session, const Heard& heard) {
         session.step(
             static_cast<int>(std::clamp<std::int64_t>(heard.whole("ticks"), -1000, 1000)));
       }},
      {"go_to", [](Session& session, const Heard& heard) { session.go_to(heard.whole("tick")); }},
      {"restart", [](Session& session, const Heard&) { session.restart(); }},
      {"steer",
       [](Session& session, const Heard& heard) {
         session.steer(heard.text("agent"), steering_of(heard, session.game()));
       }},
      {"let_go", [](Session& session, const Heard& heard) { session.let_go(heard.text("agent")); }},
      {"hand",
       [](Session& session, const Heard& heard) {
         session.by_hand(heard.text("agent"), deed_of(heard, session.game()));
       }},
      {"try",
       [](Session& session, const Heard& heard) {
         session.try_value(heard.text("path"), heard.text("value"));
       }},
      {"drop_values", [](Session& session, const Heard&) { session.drop_values(); }},
      {"drop_ghost", [](Session& session, const Heard&) { session.drop_ghost(); }},
      {"keep", [](Session& session, const Heard&) { session.keep_values(); }},
      {"undo", [](Session& session, const Heard&) { session.undo(); }},
      {"save_take",
       [](Session& session, const Heard& heard) {
         session.save_take(heard.text("name"), heard.text("agent"));
       }},
      {"load_take",
       [](Session& session, const Heard& heard) {
         session.load_take(heard.text("name"), heard.text("agent"));
       }},
  };
  return kDoings;
}

Json event_json(const Simulation& game, const Event& event) {
  Json json{
      {"tick", event.tick}, {"agent", game.id_of(event.agent)}, {"what", name_of(event.what)}};
  if (event.other) json["other"] = game.id_of(*event.other);
  json["text"] = game.describe(event);
  return json;
}

}  // namespace

/// What a page asks for itself alone.
class Conversation::Wishes {
 public:
  using Doing = void (*)(Conversation&, const Heard&);

  static const std::map<std::string, Doing, std::less<>>& all() {
    static const std::map<std::string, Doing, std::less<>> kAll{
        {"ask", &ask}, {"layers", &layers}, {"overlay", &overlay}};
    return kAll;
  }

 private:
  static void need_agent(const Conversation& page, const std::string& id) {
    static_cast<void>(page.session_.game().agent(id));
  }
  static void ask(Conversation& page, const Heard& heard) {
    const Pair pair{heard.text("agent"), heard.has("other") ? heard.text("other") : ""};
    need_agent(page, pair.agent);
    if (!pair.other.empty()) need_agent(page, pair.other);
    page.pair_ = pair;
    page.why_tick_ = page.history_end_ = -1;
  }
  static void layers(Conversation& page, const Heard& heard) {
    page.has_trails_ = heard.truth("trails");
    page.drawn_tick_ = -1;
  }
  static void overlay(Conversation& page, const Heard& heard) {
    const Laid laid{heard.text("what"), heard.text("agent"), -1};
    need_agent(page, laid.agent);
    if (laid.what != "mesh" && laid.what != "reach" && !laid.what.empty()) {
      throw UsageError("an overlay is mesh or reach");
    }
    page.laid_ = laid;
  }
};

void Conversation::hear(std::string_view text) {
  try {
    const Heard heard(text);
    const std::string what = heard.text("do");
    const auto wish = Wishes::all().find(what);
    if (wish != Wishes::all().end()) return wish->second(*this, heard);
    const auto doing = doings().find(what);
    if (doing == doings().end()) throw UsageError(fmt::format("there is no message '{}'", what));
    doing->second(session_, heard);
  } catch (const LevelError& error) {
    refuse(error.faults().front().message);
  } catch (const nlohmann::json::exception&) {
    refuse("a message that is no JSON");
  } catch (const std::exception& error) {
    refuse(on_one_line(error.what()));
  }
}

void Conversation::refuse(const std::string& why) {
  answers_.push_back({false, json_text({{"tell", "refused"}, {"why", why}})});
}

std::vector<Said> Conversation::speak() {
  std::vector<Said> said = std::move(answers_);
  answers_.clear();
  if (told_.level != session_.revisions().level) tell_level(said);
  tell_state(said);
  tell_events(said);
  tell_values(said);
  tell_faults(said);
  tell_takes(said);
  tell_ghost(said);
  tell_figures(said);
  tell_why(said);
  tell_history(said);
  tell_checks(said);
  tell_overlay(said);
  draw(said);
  return said;
}

void Conversation::tell_level(std::vector<Said>& said) {
  told_.level = session_.revisions().level;
  told_events_ = 0;
  told_cuts_ = 0;
  drawn_tick_ = why_tick_ = figures_end_ = history_end_ = -1;
  laid_.tick = -1;
  ground_.forget();
  told_.values = -1;
  said.push_back({false, level_message(session_)});
  if (pair_ && !session_.game().find_agent(pair_->agent)) pair_.reset();
}

void Conversation::tell_state(std::vector<Said>& said) {
  const Run& run = session_.run();
  const Level& level = session_.game().level();
  Json json{{"tell", "state"},
            {"tick", session_.game().tick()},
            {"end", run.end()},
            {"seconds", rounded(session_.game().seconds())},
            {"length", rounded(level.seconds)},
            {"is_playing", session_.is_playing()},
            {"is_over", session_.game().is_over()},
            {"pace", session_.pace()}};
  json["steered"] = Json::array();
  for (const AgentId agent : session_.game().agents()) {
    const std::string& id = session_.game().id_of(agent);
    if (run.inputs().steering(id, session_.game().tick())) json["steered"].push_back(id);
  }
  std::string text = json_text(json);
  if (text == told_state_) return;
  told_state_ = text;
  said.push_back({false, std::move(text)});
}

void Conversation::tell_events(std::vector<Said>& said) {
  const Run& run = session_.run();
  for (; told_cuts_ < run.cuts().size(); ++told_cuts_) {
    told_events_ = std::min(told_events_, run.cuts()[told_cuts_]);
    figures_end_ = history_end_ = -1;
  }
  const bool is_new = told_events_ < run.events().size();
  const bool was_cut = !run.cuts().empty() && figures_end_ == -1;
  if (!is_new && !was_cut) return;
  Json json{{"tell", "events"}, {"from", told_events_}};
  json["list"] = Json::array();
  for (; told_events_ < run.events().size(); ++told_events_) {
    json["list"].push_back(event_json(session_.game(), run.events()[told_events_]));
  }
  said.push_back({false, json_text(json)});
}

void Conversation::tell_values(std::vector<Said>& said) {
  if (told_.values == session_.revisions().values) return;
  told_.values = session_.revisions().values;
  said.push_back({false, values_message(session_)});
}

void Conversation::tell_faults(std::vector<Said>& said) {
  if (told_.faults == session_.revisions().faults) return;
  told_.faults = session_.revisions().faults;
  Json json{{"tell", "faults"}};
  json["list"] = Json::array();
  for (const Fault& fault : session_.faults()) {
    json["list"].push_back({{"place", place_text(session_, fault.place)},
                            {"message", fault.message},
                            {"line", line_of_file(fault.place)}});
  }
  said.push_back({false, json_text(json)});
}

void Conversation::tell_takes(std::vector<Said>& said) {
  if (told_.takes == session_.revisions().takes) return;
  told_.takes = session_.revisions().takes;
  Json json{{"tell", "takes"}, {"list", session_.takes()}};
  said.push_back({false, json_text(json)});
}

void Conversation::tell_ghost(std::vector<Said>& said) {
  const auto& ghost = session_.ghost();
  const bool is_same = told_.ghost == session_.revisions().ghost;
  if (is_same) return;
  told_.ghost = session_.revisions().ghost;
  Json json{{"tell", "changes"}, {"has_ghost", ghost.has_value()}};
  json["list"] = Json::array();
  if (ghost) {
    for (const std::string& line : changes(*ghost, session_.run())) json["list"].push_back(line);
  }
  said.push_back({false, json_text(json)});
}

void Conversation::tell_figures(std::vector<Said>& said) {
  const Run& run = session_.run();
  const std::int64_t every = session_.game().level().ticks_per_second / 2 + 1;
  const bool is_due = figures_end_ < 0 || run.end() >= figures_end_ + every ||
                      (!session_.is_playing() && run.end() != figures_end_);
  if (!is_due) return;
  figures_end_ = run.end();
  Json json{{"tell", "figures"}};
  json["list"] = Json::array();
  const auto values = run.figure_values();
  for (std::size_t i = 0; i < values.size(); ++i) {
    const Figure& figure = run.figures()[i];
    json["list"].push_back({{"name", figure.name},
                            {"what", describe(figure)},
                            {"text", figure_text(figure, values[i].value)}});
    if (!values[i].events.empty()) json["list"].back()["tick"] = values[i].events.front().tick;
  }
  said.push_back({false, json_text(json)});
}

void Conversation::tell_why(std::vector<Said>& said) {
  if (!pair_) return;
  const Simulation& game = session_.game();
  const std::int64_t every = std::max(1, game.level().ticks_per_second / 10);
  const bool is_due =
      why_tick_ < 0 || (session_.is_playing() ? std::abs(game.tick() - why_tick_) >= every
                                              : game.tick() != why_tick_);
  if (!is_due) return;
  why_tick_ = game.tick();
  std::string message = why_message(game, pair_->agent, pair_->other);
  if (!message.empty()) said.push_back({false, std::move(message)});
}

void Conversation::tell_history(std::vector<Said>& said) {
  if (!pair_ || pair_->other.empty()) return;
  const Run& run = session_.run();
  if (history_end_ < 0 || history_.has_missed(run)) {
    history_.begin(run, pair_->agent, pair_->other);
  } else if (run.end() > history_end_ && session_.game().tick() == run.end()) {
    history_.go_on(session_.game());
    const std::int64_t every = session_.game().level().ticks_per_second / 2 + 1;
    if (session_.is_playing() && run.end() < history_end_ + every) return;
  } else {
    return;
  }
  history_end_ = run.end();
  said.push_back({false, history_.message()});
}

void Conversation::tell_checks(std::vector<Said>& said) {
  const int revision = session_.checker().revision();
  if (told_checks_ == revision) return;
  told_checks_ = revision;
  said.push_back({false, checks_message(session_.checker().checked(), session_.game().level())});
}

// What attacks reach is looked at anew whenever the play stands still: it takes a while. A mesh
// changes with the level, or with the solids in it.
void Conversation::tell_overlay(std::vector<Said>& said) {
  const Simulation& game = session_.game();
  const bool is_moving = laid_.what == "reach" && !session_.is_playing();
  const bool is_due = laid_.tick < 0 || (is_moving && laid_.tick != game.tick());
  if (laid_.agent.empty() || !is_due) return;
  laid_.tick = game.tick();
  const auto agent = game.find_agent(laid_.agent);
  Overlay overlay;
  try {
    if (agent && laid_.what == "mesh") overlay = mesh_overlay(game, *agent);
    if (agent && laid_.what == "reach") overlay = reach_overlay(game, *agent);
  } catch (const UsageError& error) {  // a floor that is too large
    refuse(on_one_line(error.what()));
  }
  const Json json{{"tell", "overlay"}, {"what", laid_.what}, {"names", overlay.names}};
  said.push_back({false, json_text(json)});
  said.push_back({true, frame_bytes(FrameOf::overlay, game.tick(), overlay.marks)});
}

void Conversation::draw(std::vector<Said>& said) {
  const Simulation& game = session_.game();
  if (auto frame = ground_.next(game)) said.push_back({true, std::move(*frame)});
  if (drawn_tick_ == game.tick()) return;
  drawn_tick_ = game.tick();
  const TrailLog* trails = has_trails_ ? &session_.run().trails() : nullptr;
  said.push_back({true, moment_frame(game, trails)});
  if (!session_.ghost()) return;
  const std::vector<Mark> ghosts = ghost_marks(*session_.ghost(), game.tick());
  said.push_back({true, frame_bytes(FrameOf::ghost, game.tick(), ghosts)});
}

}  // namespace gaze::serve
