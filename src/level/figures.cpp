#include "level/figures.hpp"

#include <algorithm>
#include <set>

#include "gaze/level.hpp"

namespace gaze {
namespace {

void add_figures_of(std::vector<Figure>& figures, const std::string& player) {
  const auto add = [&](const char* name) -> Figure& {
    Figure& figure = figures.emplace_back();
    figure.name = player + "." + name;
    return figure;
  };
  Figure* figure = &add("first-noticed");
  figure->first = Happening::noticed;
  figure->of = player;
  figure = &add("first-hurt");
  figure->first = Happening::hurt;
  figure->by = player;
  figure = &add("health");
  figure->end = Quantity::health;
  figure->by = player;
  figure = &add("defeated");
  figure->first = Happening::defeated;
  figure->by = player;
  figure = &add("caught");
  figure->first = Happening::caught;
  figure->of = player;
  figure = &add("warning");
  figure->between = {{Happening::noticed, "", player}, {Happening::hurt, player, ""}};
  figure = &add("seen-share");
  figure->share = Situation::seen;
  figure->by = player;
}

std::string_view unit_of(Carried carried) {
  constexpr std::array<std::string_view, 5> kUnits{"points", "points", "m", "degrees", "points"};
  return kUnits[static_cast<std::size_t>(carried)];
}

std::string_view unit_of(Quantity quantity) {
  constexpr std::array<std::string_view, 8> kUnits{"m",      "degrees", "",       "",
                                                   "points", "m/s",     "points", ""};
  return kUnits[static_cast<std::size_t>(quantity)];
}

}  // namespace

std::vector<Figure> all_figures(const Level& level) {
  std::vector<Figure> figures;
  for (const Agent& agent : level.agents) {
    if (agent.kind >= level.kinds.size() || agent.is_spare) continue;  // told elsewhere
    const Mode mode = idle_mode(agent, level.kind_of(agent));
    if (mode == Mode::script || mode == Mode::host) add_figures_of(figures, agent.id);
  }
  figures.insert(figures.end(), level.figures.begin(), level.figures.end());
  return figures;
}

void drop_figures_of_nobody(Level& level, std::span<const std::string> gone) {
  const auto is_gone = [&](const std::string& name) {
    return std::find(gone.begin(), gone.end(), name) != gone.end();
  };
  std::erase_if(level.figures, [&](const Figure& figure) {
    return is_gone(figure.by) || is_gone(figure.of) ||
           std::any_of(figure.between.begin(), figure.between.end(),
                       [&](const EventPick& pick) { return is_gone(pick.by) || is_gone(pick.of); });
  });
  std::set<std::string> known;
  for (const Figure& figure : all_figures(level)) known.insert(figure.name);
  std::erase_if(level.expectations,
                [&](const Expectation& one) { return !known.contains(one.figure); });
}

std::string_view unit_of(const Figure& figure) {
  if (figure.first || figure.last || !figure.between.empty()) return "s";
  if (figure.sum) return unit_of(*figure.sum);
  for (const auto* quantity :
       {&figure.least, &figure.most, &figure.mean, &figure.start, &figure.end}) {
    if (*quantity) return unit_of(**quantity);
  }
  return "";
}

}  // namespace gaze
