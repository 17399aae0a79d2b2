#include "fuzz/promises.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <vector>

#include "gaze/tools/trace.hpp"

namespace gaze::fuzz {
namespace {

/// Plays one level and looks at it after each step.
class Player {
 public:
  explicit Player(const Level& level) : level_(level), simulation_(level) {
    for (std::uint32_t i = 0; i < simulation_.agent_count(); ++i) {
      health_.push_back(simulation_.state({i}).health);
    }
  }

  std::string play(int steps) {
    for (int i = 0; i < steps && broken_.empty(); ++i) {
      // Halfway a copy is taken, and goes on beside it.
      if (i == steps / 2) copy_.emplace(simulation_);
      drive(simulation_);
      simulation_.step();
      if (copy_) {
        drive(*copy_);
        copy_->step();
      }
      look_at_events();
      look_at_agents();
      if (i % 10 == 0) look_at_sights();
    }
    if (broken_.empty() && copy_ && trace_of(*copy_) != trace_of(simulation_)) {
      say("a copy goes on to other bits");
    }
    return broken_;
  }

 private:
  void say(const std::string& what) {
    if (broken_.empty()) broken_ = fmt::format("tick {}: {}", simulation_.tick(), what);
  }

  // Who is driven by the program goes round in a circle and fires now and then.
  void drive(Simulation& simulation) const {
    for (std::uint32_t i = 0; i < level_.agents.size(); ++i) {
      if (level_.agents[i].driver != Driver::host) continue;
      const double turn = static_cast<double>(simulation.tick()) / 30.0;
      Vector3d place = level_.agents[i].position;
      place.x() += std::cos(turn);
      if (level_.plane != Plane::upright) place.y() += std::sin(turn);
      simulation.set_pose({i}, place, Angle::from_degrees(turn * 20.0));
      simulation.set_aim({i}, std::nullopt, simulation.tick() % 20 < 10);
    }
  }

  static std::string trace_of(const Simulation& simulation) {
    return trace_lines(simulation, TraceFormat::csv);
  }

  void look_at_events() {
    std::pair<std::int64_t, int> last{-1, -1};
    for (const Event& event : simulation_.events()) {
      const std::pair<std::int64_t, int> now{event.tick, static_cast<int>(event.what)};
      if (now < last) say(fmt::format("{} out of order", name_of(event.what)));
      last = now;
      if (!event.place.allFinite() || !std::isfinite(event.distance)) {
        say(fmt::format("{} without a number", name_of(event.what)));
      }
      if (simulation_.describe(event).empty()) say("an event without words");
      has_ended_ |= event.what == Event::What::ended;
      if (event.what == Event::What::hurt) health_[event.agent.index] -= event.damage;
    }
  }

  void look_at_agents() {
    for (std::uint32_t i = 0; i < simulation_.agent_count(); ++i) {
      const AgentState state = simulation_.state({i});
      const Kind& kind = simulation_.level().kind_of(simulation_.level().agents[i]);
      const std::string& id = simulation_.id_of({i});
      if (!state.position.allFinite()) say(id + " is nowhere");
      if (std::abs(state.facing.norm() - 1.0) > 1e-9) say(id + " faces nowhere");
      if (std::abs(state.head.norm() - 1.0) > 1e-9) say(id + " looks nowhere");
      if (!(state.health >= 0.0 && state.health <= kind.health)) {
        say(fmt::format("{} has a health of {}", id, state.health));
      }
      look_at_health(i, state, kind);
    }
    for (const Projectile& shot : simulation_.projectiles()) {
      if (!shot.position.allFinite() || !shot.velocity.allFinite()) say("a shot is nowhere");
    }
  }

  // Who heals, comes back or begins a new round gets health that no event tells of.
  void look_at_health(std::uint32_t i, const AgentState& state, const Kind& kind) {
    const bool is_got_back = kind.heals > 0.0 || kind.defeat.respawn || has_ended_ ||
                             !state.is_alive || i >= level_.agents.size();
    if (is_got_back) {
      health_[i] = state.health;
    } else if (std::abs(health_[i] - state.health) > 1e-9 * std::max(1.0, kind.health)) {
      say(fmt::format("{} has {} health, and {} by its events", simulation_.id_of({i}),
                      state.health, health_[i]));
    }
  }

  void look_at_sights() {
    for (std::uint32_t i = 0; i < simulation_.agent_count(); ++i) {
      for (std::uint32_t k = 0; k < simulation_.agent_count(); ++k) {
        const Verdict verdict = simulation_.look(AgentId{i}, AgentId{k});
        const auto is_share = [](double share) { return share >= 0.0 && share <= 1.0; };
        if (!is_share(verdict.line.visible) || !is_share(verdict.gathered)) {
          say("a share that is none");
        }
        if (!verdict.has_sight || !verdict.hindrance.empty()) continue;
        const bool sees =
            can_see(simulation_.world(), simulation_.looker({i}), simulation_.looked({k}));
        if (sees != verdict.sees) {
          say(fmt::format("{} sees {}, or not", verdict.looker, verdict.other));
        }
      }
    }
  }

  const Level& level_;
  Simulation simulation_;
  std::optional<Simulation> copy_;
  std::vector<double> health_;  ///< By what the events tell.
  std::string broken_;
  bool has_ended_ = false;
};

// Errors before warnings before notes, each in the order of the file.
std::string disordered(const std::vector<Finding>& findings) {
  for (std::size_t i = 1; i < findings.size(); ++i) {
    const Finding& before = findings[i - 1];
    const Finding& after = findings[i];
    if (before.severity > after.severity ||
        (before.severity == after.severity && after.place < before.place)) {
      return "'" + after.message + "' comes after '" + before.message + "'";
    }
  }
  return "";
}

}  // namespace

std::string broken_promise(const Level& level, int steps) {
  const std::string disorder = disordered(judge(level));
  if (!disorder.empty()) return disorder;
  return Player(level).play(steps);
}

}  // namespace gaze::fuzz
