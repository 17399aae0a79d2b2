#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "serve/history.hpp"
#include "serve/moment.hpp"
#include "serve/session.hpp"

namespace gaze::serve {

/// One thing to say to a page.
struct Said {
  bool is_binary = false;
  std::string bytes;
};

/// What a page says to a session, and what it is told of it. Messages are those of
/// docs/page-protocol.md; whatever a page sends, the session goes on.
class Conversation {
 public:
  explicit Conversation(Session& session) : session_(session) {}

  /// Takes one message. What cannot be meant is answered with a reason.
  void hear(std::string_view text);
  /// All that is new since this was last asked.
  [[nodiscard]] std::vector<Said> speak();
  /// Reports to the page why a message was refused.
  void refuse(const std::string& why);
  /// Returns the number of answers that wait to be sent.
  [[nodiscard]] std::size_t answer_count() const { return answers_.size(); }

 private:
  class Wishes;
  struct Pair {
    std::string agent;
    std::string other;
  };
  struct Laid {
    std::string what;   ///< "mesh", "reach", or empty: nothing.
    std::string agent;  ///< Whose.
    std::int64_t tick = -1;
  };

  void tell_level(std::vector<Said>& said);
  void tell_state(std::vector<Said>& said);
  void tell_events(std::vector<Said>& said);
  void tell_values(std::vector<Said>& said);
  void tell_faults(std::vector<Said>& said);
  void tell_ghost(std::vector<Said>& said);
  void tell_figures(std::vector<Said>& said);
  void tell_why(std::vector<Said>& said);
  void tell_history(std::vector<Said>& said);
  void tell_checks(std::vector<Said>& said);
  void tell_takes(std::vector<Said>& said);
  void tell_overlay(std::vector<Said>& said);
  void draw(std::vector<Said>& said);

  Session& session_;
  std::vector<Said> answers_;
  Revisions told_{-1, -1, -1, -1, -1};
  std::int64_t drawn_tick_ = -1;
  std::int64_t why_tick_ = -1;
  std::int64_t figures_end_ = -1;
  std::int64_t history_end_ = -1;
  int told_checks_ = -1;
  History history_;
  std::size_t told_events_ = 0;
  std::size_t told_cuts_ = 0;
  std::string told_state_;
  GroundFrames ground_;
  std::optional<Pair> pair_;  ///< About whom the page asks.
  Laid laid_;
  bool has_trails_ = true;
};

}  // namespace gaze::serve
