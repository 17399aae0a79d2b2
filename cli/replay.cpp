#include "serve/replay.hpp"

#include <fmt/format.h>

#include <ostream>

#include "commands.hpp"
#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {

int replay(const ReplayOptions& options, const Streams& streams) {
  if (!options.output.ends_with(".html")) {
    throw std::invalid_argument(
        fmt::format("--output {}: a replay is written as .html", options.output));
  }
  serve::Session session(options.level.file, settings_of(options.level),
                         [](const std::filesystem::path&, const std::string&) {});
  const std::string page = serve::replay_page(session);
  write_file(options.output, page);
  streams.out << fmt::format("{}: {:.2f} MB, opens in a browser\n", options.output,
                             static_cast<double>(page.size()) / 1e6);
  return done;
}

}  // namespace gaze::cli
