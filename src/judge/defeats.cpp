#include <fmt/format.h>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

/// What is left behind at a defeat.
namespace gaze {

// A kind that is like another leaves behind what that one leaves, which is easily forgotten.
void judge_defeats(Bench& bench) {
  const Level& level = bench.level();
  for (std::size_t i = 0; i < level.named_kinds; ++i) {
    const Kind& kind = level.kinds[i];
    if (!kind.defeat.leaves || kind.like.empty()) continue;
    const auto own = level.origin(fmt::format("kind.{}.defeat.leaves", kind.name));
    const auto base = level.origin(fmt::format("kind.{}.defeat.leaves", kind.like));
    if (!own || !base || *own != *base) continue;
    bench.say(Finding::Severity::warning, "leaves-inherited", kind.place,
              worded("a {0} that is defeated leaves a {1}, but only because it is like a {2}, "
                     "for which {3}:{4}:{5} says so; let [kind.{0}.defeat] say what it leaves, "
                     "or leaves = false",
                     kind.name, level.kinds[*kind.defeat.leaves].name, kind.like, own->file,
                     own->line, own->column));
  }
}

}  // namespace gaze
