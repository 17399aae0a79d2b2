#include "commands.hpp"
#include "play.hpp"

/// What can stand in a level file.
namespace gaze::cli {

int schema(const SchemaOptions& options, const Streams& streams) {
  streams.out << (options.reference ? level_reference() : level_schema());
  return done;
}

int complete(const CompleteOptions& options, const Streams& streams) {
  const Level level = read(options.level);
  for (const std::string& path : complete_path(level, options.text)) streams.out << path << '\n';
  return done;
}

}  // namespace gaze::cli
