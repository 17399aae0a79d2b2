#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of placed agents, of the points of their patrols and of the steps of their scripts.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Key kAgentRows[] = {
    other("id", Sort::name, kMustBeGiven, "unlike all other ids"),
    other("kind", Sort::name, kMustBeGiven, "whose values it has"),
    other("at", Sort::point, kMustBeGiven, "where it begins: its feet"),
    number("facing", kTurn, 0.0, "where it looks at first"),
    other("patrol", Sort::patrol, "none", "points, or tables of a point and what to do there"),
    word("patrol_style", "round|to and fro", "round", "from the last point to the first, or back"),
    other("script", Sort::script, "none", "steps that it takes, one after the other"),
    other("track", Sort::track, "none", "a file of poses that it follows, as it was played once")
        .with("A name beside the level's, or a table of `file` and `agent` for a file of several. "
              "It begins where the track begins; [trying.md](trying.md) tells what stands in it."),
    word("driver", "mind|script|host|track", "as it has one",
         "who decides for it: its track, its script, else its `mind`"),
    truth("asleep", "whether it perceives and does nothing until it is woken")
        .with("What something `wakes` begins asleep, whatever this says."),
    whole("copies", {1.0, 10'000.0, ""}, "itself alone", "so many, called `ID-1`, `ID-2`, ...")
        .with("`copies` and `apart` are given together. Patrols and scripts move along."),
    other("apart", Sort::point, "itself alone", "how far each copy is from the one before"),
};

constexpr Key kStopRows[] = {
    other("at", Sort::point, kMustBeGiven, "where it goes"),
    number("wait", kSeconds, 0.0, "how long it stays there"),
    number("look", {-36'000.0, 36'000.0, "degrees"}, "as it came", "where it looks meanwhile"),
};

constexpr Key kStepRows[] = {
    other("go", Sort::point, "", "goes there"),
    number("speed", {0.0, 1000.0, "m/s", true}, "its own", "with `go`: at that speed"),
    number("wait", kSeconds, "", "waits"),
    number("face", kTurn, "", "turns there"),
    other("noise", Sort::name, "", "makes a noise of that name"),
    number("reach", kRange, "`noise`: must be given", "how far that noise is heard"),
    other("quiet", Sort::truth, "", "from now on it walks quietly, or no longer so"),
    other("hop", Sort::truth, "", "hops towards the next `go` if that follows, else on the spot"),
    other("take", Sort::name, "", "takes the thing of that id"),
    other("throw", Sort::name, "", "throws a thing of that kind"),
    other("to", Sort::point, "`throw`: must be given", "where to"),
    other("drop", Sort::truth, "", "puts down all that it carries"),
    other("aim", Sort::point, "", "turns there, then makes its attacks"),
    number("fire", kSeconds, 0.0, "with `aim`: for so long"),
    other("attack", Sort::name, "all", "with `aim`: that attack alone"),
    other("repeat", Sort::truth, "", "begins again; the last step"),
};

constexpr Key kTrackRows[] = {
    other("file", Sort::text, kMustBeGiven, "its name, beside the level's"),
    other("agent", Sort::text, "the only one", "whose lines count, of a file of several"),
};

}  // namespace

constinit const KeyTable kTrackKeys{"track", "A track", "", "", kTrackRows};

constinit const KeyTable kAgentKeys{
    "agent", "[[agent]]",
    "One placed agent. It may have any value of its kind for itself alone "
    "(`sight.range = 7.5`), and these. A player "
    "is an agent that a script or the program drives.",
    R"([[agent]]
id = "pruner-1"
kind = "pruner"
at = [2.0, 2.0]
facing = 90.0
patrol = [[2.0, 2.0], { at = [5.0, 6.0], wait = 1.0 }]
sight.range = 9.0
)",
    kAgentRows};

constinit const KeyTable kStopKeys{"patrol point", "A point of a patrol",
                                   "A point alone, or a table of these keys.",
                                   R"([[agent]]
id = "pruner-2"
kind = "quick-pruner"
at = [8.0, 10.0]
patrol = [{ at = [8.0, 10.0], wait = 2.0, look = 180.0 }, [12.0, 10.0]]
patrol_style = "to and fro"
)",
                                   kStopRows};

constinit const KeyTable kStepKeys{
    "script step", "A step of a script",
    "A table with exactly one of the keys that are given no default here, and what belongs to it.",
    R"([[agent]]
id = "collector"
kind = "collector"
at = [1.0, 10.0]
script = [{ wait = 1.0 }, { go = [4.0, 4.0], speed = 1.5 }, { throw = "jar", to = [9.0, 8.0] }]
)",
    kStepRows};

}  // namespace gaze
