#include <algorithm>
#include <cmath>
#include <memory>

#include "geometry/plan.hpp"
#include "study/sneak_scene.hpp"
#include "world/touching.hpp"

/// Runs a path and reports whether the agent arrives unnoticed, alive and unblocked.
namespace gaze {
namespace {

class PlayedWay {
 public:
  PlayedWay(const SneakScene& scene, Sneak& result)
      : scene_(scene), result_(result), game_(level_with(scene, result.track)) {
    who_ = game_.agent(scene.task.agent);
  }

  std::optional<Mishap> play() {
    const double end = result_.track.points.back().seconds;
    result_.most_evidence = 0.0;
    result_.by.clear();
    while (true) {
      if (is_noticed()) return mishap();
      if (const auto body = body_in_the_way()) return Mishap{game_.seconds(), body};
      if (game_.seconds() >= end) return std::nullopt;
      game_.step();
      for (const Event& event : game_.events()) {
        const bool is_found_out =
            event.what == Event::What::noticed || event.what == Event::What::heard;
        if (is_found_out && event.other == who_) return mishap();
        if (event.what == Event::What::defeated && event.agent == who_) return mishap();
      }
    }
  }

 private:
  static Level level_with(const SneakScene& scene, const Track& track) {
    Level level = scene.own.level;
    Agent& agent = level.agents[scene.own.who];
    agent.driver = Driver::track;
    agent.track = std::make_shared<const Track>(track);
    agent.position = track.points.front().place;
    return level;
  }

  Mishap mishap() const { return {game_.seconds(), std::nullopt}; }

  // Also records the most evidence that any agent has gathered.
  bool is_noticed() {
    for (const Watcher& watcher : scene_.watchers) {
      const AgentId other = watcher.agent;
      if (!game_.is_there(other)) continue;
      const Awareness awareness = game_.awareness(other, who_);
      if (awareness == Awareness::noticed) return true;
      if (!watcher.kind.sight || awareness != Awareness::gathering) continue;
      const double evidence = game_.look(other, who_).gathered;
      if (evidence <= result_.most_evidence) continue;
      result_.most_evidence = evidence;
      result_.by = watcher.id;
    }
    return false;
  }

  // A track moves a body through others. One that walks is stopped by them.
  std::optional<BodyInTheWay> body_in_the_way() const {
    const Level& level = game_.level();
    const Vector3d at = game_.state(who_).position;
    const Kind& own = level.kind_of(level.agents[who_.index]);
    for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
      const Agent& agent = level.agents[i];
      const Kind& kind = level.kind_of(agent);
      if (AgentId{i} == who_ || !stop_each_other(level, own, kind)) continue;
      const AgentId other = game_.agent(agent.id);
      if (!game_.is_there(other)) continue;
      const AgentState state = game_.state(other);
      if (!state.is_alive) continue;
      const Vector3d off = state.position - at;
      const bool is_beside =
          off.z() < own.height - kContactGap && -off.z() < kind.height - kContactGap;
      if (!is_beside || level_length(off) >= own.radius + kind.radius - kContactGap) continue;
      const bool stays = !kind.move || !travels(kind.move->gait) || state.mode == Mode::post;
      return BodyInTheWay{state.position, kind.radius, stays};
    }
    return std::nullopt;
  }

  const SneakScene& scene_;
  Sneak& result_;
  Simulation game_;
  AgentId who_;
};

}  // namespace

std::optional<Mishap> play_way(const SneakScene& scene, Sneak& result) {
  return PlayedWay(scene, result).play();
}

}  // namespace gaze
