#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

/// What the keys of a level file are: one list for the reader, the reference, the schema for
/// editors and completions.
namespace gaze {

/// Whole numbers up to here are as good as without end.
inline constexpr double kWithoutEnd = 9223372036854775807.0;

/// The numbers that a key may have. Between 0 and a millionth there is none where 0 is the lowest:
/// what is so small, a length or a speed, is a slip of the pen, and quotients of it have no end.
struct Allowed {
  static constexpr double kLeastAboveZero = 1e-6;
  double low = 0.0;
  double high = 0.0;
  std::string_view unit;   ///< "m", "degrees", ...; may be empty.
  bool above_low = false;  ///< `low` itself is not allowed.

  bool holds(double value) const;
  /// The same for what may follow from another value: it comes out as small as that has it, and up
  /// to twice as large.
  bool reaches_to(double value) const;
  std::string text_for(double value) const;  ///< Why it does not hold that.
};

/// What is taken if a key is left out: a number, or something that has to be said in words.
struct LeftOut {
  std::optional<double> number;
  std::string_view words{};

  constexpr LeftOut(double value) : number(value) {}         // NOLINT
  constexpr LeftOut(std::string_view text) : words(text) {}  // NOLINT
  constexpr LeftOut(const char* text) : words(text) {}       // NOLINT
};

/// Of keys that must be given.
inline constexpr std::string_view kMustBeGiven = "must be given";

/// One key of a table.
struct Key {
  enum class Sort {
    number,
    whole,      ///< A whole number.
    truth,      ///< true or false.
    text,       ///< Any text.
    name,       ///< Letters, digits, _ and -.
    word,       ///< One of `words`.
    names,      ///< A list of names.
    words,      ///< A list of some of `words`.
    numbers,    ///< A list of `count` numbers.
    list,       ///< A list of numbers, as many as one likes up to `count`.
    point,      ///< [x, y], in upright levels [x, z], in space levels [x, y, z].
    point3,     ///< [x, y, z] in every plane.
    outline,    ///< A list of points of two numbers.
    patrol,     ///< A list of points, or of tables of a point and what is done there.
    script,     ///< A list of steps.
    reaction,   ///< A mode or a table: one reaction.
    reactions,  ///< A table of names and reactions, or one reaction.
    amounts,    ///< A table of free names and numbers.
    picks,      ///< A list of `count` tables, each of which says which events are meant.
    settings,   ///< A table of paths and values.
    track,      ///< The name of a file, or a table of that and of the agent that is meant.
  };
  std::string_view name;
  Sort sort = Sort::number;
  Allowed allowed{};            ///< Of numbers, also of those in lists and tables.
  std::string_view words{};     ///< Those that it may have, with | between them.
  std::size_t count = 0;        ///< Of lists: how many items.
  LeftOut left_out{""};         ///< What is taken if it is left out.
  std::string_view meaning{};   ///< In a few words.
  std::string_view note{};      ///< What else there is to know, in whole sentences; mostly empty.
  std::string_view only_for{};  ///< Of attacks: the ways to harm that have it; empty: all.
  bool can_be_false = false;    ///< `false` says that there is none, whatever it is like.

  constexpr bool must_be_given() const { return left_out.words == kMustBeGiven; }

  /// The same with a note, for some ways to harm alone, or with `false` allowed.
  constexpr Key with(std::string_view text) const {
    Key key = *this;
    key.note = text;
    return key;
  }
  constexpr Key of(std::string_view ways) const {
    Key key = *this;
    key.only_for = ways;
    return key;
  }
  constexpr Key or_false() const {
    Key key = *this;
    key.can_be_false = true;
    return key;
  }
};

/// A key of any sort.
constexpr Key other(std::string_view name, Key::Sort sort, LeftOut left_out,
                    std::string_view meaning) {
  return {.name = name, .sort = sort, .left_out = left_out, .meaning = meaning};
}

constexpr Key number(std::string_view name, const Allowed& allowed, LeftOut left_out,
                     std::string_view meaning) {
  Key key = other(name, Key::Sort::number, left_out, meaning);
  key.allowed = allowed;
  return key;
}

constexpr Key whole(std::string_view name, const Allowed& allowed, LeftOut left_out,
                    std::string_view meaning) {
  Key key = number(name, allowed, left_out, meaning);
  key.sort = Key::Sort::whole;
  return key;
}

/// A list of so many numbers, or with Sort::list of up to so many.
constexpr Key numbers(std::string_view name, std::size_t count, const Allowed& allowed,
                      LeftOut left_out, std::string_view meaning,
                      Key::Sort sort = Key::Sort::numbers) {
  Key key = number(name, allowed, left_out, meaning);
  key.sort = sort;
  key.count = count;
  return key;
}

/// `left_out` is one of the words, or says in words what is taken.
constexpr Key word(std::string_view name, std::string_view allowed, LeftOut left_out,
                   std::string_view meaning) {
  Key key = other(name, Key::Sort::word, left_out, meaning);
  key.words = allowed;
  return key;
}

/// A list of some of the words.
constexpr Key words(std::string_view name, std::string_view allowed, LeftOut left_out,
                    std::string_view meaning) {
  Key key = word(name, allowed, left_out, meaning);
  key.sort = Key::Sort::words;
  return key;
}

constexpr Key truth(std::string_view name, std::string_view meaning) {
  return other(name, Key::Sort::truth, "false", meaning);
}

/// The keys of one sort of table.
struct KeyTable {
  std::string_view name;     ///< Where it stands: "kind.NAME.sight"; "[[wall]]" is "wall".
  std::string_view title;    ///< As it is written: "[kind.NAME.sight]".
  std::string_view intro;    ///< What it is for, in whole sentences.
  std::string_view example;  ///< A few lines of TOML.
  std::span<const Key> keys;
  std::string_view parts{};  ///< The tables that stand in it, with | between them.

  /// The key of that name. Throws std::logic_error if there is none: the reader asks for no others.
  const Key& key(std::string_view name) const;
  const Key* find(std::string_view name) const;
  /// True for a key, or a table that stands in it.
  bool knows(std::string_view name) const;
  /// True if it stands in a list, each with an id: "[[wall]]".
  bool is_listed() const { return title.starts_with("[["); }
  /// True if there may be several, each with a name or an id of its own.
  bool is_named() const { return is_listed() || name.ends_with(".NAME") || name.ends_with(".ANY"); }
};

/// True if an attack of that way to harm has the key.
[[nodiscard]] bool is_for(const Key& key, std::string_view way);

/// What stands between the | of a text, one by one.
[[nodiscard]] std::vector<std::string> split(std::string_view text);
/// The words of a key.
[[nodiscard]] std::vector<std::string> words_of(const Key& key);
/// Which of the words of a key a text is, if it is one of them.
[[nodiscard]] std::optional<std::size_t> index_of_word(const Key& key, std::string_view text);

}  // namespace gaze
