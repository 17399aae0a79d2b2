#include <fmt/format.h>

#include <optional>
#include <ostream>
#include <stdexcept>

#include "gaze/tools/picture.hpp"
#include "gaze/tools/report.hpp"
#include "output.hpp"
#include "play.hpp"

/// Two runs held against each other.
namespace gaze::cli {
namespace {

/// The two levels of a call: a file and its values each.
struct Two {
  std::array<std::string, 2> files;
  std::array<std::vector<Setting>, 2> settings;
  std::array<std::string, 2> names;
};

Two two_of(const CompareOptions& options) {
  if (options.other.empty() == options.with.empty()) {
    throw std::invalid_argument(
        "compare takes another LEVEL, or values that are set --with PATH=VALUE");
  }
  Two two;
  two.settings[0] = settings_of(options.level);
  two.settings[1] = two.settings[0];
  two.files = {options.level.file, options.other.empty() ? options.level.file : options.other};
  if (!options.other.empty()) {
    two.names = two.files;
    return two;
  }
  LevelOptions changed = options.level;
  changed.sets = options.with;
  changed.seconds.reset();
  changed.seed.reset();
  changed.ticks_per_second.reset();
  std::string with;
  for (Setting& setting : settings_of(changed)) {
    with += fmt::format("{}{} = {}", with.empty() ? "with " : ", ", setting.path, setting.value);
    setting.said_as = "--with " + setting.path;
    two.settings[1].push_back(std::move(setting));
  }
  two.names = {"as it is", with};
  return two;
}

}  // namespace

int compare(const CompareOptions& options, const Streams& streams) {
  const Two two = two_of(options);
  std::optional<OutputFile> picture;
  PictureOptions sheet;
  if (!options.output.empty()) {
    sheet.format = picture_format(options.output);
    picture.emplace(options.output);
  }
  const Level one = read_level(two.files[0], two.settings[0]);
  const Level other = read_level(two.files[1], two.settings[1]);
  const Comparison comparison = gaze::compare(one, other);
  const auto values = differences(two.files[0], two.settings[0], two.files[1], two.settings[1]);
  if (picture) {
    const double end = std::max(one.seconds, other.seconds);
    const double at = options.at.value_or(comparison.fork ? comparison.fork->seconds : end);
    picture->write(draw_both(one, other, at, two.names, sheet));
    picture->finish();
  }
  streams.out << (options.json ? compare_json(comparison, values, two.names)
                               : compare_text(comparison, values, two.names));
  return done;
}

}  // namespace gaze::cli
