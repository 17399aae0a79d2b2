#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>

#include "file/field_reader.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

// In the order of Mode.
const std::vector<std::string> kModeNames = words_of(kReactionKeys.key("mode"));

/// Reads the rules of one kind: cause, name where the cause has names, reaction.
class WhenReader {
 public:
  WhenReader(ReadContext& context, const Node& table, const std::string& path, const Scope& scope)
      : context_(context), reader_(context, table, path, kWhenKeys), scope_(scope) {
    for (const Feeler& feeler : scope.kind->feelers) feelers_.push_back(feeler.name);
  }

  When read() {
    for (const Cause cause : {Cause::sees, Cause::hurt, Cause::triggered, Cause::loses,
                              Cause::arrives, Cause::forgets}) {
      read_plain(cause);
    }
    const std::vector<std::string> sides{kSideNames.begin(), kSideNames.end()};
    read_named(Cause::touches, &sides, "side");
    read_named(Cause::feels, &feelers_, "feeler");
    read_named(Cause::misses, &feelers_, "feeler");
    read_named(Cause::near, &scope_.names.kinds, "kind");
    read_named(Cause::hears, nullptr, "noise");
    read_named(Cause::told, &scope_.names.kinds, "kind");
    read_named(Cause::lasts, &kModeNames, "mode");
    constexpr std::array<Mode, 5> kIdle{Mode::post, Mode::patrol, Mode::wander, Mode::follow,
                                        Mode::mirror};
    const auto idle = reader_.known_word("idle");
    if (idle) when_.idle = kIdle[*idle];
    reader_.finish();
    return std::move(when_);
  }

 private:
  void read_plain(Cause cause) {
    const std::string key(name_of(cause));
    const Node* node = reader_.find(key);
    if (node == nullptr) return;
    context_.origins[reader_.path_of(key)] = node->place;
    add(cause, "", *node, reader_.path_of(key));
  }

  static std::vector<std::string> reaction_keys() {
    std::vector<std::string> keys;
    for (const Key& key : kReactionKeys.keys) keys.emplace_back(key.name);
    return keys;
  }

  // One reaction, whatever the name, rather than a table of names and reactions.
  static bool is_reaction(const Node& table) {
    return !table.entries.empty() &&
           std::all_of(table.entries.begin(), table.entries.end(), [](const Node::Entry& entry) {
             return kReactionKeys.find(entry.key) != nullptr;
           });
  }

  // A table of names and reactions; plain text, or one reaction, is short for { any = ... }.
  void read_named(Cause cause, const std::vector<std::string>* known, std::string_view what) {
    const std::string key(name_of(cause));
    const Node* node = reader_.find(key);
    if (node == nullptr) return;
    const std::string path = reader_.path_of(key);
    if (node->type != Node::Type::table || is_reaction(*node)) return add(cause, "", *node, path);
    for (const Node::Entry& entry : node->entries) {
      if (entry.key == "any" && cause != Cause::lasts) {
        add(cause, "", entry.value, fmt::format("{}.any", path));
        continue;
      }
      if (!is_known(entry, known, what, path)) continue;
      context_.origins[fmt::format("{}.{}", path, entry.key)] = entry.place;
      add(cause, entry.key, entry.value, fmt::format("{}.{}", path, entry.key));
    }
  }

  bool is_known(const Node::Entry& entry, const std::vector<std::string>* known,
                std::string_view what, const std::string& path) {
    if (known == nullptr ? is_name(entry.key)
                         : std::find(known->begin(), known->end(), entry.key) != known->end()) {
      return true;
    }
    std::vector<std::string> near = known == nullptr ? std::vector<std::string>{} : *known;
    const std::vector<std::string> keys = reaction_keys();
    near.insert(near.end(), keys.begin(), keys.end());
    const std::string hint =
        known == nullptr ? "; letters, digits, _ and - are allowed" : suggestion(entry.key, near);
    reader_.fault(entry.place,
                  fmt::format("{}: there is no {} '{}'{}", path, what, entry.key, hint));
    return false;
  }

  void add(Cause cause, const std::string& name, const Node& node, const std::string& path) {
    if (cause == Cause::lasts && node.type != Node::Type::table) {
      reader_.fault(node.place, fmt::format("{} is {}; {{ mode = ..., after = ... }} is needed",
                                            path, found(node)));
      return;
    }
    Rule rule{cause, name, {}};
    if (node.type == Node::Type::table) {
      read_reaction(node, path, cause, rule.reaction);
    } else {
      rule.reaction.mode = mode_from(node, path);
    }
    when_.rules.push_back(std::move(rule));
  }

  std::optional<Mode> mode_from(const Node& node, const std::string& path) {
    const bool is_text = node.type == Node::Type::text;
    if (is_text) {
      const auto it = std::find(kModeNames.begin(), kModeNames.end(), node.text);
      if (it != kModeNames.end()) return static_cast<Mode>(it - kModeNames.begin());
    }
    reader_.fault(node.place, fmt::format("{} is {}; allowed: \"{}\"{}", path, found(node),
                                          fmt::join(kModeNames, "\", \""),
                                          is_text ? suggestion(node.text, kModeNames) : ""));
    return std::nullopt;
  }

  void read_reaction(const Node& node, const std::string& path, Cause cause, Reaction& reaction) {
    FieldReader reader(context_, node, path, kReactionKeys, scope_);
    if (cause == Cause::lasts) reader.need("after");
    reader.read(reaction);
  }

  ReadContext& context_;
  TableReader reader_;
  const Scope& scope_;
  std::vector<std::string> feelers_;
  When when_;
};

}  // namespace

When read_when(ReadContext& context, const Node& table, const std::string& path,
               const Scope& scope) {
  return WhenReader(context, table, path, scope).read();
}

}  // namespace gaze
