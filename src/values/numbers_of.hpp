#pragma once

#include <string>
#include <variant>
#include <vector>

#include "gaze/kind.hpp"

/// The numbers among the values of a kind, to be read and set while a level is played.
namespace gaze {

/// One of them: where it lies, and by which path it goes within its kind.
class NamedNumber {
 public:
  using Where = std::variant<double*, int*, bool*, Angle*, Duration*, std::optional<double>*,
                             std::optional<int>*, std::optional<Angle>*, std::optional<Duration>*>;

  NamedNumber(std::string the_path, Where where) : path(std::move(the_path)), where_(where) {}

  /// In the unit of a file: degrees, seconds; 1 and 0 for yes and no. Nothing if it is left out.
  [[nodiscard]] std::optional<double> get() const;
  void set(double value) const;
  /// False for 1.5 of what is whole, or 2 of yes and no.
  [[nodiscard]] bool can_be(double value) const;

  std::string path;

 private:
  Where where_;
};

/// All of them that count for the kind, in the order of the reference.
[[nodiscard]] std::vector<NamedNumber> numbers_of(Kind& kind);

}  // namespace gaze
