#pragma once

#include <optional>
#include <string>
#include <vector>

#include "command_line.hpp"
#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

namespace gaze::cli {

/// Options that change the level for one call.
struct LevelOptions {
  std::string file;
  std::vector<std::string> sets;       ///< PATH=VALUE
  std::optional<std::string> seconds;  ///< As written.
  std::optional<std::string> seed;
  std::optional<std::string> ticks_per_second;
};

struct CheckOptions {
  std::vector<std::string> files;
  LevelOptions level;
  bool json = false;
  bool notes = false;
};

struct RunOptions {
  LevelOptions level;
  bool json = false;
  std::string trace;
  std::vector<std::string> only;  ///< Events that the timeline prints; empty: all.
};

struct WhyOptions {
  LevelOptions level;
  std::string agent;
  std::string other;
  std::optional<double> at;
  std::optional<double> from;  ///< With `to`: over a stretch instead of at a moment.
  std::optional<double> to;
  double every = 0.25;
  std::string plot;
  bool all = false;
  bool json = false;
};

struct DrawOptions {
  LevelOptions level;
  double at = 0.0;
  bool mesh = false;  ///< The navigation mesh instead of what is perceived.
  std::string reach;  ///< An agent: what its attacks reach instead.
  std::string kind;   ///< Whose mesh, else of the first agent that walks; of --reach, upon whom.
  std::string output;
};

struct CoverOptions {
  LevelOptions level;
  std::optional<double> at;  ///< A moment; else over the run.
  std::string kind;          ///< Whose body stands there.
  double spot = 0.25;
  std::string spots;  ///< A .csv file of every spot.
  std::string output;
  bool json = false;
};

struct PathOptions {
  LevelOptions level;
  std::string from;  ///< X,Y or X,Y,Z
  std::string to;
  std::string kind;
  std::string output;
  bool json = false;
};

struct ExpectOptions {
  std::vector<std::string> files;
  LevelOptions level;
  std::vector<std::string> only;  ///< Ids of expectations; empty: all.
  std::string junit;
  bool json = false;
};

struct VaryOptions {
  LevelOptions level;
  std::vector<std::string> over;  ///< PATH=LOW:HIGH:STEP or PATH=A,B,C; one or two.
  std::vector<std::string> figures;
  int runs = 1;
  std::string output;
  std::string csv;
  bool json = false;
};

struct FindOptions {
  LevelOptions level;
  std::string over;  ///< PATH=LOW:HIGH
  std::string figure;
  std::optional<double> at_least;
  std::optional<double> at_most;
  std::optional<double> width;
  int runs = 1;
  double of_runs = 1.0;
  bool json = false;
};

struct CompareOptions {
  LevelOptions level;
  std::string other;              ///< Another level,
  std::vector<std::string> with;  ///< or values of this one: PATH=VALUE.
  std::optional<double> at;       ///< Of the picture; else where the runs part.
  std::string output;
  bool json = false;
};

struct SheetOptions {
  LevelOptions level;
  std::string csv;
  bool json = false;
};

struct SneakOptions {
  LevelOptions level;
  std::string agent;
  std::string to;    ///< X,Y or X,Y,Z
  std::string from;  ///< The same; empty: where it begins.
  std::string body;  ///< A kind; empty: its own.
  std::optional<double> spot;
  std::string track;  ///< A .csv file for the way.
  std::string output;
  bool json = false;
};

struct PlayOptions {
  LevelOptions level;
  std::optional<int> port;  ///< Else one that is free.
  std::string agent;        ///< Whom the page takes over at first; empty: the first that it can.
};

struct ReplayOptions {
  LevelOptions level;
  std::string output;
};

struct SchemaOptions {
  bool reference = false;  ///< Markdown for people instead of a schema for editors.
};

struct CompleteOptions {
  LevelOptions level;
  std::string text;  ///< A path that somebody has begun.
};

struct DemoOptions {
  std::string output = "gaze-demo";
  std::string command;  ///< How a reader calls `gaze`; empty: by the path of this program.
};

int check(const CheckOptions& options, const Streams& streams);
int run(const RunOptions& options, const Streams& streams);
int why(const WhyOptions& options, const Streams& streams);
int draw(const DrawOptions& options, const Streams& streams);
int cover(const CoverOptions& options, const Streams& streams);
int path(const PathOptions& options, const Streams& streams);
int expect(const ExpectOptions& options, const Streams& streams);
int vary(const VaryOptions& options, const Streams& streams);
int find(const FindOptions& options, const Streams& streams);
int compare(const CompareOptions& options, const Streams& streams);
int sheet(const SheetOptions& options, const Streams& streams);
int sneak(const SneakOptions& options, const Streams& streams);
int play_page(const PlayOptions& options, const Streams& streams);
int replay(const ReplayOptions& options, const Streams& streams);
int schema(const SchemaOptions& options, const Streams& streams);
int complete(const CompleteOptions& options, const Streams& streams);
int demo(const DemoOptions& options, const Streams& streams);

}  // namespace gaze::cli
