#include "values/numbers_of.hpp"

#include <cmath>

#include "values/fields.hpp"
#include "values/other_fields.hpp"

namespace gaze {
namespace {

template <typename T>
constexpr bool kIsNumber = std::is_constructible_v<NamedNumber::Where, T*>;

/// Goes through the fields of a kind and collects what is a number. Words, names and lists are not.
class Collector : public OtherFields {
 public:
  Collector(std::vector<NamedNumber>& numbers, std::string path)
      : numbers_(numbers), path_(std::move(path)) {}

  template <typename T>
  void operator()(const char* key, T& value) {
    if constexpr (kIsNumber<T>) numbers_.emplace_back(path_ + key, &value);
  }
  template <typename T>
  void needed(const char* key, T& value) {
    (*this)(key, value);
  }
  template <typename T>
  void may_be(const char* key, T& value) {
    (*this)(key, value);
  }
  void amounts(const char* key, std::map<std::string, double>& values) {
    for (auto& [name, value] : values) numbers_.emplace_back(path_ + key + "." + name, &value);
  }
  template <typename Part>
  void part(const char* key, std::optional<Part>& part) {
    if (part) this->part(key, *part);
  }
  template <typename Part>
  void part(const char* key, Part& part) {
    Collector inner(numbers_, path_ + key + ".");
    fields(inner, part);
  }
  template <typename Part>
  void parts(const char* key, std::vector<Part>& parts) {
    for (Part& part : parts) this->part((key + ("." + part.name)).c_str(), part);
  }

 private:
  std::vector<NamedNumber>& numbers_;
  std::string path_;
};

double number(double value) {
  return value;
}
double number(int value) {
  return value;
}
double number(bool value) {
  return value ? 1.0 : 0.0;
}
double number(const Angle& value) {
  return value.degrees();
}
double number(const Duration& value) {
  return value.seconds();
}
template <typename T>
std::optional<double> number(const std::optional<T>& value) {
  return value ? std::optional(number(*value)) : std::nullopt;
}

void put(double& value, double number) {
  value = number;
}
void put(int& value, double number) {
  value = static_cast<int>(number);
}
void put(bool& value, double number) {
  value = number != 0.0;
}
void put(Angle& value, double number) {
  value = Angle::from_degrees(number);
}
void put(Duration& value, double number) {
  value = Duration::from_seconds(number);
}
template <typename T>
void put(std::optional<T>& value, double number) {
  put(value.emplace(), number);
}

template <typename T>
struct IsWhole : std::is_integral<T> {};
template <typename T>
struct IsWhole<std::optional<T>> : std::is_integral<T> {};

}  // namespace

std::optional<double> NamedNumber::get() const {
  return std::visit([](const auto* at) -> std::optional<double> { return number(*at); }, where_);
}

void NamedNumber::set(double value) const {
  std::visit([&](auto* at) { put(*at, value); }, where_);
}

bool NamedNumber::can_be(double value) const {
  constexpr double kMost = 1e9;  // beyond it no number of a level may be
  if (!(std::abs(value) <= kMost)) return false;
  return std::visit(
      [&](const auto* at) {
        using T = std::remove_cvref_t<decltype(*at)>;
        if constexpr (std::is_same_v<T, bool>) return value == 0.0 || value == 1.0;
        return !IsWhole<T>::value || value == std::floor(value);
      },
      where_);
}

std::vector<NamedNumber> numbers_of(Kind& kind) {
  std::vector<NamedNumber> numbers;
  Collector collector(numbers, "");
  fields(collector, kind);
  return numbers;
}

}  // namespace gaze
