#include "commands.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>

#include "level/spelling.hpp"
#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

void add_level_options(CLI::App& app, LevelOptions& options) {
  app.add_option("--set", options.sets, "change a value of the level for this call, as PATH=VALUE")
      ->type_name("PATH=VALUE")
      ->allow_extra_args(false)
      ->take_all();
  app.add_option("--seconds", options.seconds, "how long a run lasts")->type_name("S");
  app.add_option("--seed", options.seed, "seed of all that is random")->type_name("N");
  app.add_option("--ticks-per-second", options.ticks_per_second, "steps a second")->type_name("N");
}

void add_level(CLI::App& app, LevelOptions& options) {
  app.add_option("LEVEL", options.file, "level file")->required();
  add_level_options(app, options);
}

/// The options of all calls, and the call that was chosen.
struct Calls {
  CheckOptions check;
  RunOptions run;
  WhyOptions why;
  DrawOptions draw;
  CoverOptions cover;
  PathOptions path;
  ExpectOptions expect;
  VaryOptions vary;
  FindOptions find;
  CompareOptions compare;
  SheetOptions sheet;
  SneakOptions sneak;
  PlayOptions play;
  ReplayOptions replay;
  SchemaOptions schema;
  CompleteOptions complete;
  DemoOptions demo;
};

void add_why(CLI::App& app, Calls& calls) {
  CLI::App* why = app.add_subcommand("why", "says what one agent knows of another, and why");
  add_level(*why, calls.why.level);
  why->add_option("--agent", calls.why.agent, "who perceives")->type_name("A");
  why->add_option("--other", calls.why.other, "who is perceived")->type_name("B");
  why->add_option("--at", calls.why.at, "when; left out: over the whole run")->type_name("SECONDS");
  why->add_option("--from", calls.why.from, "over a stretch: from when")->type_name("SECONDS");
  why->add_option("--to", calls.why.to, "to when")->type_name("SECONDS");
  why->add_option("--every", calls.why.every, "one row of the table so often")
      ->type_name("SECONDS");
  why->add_option("--plot", calls.why.plot, "draw the stretch into a .png or .svg file")
      ->type_name("FILE");
  why->add_flag("--all", calls.why.all, "every pair of which one looks for the other");
  why->add_flag("--json", calls.why.json, "print it as JSON");
}

void add_cover(CLI::App& app, Calls& calls) {
  CLI::App* cover =
      app.add_subcommand("cover", "by whom each spot is seen, at a moment or over a run");
  add_level(*cover, calls.cover.level);
  cover->add_option("--at", calls.cover.at, "at a moment, instead of over the run")
      ->type_name("SECONDS");
  cover->add_option("--kind", calls.cover.kind, "whose body stands there (else the player's)")
      ->type_name("K");
  cover->add_option("--spot", calls.cover.spot, "side of a spot, 0.25 m if left out")
      ->type_name("METRES");
  cover->add_option("--spots", calls.cover.spots, "write every spot and by whom to a .csv file")
      ->type_name("FILE");
  cover->add_option("--output", calls.cover.output, ".png or .svg file to draw")->type_name("FILE");
  cover->add_flag("--json", calls.cover.json, "print it as JSON");
}

void add_path(CLI::App& app, Calls& calls) {
  CLI::App* path = app.add_subcommand("path", "the shortest way for a body of some kind");
  add_level(*path, calls.path.level);
  path->add_option("--from", calls.path.from, "where it starts")->required()->type_name("X,Y");
  path->add_option("--to", calls.path.to, "where it is to go")->required()->type_name("X,Y");
  path->add_option("--kind", calls.path.kind, "whose body it is")->required()->type_name("K");
  path->add_option("--output", calls.path.output, ".png or .svg file to draw")->type_name("FILE");
  path->add_flag("--json", calls.path.json, "print it as JSON");
}

void add_expect(CLI::App& app, Calls& calls) {
  CLI::App* expect =
      app.add_subcommand("expect", "plays levels as their expectations ask, and says what holds");
  expect->add_option("LEVEL", calls.expect.files, "level files")->required();
  add_level_options(*expect, calls.expect.level);
  expect->add_option("--only", calls.expect.only, "these expectations alone, as ID,ID")
      ->delimiter(',')
      ->type_name("ID,...");
  expect->add_option("--junit", calls.expect.junit, "write the results as JUnit XML")
      ->type_name("FILE");
  expect->add_flag("--json", calls.expect.json, "print the results as JSON");
}

void add_vary(CLI::App& app, Calls& calls) {
  CLI::App* vary =
      app.add_subcommand("vary", "what figures come to for many values of one or two keys");
  add_level(*vary, calls.vary.level);
  vary->add_option("--over", calls.vary.over, "what is varied, as PATH=LOW:HIGH:STEP or PATH=A,B,C")
      ->required()
      ->allow_extra_args(false)
      ->take_all()
      ->type_name("PATH=VALUES");
  vary->add_option("--figure", calls.vary.figures, "a figure of the level, or of a player")
      ->required()
      ->delimiter(',')
      ->allow_extra_args(false)
      ->take_all()
      ->type_name("NAME,...");
  vary->add_option("--runs", calls.vary.runs, "so many runs each, with seeds from 1 on")
      ->type_name("N");
  vary->add_option("--output", calls.vary.output, ".png or .svg file to draw")->type_name("FILE");
  vary->add_option("--csv", calls.vary.csv, "write every run to a .csv file")->type_name("FILE");
  vary->add_flag("--json", calls.vary.json, "print it as JSON");
}

void add_find(CLI::App& app, Calls& calls) {
  CLI::App* find =
      app.add_subcommand("find", "the value of a key at which a wish begins or ceases to hold");
  add_level(*find, calls.find.level);
  find->add_option("--over", calls.find.over, "what is varied, as PATH=LOW:HIGH")
      ->required()
      ->type_name("PATH=LOW:HIGH");
  find->add_option("--figure", calls.find.figure, "a figure of the level, or of a player")
      ->required()
      ->type_name("NAME");
  find->add_option("--at-least", calls.find.at_least, "it is not to be below this")->type_name("X");
  find->add_option("--at-most", calls.find.at_most, "it is not to be above this")->type_name("X");
  find->add_option("--runs", calls.find.runs, "so many runs each, with seeds from 1 on")
      ->type_name("N");
  find->add_option("--of-runs", calls.find.of_runs, "in this share of them it has to be so")
      ->type_name("SHARE");
  find->add_option("--width", calls.find.width, "how narrow a limit is to be")->type_name("W");
  find->add_flag("--json", calls.find.json, "print it as JSON");
}

void add_compare(CLI::App& app, Calls& calls) {
  CLI::App* compare = app.add_subcommand(
      "compare", "where two runs part, and their figures and events side by side");
  add_level(*compare, calls.compare.level);
  compare->add_option("OTHER", calls.compare.other, "another level file");
  compare->add_option("--with", calls.compare.with, "or the same with a value set, as PATH=VALUE")
      ->allow_extra_args(false)
      ->take_all()
      ->type_name("PATH=VALUE");
  compare->add_option("--output", calls.compare.output, ".png or .svg file to draw both into")
      ->type_name("FILE");
  compare->add_option("--at", calls.compare.at, "when; left out: where they part")
      ->type_name("SECONDS");
  compare->add_flag("--json", calls.compare.json, "print it as JSON");
}

void add_sheet(CLI::App& app, Calls& calls) {
  CLI::App* sheet = app.add_subcommand("sheet", "how each kind stands against each that it is for");
  add_level(*sheet, calls.sheet.level);
  sheet->add_option("--csv", calls.sheet.csv, "write it to a .csv file")->type_name("FILE");
  sheet->add_flag("--json", calls.sheet.json, "print it as JSON");
}

void add_sneak(CLI::App& app, Calls& calls) {
  CLI::App* sneak = app.add_subcommand(
      "sneak", "a way to a place that nobody notices, or the proof that there is none");
  add_level(*sneak, calls.sneak.level);
  sneak->add_option("--agent", calls.sneak.agent, "who goes")->required()->type_name("A");
  sneak->add_option("--to", calls.sneak.to, "where to")->required()->type_name("X,Y");
  sneak->add_option("--from", calls.sneak.from, "from where (else where it begins)")
      ->type_name("X,Y");
  sneak->add_option("--body", calls.sneak.body, "whose body it has (else its own)")->type_name("K");
  sneak
      ->add_option("--spot", calls.sneak.spot,
                   "how far apart the places are (else 0.25 m, or more in large levels)")
      ->type_name("METRES");
  sneak->add_option("--track", calls.sneak.track, "write the way to a .csv file, as a track")
      ->type_name("FILE");
  sneak->add_option("--output", calls.sneak.output, ".png or .svg file to draw")->type_name("FILE");
  sneak->add_flag("--json", calls.sneak.json, "print it as JSON");
}

void add_play(CLI::App& app, Calls& calls) {
  CLI::App* play = app.add_subcommand("play", "serves a page on this machine, to play a level in");
  add_level(*play, calls.play.level);
  play->add_option("--port", calls.play.port, "its port, else one that is free")->type_name("N");
  play->add_option("--agent", calls.play.agent, "whom to take over")->type_name("A");
}

void add_replay(CLI::App& app, Calls& calls) {
  CLI::App* replay = app.add_subcommand(
      "replay", "writes a play as one page, to look at without a server or a network");
  add_level(*replay, calls.replay.level);
  replay->add_option("--output", calls.replay.output, ".html file to write")
      ->required()
      ->type_name("FILE");
}

void add_draw(CLI::App& app, Calls& calls) {
  CLI::App* draw = app.add_subcommand("draw", "draws a level and what its agents perceive");
  add_level(*draw, calls.draw.level);
  draw->add_option("--at", calls.draw.at, "when")->type_name("SECONDS");
  draw->add_option("--output", calls.draw.output, ".png or .svg file to write")
      ->required()
      ->type_name("FILE");
  draw->add_flag("--mesh", calls.draw.mesh, "draw where bodies can walk instead, and its islands");
  draw->add_option("--reach", calls.draw.reach,
                   "draw where the attacks of an agent can hurt from where it stands instead")
      ->type_name("AGENT")
      ->excludes("--mesh");
  draw->add_option(
          "--kind", calls.draw.kind,
          "with --mesh: whose body (else the first walker's); with --reach: upon whom (else "
          "the first that it is hostile to)")
      ->type_name("K");
}

void add_keys(CLI::App& app, Calls& calls) {
  CLI::App* schema =
      app.add_subcommand("schema", "all keys of level files, for editors: a JSON schema");
  schema->add_flag("--reference", calls.schema.reference, "as Markdown, to read, instead");

  CLI::App* complete = app.add_subcommand("complete", "how the path of a --set may go on");
  complete->add_option("LEVEL", calls.complete.level.file, "level file")->required();
  complete->add_option("PATH", calls.complete.text, "its beginning");
}

void add_calls(CLI::App& app, Calls& calls) {
  CLI::App* check = app.add_subcommand("check", "reads and judges a level without running it");
  check->add_option("LEVEL", calls.check.files, "level files")->required();
  check->add_flag("--notes", calls.check.notes, "print how play will go as well as what is wrong");
  check->add_flag("--json", calls.check.json, "print all findings as JSON");
  add_level_options(*check, calls.check.level);

  CLI::App* run = app.add_subcommand("run", "plays a level; prints a timeline and a summary");
  add_level(*run, calls.run.level);
  run->add_flag("--json", calls.run.json, "print the result as JSON instead");
  run->add_option("--only", calls.run.only, "print these events alone, as noticed,lost")
      ->delimiter(',')
      ->type_name("EVENT,...");
  run->add_option("--trace", calls.run.trace, "write every tick to a .csv or .jsonl file")
      ->type_name("FILE");

  add_why(app, calls);
  add_cover(app, calls);
  add_path(app, calls);
  add_draw(app, calls);
  add_expect(app, calls);
  add_vary(app, calls);
  add_find(app, calls);
  add_compare(app, calls);
  add_sheet(app, calls);
  add_sneak(app, calls);
  add_play(app, calls);
  add_replay(app, calls);
  add_keys(app, calls);

  CLI::App* demo = app.add_subcommand("demo", "plays the demo level and writes its pictures");
  demo->add_option("--output", calls.demo.output, "folder to write to")->type_name("FOLDER");
}

int call(const CLI::App& app, const Calls& calls, const Streams& streams) {
  if (app.got_subcommand("check")) return check(calls.check, streams);
  if (app.got_subcommand("run")) return run(calls.run, streams);
  if (app.got_subcommand("why")) return why(calls.why, streams);
  if (app.got_subcommand("draw")) return draw(calls.draw, streams);
  if (app.got_subcommand("cover")) return cover(calls.cover, streams);
  if (app.got_subcommand("path")) return path(calls.path, streams);
  if (app.got_subcommand("expect")) return expect(calls.expect, streams);
  if (app.got_subcommand("vary")) return vary(calls.vary, streams);
  if (app.got_subcommand("find")) return find(calls.find, streams);
  if (app.got_subcommand("compare")) return compare(calls.compare, streams);
  if (app.got_subcommand("sheet")) return sheet(calls.sheet, streams);
  if (app.got_subcommand("sneak")) return sneak(calls.sneak, streams);
  if (app.got_subcommand("play")) return play_page(calls.play, streams);
  if (app.got_subcommand("replay")) return replay(calls.replay, streams);
  if (app.got_subcommand("schema")) return schema(calls.schema, streams);
  if (app.got_subcommand("complete")) return complete(calls.complete, streams);
  return demo(calls.demo, streams);
}

// The parser would take nothing for 0.
void refuse_empty(const std::vector<std::string>& arguments) {
  for (std::size_t i = 0; i < arguments.size(); ++i) {
    const bool is_option = arguments[i].starts_with("--");
    if (is_option && i + 1 < arguments.size() && arguments[i + 1].empty()) {
      throw std::invalid_argument(fmt::format("{} has no value", arguments[i]));
    }
    if (is_option && arguments[i].ends_with("=")) {
      throw std::invalid_argument(
          fmt::format("{} has no value", arguments[i].substr(0, arguments[i].size() - 1)));
    }
  }
}

std::string first_line(const std::string& text) {
  return text.substr(0, text.find('\n'));
}

// Throws OutputError for a file that cannot be written, before any run. All options of the type
// FILE name files to write.
void need_writable_files(const CLI::App& app) {
  for (const CLI::App* call : app.get_subcommands()) {
    for (const CLI::Option* option : call->get_options()) {
      if (option->get_type_name() != "FILE" || option->count() == 0) continue;
      for (const std::string& file : option->results()) const OutputFile probe(file);
    }
  }
}

int parse_and_call(CLI::App& app, Calls& calls, std::vector<std::string> arguments,
                   const Streams& streams) {
  std::reverse(arguments.begin(), arguments.end());  // as this parser wants them
  try {
    app.parse(arguments);
  } catch (const CLI::ParseError& error) {
    if (error.get_exit_code() == 0) {
      app.exit(error, streams.out, streams.err);
      return done;
    }
    streams.err << fmt::format("gaze: error: {} (see gaze --help)\n", first_line(error.what()));
    return unusable;
  }
  need_writable_files(app);
  return call(app, calls, streams);
}

}  // namespace

int command(const std::vector<std::string>& arguments, const Streams& streams) {
  CLI::App app{"Gaze: who detects whom, chases, shoots and hurts, and why", "gaze"};
  app.set_version_flag("--version", "gaze " GAZE_VERSION);
  app.require_subcommand(1);
  Calls calls;
  add_calls(app, calls);
  try {
    refuse_empty(arguments);
    const int status = parse_and_call(app, calls, arguments, streams);
    streams.out.flush();
    if (!streams.out) throw OutputError("standard output cannot be written");
    return status;
  } catch (const LevelError& error) {
    for (const Fault& fault : error.faults()) streams.err << fault.text() << '\n';
  } catch (const std::bad_alloc&) {
    streams.err << "gaze: error: there is not enough memory for this level\n";
  } catch (const std::exception& error) {
    streams.err << fmt::format("gaze: error: {}\n", on_one_line(error.what()));
  }
  return unusable;
}

}  // namespace gaze::cli
