#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of figures and expectations.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Allowed kAnyNumber{-1e12, 1e12, ""};

constexpr Key kFigureRows[] = {
    word("first", kHappenings, "", "when the first such event is, seconds"),
    word("last", kHappenings, "", "when the last such event is, seconds"),
    word("count", kHappenings, "", "how many such events there are"),
    word("sum", kCarried, "", "of that number, over all of `event`"),
    word("event", kHappenings, "`sum`: must be given", "whose numbers are added"),
    word("least", kQuantities, "", "the least that it is"),
    word("most", kQuantities, "", "the most that it is"),
    word("mean", kQuantities, "", "its mean over time"),
    word("start", kQuantities, "", "what it is at the beginning"),
    word("end", kQuantities, "", "what it is at the end"),
    word("share", kSituations, "", "of the time in which this is so, 0 to 1"),
    numbers("between", 2, {}, "", "seconds from the first of the one to the first of the other",
            Sort::picks),
    other("by", Sort::name, "anybody", "who did or felt it: an id, kind, team or tag"),
    other("of", Sort::name, "anybody", "whom it concerns")
        .with("With `\"seen by\"`, `\"seen\"`, `\"unseen\"` and `\"noticed\"`: by whom; left out, "
              "whoever looks for it."),
    number("from", kSeconds, "the beginning", "what is earlier does not count"),
    number("to", kSeconds, "the end", "what is later does not count"),
};

constexpr Key kPickRows[] = {
    word("event", kHappenings, kMustBeGiven, "what happens"),
    other("by", Sort::name, "anybody", "who did or felt it"),
    other("of", Sort::name, "anybody", "whom it concerns"),
};

constexpr Key kExpectRows[] = {
    other("id", Sort::name, kMustBeGiven, "unlike the ids of other expectations"),
    other("figure", Sort::text, kMustBeGiven, "one of the level's, or of a player's"),
    number("at_least", kAnyNumber, "no limit", "it is not below this"),
    number("at_most", kAnyNumber, "no limit", "it is not above this"),
    number("exactly", kAnyNumber, "no limit", "it is this, to a millionth"),
    truth("never", "whether it is none: what it tells of does not occur"),
    whole("runs", {1.0, 1'000'000.0, ""}, 1.0, "so many runs, with the seeds from 1 on")
        .with("One run has the level's own seed."),
    number("of_runs", {0.0, 1.0, "", true}, 1.0, "the share of them in which it must hold"),
    other("set", Sort::settings, "nothing", "values by path, for this expectation alone"),
};

}  // namespace

constinit const KeyTable kFigureKeys{
    "figure.NAME", "[figure.NAME]",
    "One number taken from a run; [trying.md](trying.md) tells what for. It has exactly one of the "
    "keys from `first` to `between`, without `event`. The time of what does not occur, and what is "
    "measured of nobody, is none, and never 0; how often it occurs is 0.",
    R"([figure.warning]
between = [{ event = "noticed", of = "collector" }, { event = "hurt", by = "collector" }]

[figure.nearest]
least = "distance"
by = "pruner"
of = "collector"
)",
    kFigureRows};

constinit const KeyTable kPickKeys{"figure event", "An event of a figure",
                                   "Which events are meant.",
                                   R"([figure.from-sight-to-defeat]
between = [{ event = "noticed", by = "pruner" }, { event = "defeated" }]
)",
                                   kPickRows};

constinit const KeyTable kExpectKeys{
    "expect", "[[expect]]",
    "A test of the level, which `gaze expect` plays. At least one of `at_least`, `at_most`, "
    "`exactly` and `never` says what the figure must be. A figure that is none keeps no limit, but "
    "for this: what does not come (`first`, `between`) comes later than any `at_least`.",
    R"([[expect]]
id = "calm-entrance"
figure = "collector.first-noticed"
at_least = 2.0
runs = 20
of_runs = 0.9
set = { "kind.pruner.sight.range" = 7.0 }
)",
    kExpectRows};

}  // namespace gaze
