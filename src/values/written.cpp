#include "values/written.hpp"

#include "values/fields.hpp"
#include "values/other_fields.hpp"

namespace gaze {
namespace {

/// Takes out what was written nowhere.
class LeaveOut : public OtherFields {
 public:
  LeaveOut(const Level& level, const Agent* agent, std::string kind, std::string path = "")
      : level_(level), agent_(agent), kind_(std::move(kind)), path_(std::move(path)) {}

  template <typename T>
  void operator()(const char*, T&) {}
  template <typename T>
  void operator()(const char* key, std::optional<T>& value) {
    if (!is_written(key)) value.reset();
  }
  template <typename T>
  void needed(const char*, T&) {}
  template <typename T>
  void may_be(const char* key, T& value) {
    (*this)(key, value);
  }
  void half(const char* key, std::optional<double>& value) { (*this)(key, value); }
  void eye(const char* height, const char* key, std::optional<Vector3d>& value) {
    if (!is_written(height)) (*this)(key, value);
  }
  void axes(const char* key, std::optional<std::array<bool, 3>>& value) { (*this)(key, value); }

  template <typename Part>
  void part(const char* key, std::optional<Part>& part) {
    if (part) this->part(key, *part);
  }
  template <typename Part>
  void part(const char* key, Part& part) {
    LeaveOut inner(level_, agent_, kind_, path_ + key + ".");
    fields(inner, part);
  }
  template <typename Part>
  void parts(const char* key, std::vector<Part>& parts) {
    for (Part& part : parts) this->part((key + ("." + part.name)).c_str(), part);
  }

 private:
  bool is_written(const char* key) const {
    const std::string path = path_ + key;
    return agent_ != nullptr ? level_.origin(*agent_, path).has_value()
                             : level_.origin("kind." + kind_ + "." + path).has_value();
  }

  const Level& level_;
  const Agent* agent_;  ///< Whose own kind it is.
  std::string kind_;
  std::string path_;
};

}  // namespace

std::vector<Kind> written_kinds(const Level& level) {
  std::vector<Kind> kinds = level.kinds;
  if (level.origins.empty()) return kinds;  // it was never in a file
  std::vector<const Agent*> owners(kinds.size(), nullptr);
  for (const Agent& agent : level.agents) {
    if (agent.kind >= level.named_kinds) owners[agent.kind] = &agent;
  }
  for (std::size_t i = 0; i < kinds.size(); ++i) {
    LeaveOut visit(level, owners[i], kinds[i].name);
    fields(visit, kinds[i]);
  }
  return kinds;
}

}  // namespace gaze
