#pragma once

#include <cstdint>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"

/// Whom the names of a level mean: an agent by its id, the agents of a kind and of all kinds that
/// are like it, those of a team, and whoever holds a tag now. Every key that names somebody means
/// this.
namespace gaze {

/// All tags that kinds begin with or zones grant, each once; the bit of a tag is its number here.
[[nodiscard]] std::vector<std::string> tag_names(const Level& level);
[[nodiscard]] std::uint64_t tag_bits(std::span<const std::string> tag_names,
                                     std::span<const std::string> tags);

/// By kind: the number of the kind that it is like; kNoBase: of none.
constexpr std::uint32_t kNoBase = 0xFFFFFFFF;
[[nodiscard]] std::vector<std::uint32_t> bases_of(const Level& level);

/// True if that is the name of the kind, or of one that it is like, near or far.
[[nodiscard]] bool is_of_kind(const Level& level, std::span<const std::uint32_t> bases,
                              const Kind& kind, std::string_view name);

/// What decides whether a name means an agent.
struct Somebody {
  std::uint32_t agent = 0xFFFFFFFF;  ///< None: just somebody of that kind.
  std::uint32_t kind = 0;
  std::uint64_t tags = 0;  ///< Held now.
};

/// A list of names, looked up once.
class Whom {
 public:
  Whom() = default;
  Whom(const Level& level, std::span<const std::string> names,
       std::span<const std::string> tag_names);

  /// No name was given.
  bool is_empty() const { return is_empty_; }
  bool means(const Somebody& who) const;
  /// True if whom the list means may change while a level is played, because it names tags.
  bool goes_by_tags() const { return tags_ != 0; }
  bool goes_by_agents() const { return !agents_.empty(); }
  std::uint64_t tags() const { return tags_; }

 private:
  void name_all_like_them(std::span<const std::uint32_t> bases);

  bool is_empty_ = true;
  std::vector<std::uint32_t> agents_;
  std::vector<char> kinds_;  ///< By kind: also those of a team that is named.
  std::uint64_t tags_ = 0;
};

}  // namespace gaze
