#define CSV_IO_NO_THREAD
#include <fmt/format.h>
#include <libfccp/csv.h>

#include <array>
#include <charconv>
#include <sstream>

#include "file/field_reader.hpp"
#include "level/spelling.hpp"

/// Tracks from CSV files.
namespace gaze {
namespace {

constexpr std::size_t kMostPoints = 2'000'000;

/// The columns that count; a file may have others, in any order.
enum Column { time, x, y, z, facing, fires, aim_x, aim_y, aim_z, does, agent, shot, column_count };
constexpr std::array<const char*, column_count> kColumns{
    "time", "x", "y", "z", "facing", "fires", "aim_x", "aim_y", "aim_z", "does", "agent", "shot"};

using Row = std::array<char*, column_count>;

std::vector<std::string> words_of_text(std::string_view text, char separator) {
  std::vector<std::string> words;
  std::string word;
  std::istringstream stream{std::string(text)};
  while (std::getline(stream, word, separator)) {
    if (!word.empty()) words.push_back(word);
  }
  return words;
}

std::optional<double> number_of(std::string_view text) {
  double value = 0.0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc{} || end != text.data() + text.size()) return std::nullopt;
  return value;
}

/// Reads the lines of one agent.
class TrackReader {
 public:
  TrackReader(Faults& faults, std::string file, std::string who, Plane plane, double ground)
      : faults_(faults),
        file_(std::move(file)),
        who_(std::move(who)),
        plane_(plane),
        ground_(ground) {
    track_.file = file_;
  }

  std::optional<Track> read(const std::string& text) {
    std::istringstream stream(text);
    io::CSVReader<column_count, io::trim_chars<' ', '\t', '\r'>, io::no_quote_escape<','>,
                  io::throw_on_overflow, io::no_comment>
        reader("track", stream);
    try {
      read_head(reader);
      while (has_fault_ == false && read_row(reader)) {
      }
    } catch (const io::error::too_few_columns&) {
      fault(reader.get_file_line(), "has fewer columns than the first line");
    } catch (const io::error::too_many_columns&) {
      fault(reader.get_file_line(), "has more columns than the first line");
    } catch (const io::error::base&) {
      fault(std::max(1U, reader.get_file_line()), "is not a line of CSV");
    }
    if (has_fault_) return std::nullopt;
    if (track_.points.empty()) {
      fault(1, who_.empty() ? "has no lines after the first"
                            : fmt::format("has no line of an agent '{}'{}", who_,
                                          suggestion(who_, agents_)));
      return std::nullopt;
    }
    return std::move(track_);
  }

 private:
  template <typename Reader>
  void read_head(Reader& reader) {
    reader.read_header(io::ignore_extra_column | io::ignore_missing_column, "time", "x", "y", "z",
                       "facing", "fires", "aim_x", "aim_y", "aim_z", "does", "agent", "shot");
    for (std::size_t i = 0; i < column_count; ++i) has_[i] = reader.has_column(kColumns[i]);
    for (const Column needed : {time, x, plane_ == Plane::upright ? z : y}) {
      if (!has_[needed]) return fault(1, fmt::format("has no column '{}'", kColumns[needed]));
    }
    if (plane_ == Plane::space && !has_[z]) {
      return fault(1, "has no column 'z', which a level in space needs");
    }
    if (!who_.empty() && !has_[agent]) fault(1, "has no column 'agent' to find one by");
  }

  template <typename Reader>
  bool read_row(Reader& reader) {
    Row row{};
    static char empty[] = "";
    row.fill(empty);
    const bool is_there = reader.read_row(row[0], row[1], row[2], row[3], row[4], row[5], row[6],
                                          row[7], row[8], row[9], row[10], row[11]);
    if (!is_there) return false;
    line_ = reader.get_file_line();
    if (has_[shot] && *row[shot] != '\0') return true;  // a projectile
    if (!is_meant(row)) return true;
    add(row);
    return true;
  }

  // Without a name only one agent may stand in the file.
  bool is_meant(const Row& row) {
    if (!has_[agent]) return true;
    const std::string name = row[agent];
    if (std::find(agents_.begin(), agents_.end(), name) == agents_.end()) agents_.push_back(name);
    if (!who_.empty()) return name == who_;
    if (agents_.size() > 1) {
      fault(line_, fmt::format("is of '{}', and others are of '{}'; track = {{ file = ..., agent = "
                               "... }} says which is meant",
                               name, agents_[0]));
    }
    return true;
  }

  void add(const Row& row) {
    TrackPoint point;
    point.line = line_;
    point.seconds = number(row, time, 0.0, 1e6);
    point.place = place(row, x, y, z);
    if (has_[facing] && *row[facing] != '\0') {
      point.facing = Angle::from_degrees(number(row, facing, -1e6, 1e6));
    }
    if (has_[fires]) add_fire(row, point);
    if (has_[aim_x] && *row[aim_x] != '\0') {
      point.aim = place(row, aim_x, aim_y, aim_z);
      point.is_plan_aim = plane_ != Plane::upright && (!has_[aim_z] || *row[aim_z] == '\0');
    }
    if (has_[does]) add_deeds(row[does], point);
    if (has_fault_) return;
    if (!track_.points.empty() && !(point.seconds > track_.points.back().seconds)) {
      return fault(line_, fmt::format("is at {} s, after one at {} s; time goes on", point.seconds,
                                      track_.points.back().seconds));
    }
    if (track_.points.size() == kMostPoints) {
      return fault(line_, fmt::format("is one too many; {} are allowed", kMostPoints));
    }
    track_.points.push_back(std::move(point));
  }

  // 0, 1, a share of the step, or the names of the attacks that are fired: "ray+thorn".
  void add_fire(const Row& row, TrackPoint& point) {
    const std::string_view text = row[fires];
    if (text.empty()) return;
    const auto words = words_of_text(text, '+');
    for (const std::string& word : words) {
      if (const auto share = number_of(word)) {
        point.fires = *share;
        if (*share >= 0.0 && *share <= 1.0) continue;
        return fault(line_,
                     fmt::format("fires '{}'; 0 to 1, or names of attacks, are allowed", word));
      }
      if (!is_name(word)) return fault(line_, fmt::format("fires '{}', which is no name", word));
      point.attacks.push_back(word);
    }
    if (!point.attacks.empty() && point.attacks.size() == words.size()) point.fires = 1.0;
  }

  void add_deeds(const char* text, TrackPoint& point) {
    for (const std::string& part : words_of_text(text, ';')) {
      const auto words = words_of_text(part, ' ');
      if (words.empty()) continue;
      if (!add_deed(words, point)) {
        return fault(
            line_,
            fmt::format("does '{}'; `take ID`, `throw KIND X Y Z`, `drop`, `noise "
                        "NAME REACH` and `quiet` are allowed; all but the last with `from X Y Z`",
                        part));
      }
    }
  }

  static std::optional<Vector3d> place_from(const std::string* words) {
    Vector3d place{0.0, 0.0, 0.0};
    for (int i = 0; i < 3; ++i) {
      const auto value = number_of(words[i]);
      if (!value) return std::nullopt;
      place[i] = *value;
    }
    return place;
  }

  static bool add_deed(std::vector<std::string> words, TrackPoint& point) {
    TrackDeed deed;
    constexpr std::size_t kFrom = 4;  // words: from X Y Z
    if (words.size() > kFrom && words[words.size() - kFrom] == "from") {
      deed.from = place_from(&words[words.size() - kFrom + 1]);
      if (!deed.from) return false;
      words.resize(words.size() - kFrom);
    }
    if (words[0] == "quiet" && words.size() == 1 && !deed.from) {
      point.is_quiet = true;
      return true;
    }
    if (words[0] == "drop" && words.size() == 1) {
      deed.what = TrackDeed::What::drop;
    } else if (words[0] == "take" && words.size() == 2) {
      deed.name = words[1];
    } else if (words[0] == "noise" && words.size() == 3) {
      deed.what = TrackDeed::What::noise;
      deed.name = words[1];
      const auto reach = number_of(words[2]);
      if (!reach || !is_name(deed.name)) return false;
      deed.reach = *reach;
    } else if (words[0] == "throw" && words.size() == 5) {
      deed.what = TrackDeed::What::throw_;
      deed.name = words[1];
      const auto place = place_from(&words[2]);
      if (!place) return false;
      deed.place = *place;
    } else {
      return false;
    }
    point.deeds.push_back(std::move(deed));
    return true;
  }

  double number(const Row& row, Column column, double low, double high) {
    const auto value = number_of(row[column]);
    if (value && *value >= low && *value <= high) return *value;
    fault(line_, fmt::format("has '{}' for {}; a number of {} to {} is needed", row[column],
                             kColumns[column], low, high));
    return 0.0;
  }

  Vector3d place(const Row& row, Column of_x, Column of_y, Column of_z) {
    constexpr double kMost = LevelLimits::coordinate;
    const auto value = [&](Column column, double left_out) {
      if (!has_[column] || *row[column] == '\0') return left_out;
      return number(row, column, -kMost, kMost);
    };
    Vector3d place{value(of_x, 0.0), value(of_y, 0.0), value(of_z, ground_)};
    if (plane_ == Plane::upright) place.y() = 0.0;
    return place;
  }

  void fault(unsigned line, const std::string& what) {
    if (has_fault_) return;
    has_fault_ = true;
    faults_.add({file_, static_cast<int>(line), 1}, fmt::format("the line {}", what));
  }

  Faults& faults_;
  std::string file_;
  std::string who_;
  Plane plane_;
  double ground_;
  std::array<bool, column_count> has_{};
  std::vector<std::string> agents_;
  Track track_;
  unsigned line_ = 0;
  bool has_fault_ = false;
};

}  // namespace

void FieldReader::track(const char* key, std::shared_ptr<const Track>& track) {
  const Node* node = reader_.find(key);
  if (node == nullptr) return;
  std::string file;
  std::string who;
  if (node->type == Node::Type::table) {
    TableReader reader(reader_.context(), *node, reader_.path_of(key), kTrackKeys);
    file = reader.text("file", "");
    who = reader.text("agent", "");
    if (file.empty()) reader.need("file", "the name of a file");
    reader.finish();
  } else {
    file = reader_.text(key, "");
  }
  if (file.empty()) return;
  // What an option sets stands in no file: the name is beside that of the agent.
  const Place& written = node->place.line > 0 ? node->place : reader_.table().place;
  const std::filesystem::path path = std::filesystem::path(written.file).parent_path() / file;
  Faults own;
  const auto text = read_text(path, own);
  if (!text) {
    for (const Fault& fault : own.take()) reader_.fault(node->place, fault.text());
    return;
  }
  TrackReader reader(reader_.context().faults, path.string(), who, scope_.plane,
                     scope_.ground_height);
  if (auto read = reader.read(*text)) track = std::make_shared<const Track>(std::move(*read));
}

}  // namespace gaze
