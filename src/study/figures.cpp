#include "gaze/tools/figures.hpp"

#include <fmt/format.h>

#include "level/spelling.hpp"
#include "study/measures.hpp"
#include "values/rules.hpp"

namespace gaze {

struct Figures::Measures {
  std::vector<std::unique_ptr<Measuring>> all;
};

Figures::Figures(const Simulation& simulation, std::span<const Figure> figures)
    : measures_(std::make_unique<Measures>()) {
  const Level& level = simulation.level();
  for (const Figure& figure : figures) {
    if (const auto broken = broken_rules(figure); !broken.empty()) {
      throw UsageError(fmt::format("figure.{}{}{} {}", figure.name,
                                   broken[0].key.empty() ? "" : ".", broken[0].key,
                                   broken[0].what));
    }
    measures_->all.push_back(measuring(figure, level));
  }
}

Figures::Figures(Figures&&) noexcept = default;
Figures& Figures::operator=(Figures&&) noexcept = default;
Figures::~Figures() = default;

void Figures::add(const Simulation& simulation) {
  for (const auto& measure : measures_->all) measure->add(simulation);
}

std::vector<FigureValue> Figures::values() const {
  std::vector<FigureValue> values;
  for (const auto& measure : measures_->all) values.push_back(measure->value());
  return values;
}

Figure figure_called(const Level& level, const std::string& name) {
  std::vector<std::string> names;
  for (Figure& figure : all_figures(level)) {
    if (figure.name == name) return std::move(figure);
    names.push_back(figure.name);
  }
  throw UsageError(fmt::format("there is no figure '{}'{}", name, suggestion(name, names)));
}

}  // namespace gaze
