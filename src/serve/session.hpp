#pragma once

#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "gaze/error.hpp"
#include "gaze/setting.hpp"
#include "serve/checker.hpp"
#include "serve/files.hpp"
#include "serve/run.hpp"

namespace gaze::serve {

/// What is new counts up; who shows it compares with what it has shown.
struct Revisions {
  int level = 0;   ///< The level, and so everything: another run has begun.
  int values = 0;  ///< Which values are tried, kept or can be taken back.
  int faults = 0;  ///< What is wrong with the file as it is.
  int ghost = 0;   ///< The play before.
  int takes = 0;   ///< Saved plays.
};

/// A level being played by hand, tried with other values, and followed as its file changes. Knows
/// nothing of pages and sockets. Throws UsageError for what cannot be meant.
class Session {
 public:
  /// Writes a file whole or not at all; throws if it cannot.
  using Writer = std::function<void(const std::filesystem::path&, const std::string&)>;

  /// @param given  Values that are set for as long as the session lasts.
  /// Throws LevelError if the level cannot be played.
  Session(std::filesystem::path file, std::vector<Setting> given, Writer writer);

  [[nodiscard]] const Run& run() const { return *run_; }
  [[nodiscard]] const Simulation& game() const { return run_->game(); }
  [[nodiscard]] const Revisions& revisions() const { return revisions_; }
  [[nodiscard]] const std::filesystem::path& file() const { return file_; }

  /// Whom a page takes over at first. Throws UsageError for one that cannot be.
  void choose_player(const std::string& agent);
  [[nodiscard]] const std::string& player() const { return player_; }

  // Time.
  [[nodiscard]] bool is_playing() const { return is_playing_; }
  [[nodiscard]] double pace() const { return pace_; }
  void play();
  void pause() { is_playing_ = false; }
  void set_pace(double pace);  ///< Of the clock: 0.05 to 8.
  /// Plays on for so much time of the clock, while it plays. At the end of the level it pauses.
  void advance(double seconds);
  void step(int ticks);  ///< Pauses. Below 0: back.
  void go_to(std::int64_t tick);
  void play_through();  ///< To the end of the level.
  void restart();       ///< A new play from the beginning; the old one becomes the ghost.

  // The hand.
  void steer(const std::string& agent, const Steering& steering);
  void let_go(const std::string& agent);
  void by_hand(const std::string& agent, const HandDeed& deed);

  // Values.
  [[nodiscard]] const std::vector<Setting>& tried() const { return tried_; }
  /// Plays what has been played so far again with a value. Throws LevelError, and changes nothing,
  /// if the level cannot be played with it.
  void try_value(const std::string& path, const std::string& value);
  void drop_values();  ///< Back to those of the file.
  void keep_values();  ///< Writes those that are tried into the level's files.
  void undo();         ///< Takes back what was written last.
  [[nodiscard]] std::size_t kept() const { return undo_.size(); }

  /// The play before the last change of values, of the file, or of what the hand did.
  [[nodiscard]] const std::optional<Past>& ghost() const { return ghost_; }
  void drop_ghost();

  // The file.
  /// Looks whether the files of the level have changed, and if so plays the same inputs with them.
  void look_at_files();
  [[nodiscard]] const std::vector<Fault>& faults() const { return faults_; }

  /// Reads the level as it is played, with more values set.
  [[nodiscard]] LevelSource source() const;
  /// Findings and expectations of the level as it is played.
  [[nodiscard]] const Checker& checker() const { return checker_; }

  // Takes.
  [[nodiscard]] std::vector<std::string> takes() const;  ///< Names of those beside the level.
  /// Saves what an agent has done as a track beside the level.
  void save_take(const std::string& name, const std::string& agent);
  /// Plays from the beginning with an agent on a take.
  void load_take(const std::string& name, const std::string& agent);

 private:
  struct Written {
    std::filesystem::path file;
    std::string before;
    std::string after;
  };
  /// A change that was written to a file. Undo reverts it.
  struct Undo {
    std::filesystem::path file;
    std::size_t at = 0;      ///< Bytes from the beginning.
    std::string removed;     ///< What stood there before.
    std::size_t added = 0;   ///< Bytes that stand there now.
    std::size_t digest = 0;  ///< Of the whole file as it was written.
  };
  struct LoadedTake {
    std::string agent;
    std::string name;
    std::string of;  ///< Whose it is, of several in a file.
  };

  [[nodiscard]] std::vector<Setting> settings(const std::vector<Setting>& tried) const;
  /// A run of the level with some values, played to an end and gone back to a moment. All or
  /// nothing.
  void begin(std::vector<Setting> tried, Inputs inputs, std::int64_t end, std::int64_t at);
  void read_anew(std::vector<Setting> tried);
  void change(Input input);
  [[nodiscard]] static Undo undo_of(const Written& written);
  void write_all(const std::vector<Written>& written);

  std::filesystem::path file_;
  std::vector<Setting> given_;
  Writer writer_;
  std::vector<Setting> tried_;
  std::optional<LoadedTake> take_;
  std::string player_;
  std::unique_ptr<Run> run_;
  std::optional<Past> ghost_;
  WatchedFiles files_;
  std::vector<Fault> faults_;
  std::vector<Undo> undo_;
  Revisions revisions_;
  bool is_playing_ = false;
  double pace_ = 1.0;
  double left_over_ = 0.0;  ///< Seconds of play that were no whole step.
  Checker checker_;
};

}  // namespace gaze::serve
