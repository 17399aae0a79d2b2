#include <fmt/format.h>

#include <optional>
#include <ostream>
#include <stdexcept>

#include "gaze/tools/chart.hpp"
#include "gaze/tools/report.hpp"
#include "output.hpp"
#include "play.hpp"
#include "study.hpp"

/// Values varied, and limits found.
namespace gaze::cli {
namespace {

std::size_t runs_of(int runs) {
  if (runs < 1 || runs > 1'000'000) {
    throw std::invalid_argument(fmt::format("--runs {}; 1 to 1000000 is allowed", runs));
  }
  return static_cast<std::size_t>(runs);
}

/// "PATH=LOW:HIGH"
struct Range {
  std::string path;
  double low = 0.0;
  double high = 0.0;
};

Range range_of(const std::string& text) {
  const std::size_t equals = text.find('=');
  const std::size_t colon = text.find(':', equals == std::string::npos ? 0 : equals);
  try {
    if (equals == std::string::npos || equals == 0 || colon == std::string::npos) throw 0;
    std::size_t used = 0;
    Range range{text.substr(0, equals), 0.0, 0.0};
    const std::string low = text.substr(equals + 1, colon - equals - 1);
    const std::string high = text.substr(colon + 1);
    range.low = std::stod(low, &used);
    if (used != low.size()) throw 0;
    range.high = std::stod(high, &used);
    if (used != high.size()) throw 0;
    return range;
  } catch (...) {
    throw std::invalid_argument(fmt::format("--over {} is not of the form PATH=LOW:HIGH", text));
  }
}

}  // namespace

int vary(const VaryOptions& options, const Streams& streams) {
  std::vector<Axis> axes;
  for (const std::string& over : options.over) axes.push_back(axis_of(over));
  std::optional<OutputFile> picture;
  std::optional<OutputFile> table;
  PictureOptions sheet;
  if (!options.output.empty()) {
    sheet.format = picture_format(options.output);
    picture.emplace(options.output);
  }
  if (!options.csv.empty()) table.emplace(options.csv);
  Studying studying(streams, "runs");
  const Variation variation = gaze::vary(source_of(options.level), axes, options.figures,
                                         runs_of(options.runs), studying.options());
  const bool was_ended = studying.was_ended();
  if (picture && !variation.points.empty()) {
    picture->write(draw(variation, sheet));
    picture->finish();
  }
  if (table) {
    table->write(vary_csv(variation));
    table->finish();
  }
  streams.out << (options.json ? vary_json(variation) : vary_text(variation));
  return was_ended ? ended_early : done;
}

int find(const FindOptions& options, const Streams& streams) {
  const Range range = range_of(options.over);
  Wish wish;
  wish.figure = options.figure;
  wish.at_least = options.at_least;
  wish.at_most = options.at_most;
  wish.runs = runs_of(options.runs);
  wish.of_runs = options.of_runs;
  if (!(wish.of_runs > 0.0 && wish.of_runs <= 1.0)) {
    throw std::invalid_argument(
        fmt::format("--of-runs {}; above 0 to 1 is allowed", options.of_runs));
  }
  Studying studying(streams, "runs of this step");
  const Search search = gaze::find(source_of(options.level), range.path, range.low, range.high,
                                   wish, options.width, studying.options());
  streams.out << (options.json ? find_json(search) : find_text(search));
  return studying.was_ended() ? ended_early : done;
}

}  // namespace gaze::cli
