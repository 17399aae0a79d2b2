// An overlay: what agents sense, drawn by the host over its own picture, and the decision in words.
#include "garden.hpp"

#include <map>

int main() {
  gaze::Level level = garden();
  gaze::Agent guard;
  guard.id = "guard";
  level.agents.push_back(guard);
  gaze::Simulation game(level);
  const gaze::AgentId player = game.agent("player");
  for (int i = 0; i < 10; ++i) {
    game.set_pose(player, {6.0, 0.5, 0.0}, {});
    game.step();
  }

  // Lines, areas and circles, each with its meaning: a host picks its own colours.
  std::map<gaze::Meaning, int> drawn;
  double length = 0.0;
  for (const gaze::Mark& mark :
       gaze::drawing(game, gaze::Layer::senses | gaze::Layer::agents, 0.05)) {
    ++drawn[mark.meaning];
    if (mark.form != gaze::Mark::Form::line) continue;
    for (std::size_t i = 0; i + 1 < mark.points.size(); ++i)
      length += (mark.points[i + 1] - mark.points[i]).norm();
  }
  need(drawn[gaze::Meaning::body] >= 2 && drawn[gaze::Meaning::facing] == 2, "both are drawn");
  need(drawn[gaze::Meaning::seen_calm] == 1, "and what the guard sees");
  need(drawn[gaze::Meaning::sight_stopped] >= 1 && drawn[gaze::Meaning::sight_beyond] == 1,
       "and where its line ends");
  need(drawn[gaze::Meaning::solid] == 0, "the level is the host's to draw");
  need(length > 6.0, "lines have points");

  // The decision in words, for a tooltip.
  const gaze::Verdict verdict = game.look(game.agent("guard"), player);
  need(gaze::explain(verdict).find("hedge is in the way") != std::string::npos,
       "it says what is in the way");
  const gaze::Going going = gaze::going(game, game.agent("guard"));
  need(!going.is_moving && !going.reason.empty(), "and why it stands still");
  const auto remedy = gaze::remedy(game, game.agent("guard"), player);
  need(remedy.has_value(), "and what would turn it");
  std::printf("overlay works\n");
}
