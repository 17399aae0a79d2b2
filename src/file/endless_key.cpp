#include "file/endless_key.hpp"

namespace gaze {
namespace {

/// Walks over a text and keeps count of lines and columns.
class Scanner {
 public:
  explicit Scanner(std::string_view text) : text_(text) {}

  bool at_end() const { return at_ >= text_.size(); }
  char here() const { return text_[at_]; }
  bool starts(std::string_view token) const { return text_.substr(at_).starts_with(token); }
  Place place() const { return {"", line_, column_}; }

  void skip(std::size_t count = 1) {
    for (; count > 0 && !at_end(); --count) {
      column_ = here() == '\n' ? 1 : column_ + 1;
      line_ += here() == '\n' ? 1 : 0;
      ++at_;
    }
  }

  void skip_comment() {
    while (!at_end() && here() != '\n') skip();
  }

  // From an opening quote past the closing one, or to the end of the line for those of one line.
  void skip_string() {
    const char quote = here();
    const std::string_view triple = quote == '"' ? R"(""")" : "'''";
    const bool is_long = starts(triple);
    const std::string_view end = is_long ? triple : triple.substr(0, 1);
    skip(end.size());
    while (!at_end() && !starts(end) && (is_long || here() != '\n')) {
      skip(quote == '"' && here() == '\\' ? 2 : 1);
    }
    skip(end.size());
  }

 private:
  std::string_view text_;
  std::size_t at_ = 0;
  int line_ = 1;
  int column_ = 1;
};

}  // namespace

std::optional<Place> find_endless_key(std::string_view text) {
  Scanner scanner(text);
  int parts = 1;
  while (!scanner.at_end()) {
    const char c = scanner.here();
    if (c == '#') {
      scanner.skip_comment();
    } else if (c == '"' || c == '\'') {
      scanner.skip_string();
    } else {
      if (c == '.' && ++parts > kMostKeyParts) return scanner.place();
      if (std::string_view("=,[]{}\n").find(c) != std::string_view::npos) parts = 1;
      scanner.skip();
    }
  }
  return std::nullopt;
}

}  // namespace gaze
