#include <fmt/format.h>

#include <array>
#include <ostream>

#include "level/numbers.hpp"
#include "level/spelling.hpp"
#include "output.hpp"
#include "play.hpp"
#include "serve/replay.hpp"

namespace gaze::cli {
namespace {

namespace fs = std::filesystem;

constexpr const char* kDemoLevel = "propagation_house.toml";

// Beside the installed program, else where the project was built from.
fs::path demo_level() {
  std::error_code error;
  const fs::path program = fs::read_symlink("/proc/self/exe", error);
  if (!error) {
    const fs::path installed = program.parent_path() / GAZE_INSTALLED_DEMO / kDemoLevel;
    if (fs::exists(installed, error)) return installed.lexically_normal();
  }
  return fs::path(GAZE_SOURCE_DEMO) / kDemoLevel;
}

// As it can be called from here.
std::string program() {
  std::error_code error;
  const fs::path file = fs::read_symlink("/proc/self/exe", error);
  if (error) return "gaze";
  const fs::path near = fs::relative(file, error);
  return error || near.string().starts_with("..") ? file.string() : near.string();
}

void make_folder(const fs::path& folder) {
  std::error_code error;
  fs::create_directories(folder, error);
  if (error || !fs::is_directory(folder)) {
    throw OutputError(fmt::format("{} cannot be made a folder: {}", folder.string(),
                                  error ? error.message() : "something else has its name"));
  }
}

}  // namespace

int demo(const DemoOptions& options, const Streams& streams) {
  const Level level = read_level(demo_level());
  const fs::path folder = options.output;
  make_folder(folder);
  Simulation simulation = prepared(level, streams);
  Trails trails(simulation);
  // A jar has burst; the twin sprinkler fires with the collector; the lamp's ray falls on it.
  constexpr std::array kMoments{8.5, 10.3, 17.3};  // seconds
  std::size_t next_picture = 0;
  std::vector<std::string> written;
  const auto draw_if_due = [&] {
    trails.add(simulation);
    if (next_picture >= kMoments.size()) return;
    const auto due = nearest_tick(kMoments[next_picture], level.ticks_per_second);
    if (simulation.tick() != due) return;
    const fs::path file = folder / fmt::format("moment-{}.png", ++next_picture);
    write_file(file, gaze::draw(simulation, trails));
    written.push_back(fmt::format("{} ({:.3f} s)", file.string(), simulation.seconds()));
  };
  const std::vector<Event> events = play(streams, simulation, run_length(level), draw_if_due);
  streams.out << worded("{}: {} s\n\n", on_one_line(level.name), level.seconds);
  streams.out << timeline(simulation, events);
  streams.out << '\n' << summary(simulation, events) << '\n';
  const fs::path replayed = folder / "replay.html";
  serve::Session session(demo_level(), {}, [](const fs::path&, const std::string&) {});
  write_file(replayed, serve::replay_page(session));
  written.push_back(replayed.string() + " (to look at in a browser)");
  for (const std::string& file : written) streams.out << "wrote " << file << '\n';
  const std::string command = options.command.empty() ? program() : options.command;
  streams.out << "\nTo play it yourself:  " << command << " play " << demo_level().string() << '\n';
  return done;
}

}  // namespace gaze::cli
