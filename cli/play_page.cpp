#include <fmt/format.h>

#include <ostream>

#include "commands.hpp"
#include "level/spelling.hpp"
#include "output.hpp"
#include "page_secret.hpp"
#include "play.hpp"
#include "serve/server.hpp"

namespace gaze::cli {
namespace {

// Without a wish the first of these that is free, so that a page which is open finds the server
// again that was started anew.
constexpr std::uint16_t kFirstPort = 4293;
constexpr std::uint16_t kLastPort = 4302;

std::unique_ptr<serve::Server> serving(serve::Session& session, serve::Server::Options options,
                                       const std::optional<int>& port) {
  if (port) {
    if (*port < 1 || *port > 65'535) {
      throw std::invalid_argument(fmt::format("--port {}; 1 to 65535 is allowed", *port));
    }
    options.port = static_cast<std::uint16_t>(*port);
    return std::make_unique<serve::Server>(session, options);
  }
  for (options.port = kFirstPort; options.port <= kLastPort; ++options.port) {
    try {
      return std::make_unique<serve::Server>(session, options);
    } catch (const std::runtime_error&) {
      continue;  // somebody has it
    }
  }
  options.port = 0;
  return std::make_unique<serve::Server>(session, options);
}

}  // namespace

int play_page(const PlayOptions& options, const Streams& streams) {
  serve::Session session(
      options.level.file, settings_of(options.level),
      [](const std::filesystem::path& file, const std::string& text) { write_file(file, text); });
  if (!options.agent.empty()) session.choose_player(options.agent);
  serve::Server::Options serving_options;
  serving_options.secret = page_secret();
  serving_options.log = [&](const std::string& what) {
    streams.err << fmt::format("gaze: {}\n", what) << std::flush;
  };
  const auto server = serving(session, serving_options, options.port);
  streams.out << fmt::format("{}\n{}\nOpen this address in a browser; Ctrl-C ends it.\n",
                             on_one_line(session.game().level().name), server->address())
              << std::flush;
  server->run();
  return done;
}

}  // namespace gaze::cli
