#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of reactions.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Key reaction(std::string_view name, std::string_view meaning, LeftOut left_out = "none") {
  return other(name, Sort::reaction, left_out, meaning);
}

// `by` is what the names in its table are.
constexpr Key reactions(std::string_view name, std::string_view by, std::string_view meaning) {
  Key key = other(name, Sort::reactions, "none", meaning);
  key.words = by;
  return key;
}

constexpr Key kWhenRows[] = {
    reaction("sees", "it has noticed somebody by sight", "keeps the mode")
        .with("Left out, it keeps its mode, and at `post` turns to its target."),
    reaction("hurt", "somebody has hurt it"),
    reaction("triggered", "it has set off a zone"),
    reaction("loses", "its evidence of somebody has ended", "keeps the mode"),
    reaction("arrives", "it has come to where it was going"),
    reaction("forgets", "it remembers nobody any more", "return"),
    reactions("touches", "side", "somebody touches it, by side"),
    reactions("feels", "feeler", "a feeler has met something, by feeler"),
    reactions("misses", "feeler", "a feeler meets nothing any more, by feeler"),
    reactions("near", "kind", "somebody has come near, by the kind of whom"),
    reactions("told", "kind", "a friend has told it of somebody, by the kind of the teller"),
    reactions("hears", "noise", "it has heard a noise, by its name"),
    reactions("lasts", "mode", "a mode has lasted for the reaction's `after`, by mode"),
    word("idle", "post|patrol|wander|follow|mirror", "by what it has", "what it does unprovoked")
        .with("Left out: `mirror` with an attack that mirrors; else `patrol` with two points or "
              "more; else "
              "`wander` or `follow` if its kind has `[wander]` or `follows`; else `post`. What is "
              "in its "
              "idle mode has nowhere to return to, and stays in it."),
};

constexpr Key kReactionRows[] = {
    word("mode", kModes, "as it is", "the mode that it changes to"),
    other("attack", Sort::name, "none", "an attack of its own, made for this alone"),
    other("noise", Sort::name, "none", "a noise that it makes"),
    number("reach", kRange, 10.0, "how far that noise is heard"),
    other("wakes", Sort::names, "none", "agents that wake"),
    number("turn", kTurn, "none", "its body turns so far round, anticlockwise")
        .with("Seen from the side who faces left turns clockwise. It faces there while it has "
              "nothing to look at. "
              "On a patrol more than 90 send it back to the point before; what wanders to and fro "
              "goes on "
              "that way."),
    number("after", kSeconds, 0.0, "how long it takes to react; with `lasts` it must be given"),
};

}  // namespace

constinit const KeyTable kWhenKeys{
    "kind.NAME.when", "[kind.NAME.when]",
    "What it does about what it perceives: each key names a cause and holds a "
    "reaction, or a table of names and "
    "reactions. In such a table `any` stands for all others, and a reaction "
    "instead of a table is short for "
    "`{ any = ... }`. A kind has at most 64 rules.",
    R"([kind.pruner.when]
sees = "chase"
loses = "search"
hears = { jar = "investigate", any = { mode = "investigate", after = 0.5 } }
lasts = { search = { mode = "return", after = 6.0 } }
)",
    kWhenRows};

constinit const KeyTable kReactionKeys{
    "reaction", "A reaction",
    "A mode (`\"post\"`, `\"patrol\"`, `\"chase\"`, `\"investigate\"`, "
    "`\"search\"`, `\"return\"`, `\"wander\"`, `\"follow\"`, "
    "`\"flee\"`), or a table of these keys.",
    R"([kind.quick-pruner.when]
hurt = { mode = "flee", noise = "cry", reach = 12.0 }
)",
    kReactionRows};

}  // namespace gaze
