#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of the level itself, of teams and materials, and of places.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Key kLevelRows[] = {
    whole("format", {1.0, 1.0, ""}, 1.0, "of this file"),
    other("name", Sort::text, "the file's name", "what the level is called in reports"),
    word("plane", "ground|upright|space", "ground", "seen from above, from the side, or in full"),
    whole("ticks_per_second", {1.0, 1000.0, ""}, 60.0, "how many steps a second is played in"),
    number("seconds", {0.0, 86'400.0, "s", true}, 30.0, "how long a run lasts"),
    whole("seed", {0.0, kWithoutEnd, ""}, 1.0, "from which all that is random is drawn"),
    number("gravity", {0.0, 1000.0, "m/s2"}, 9.81,
           "pulls down who walks, and shots by their share"),
    number("ground_height", kCoordinate, 0.0, "of an endless floor; false: there is none")
        .or_false()
        .with("Shots that come down to the ground end there."),
    other("include", Sort::names, "none", "files whose teams, materials and kinds are added")
        .with("Their names are relative to this file's folder."),
};

constexpr Key kTeamRows[] = {
    other("hostile", Sort::names, "none", "teams that its agents look for and may harm"),
};

constexpr Key kMaterialRows[] = {
    words("stops", kThings, kMustBeGiven, "what does not get through"),
    number("muffles", kShare, 1.0, "share of a noise's reach that is lost in passing")
        .with("This counts only if the material stops sound."),
};

constexpr Key kZoneRows[] = {
    other("id", Sort::name, kMustBeGiven, "unlike all other ids"),
    other("outline", Sort::outline, kMustBeGiven, "3 to 500 points"),
    number("base", kCoordinate, "the ground", "its lowest height; not in `upright` levels"),
    number("height", {0.0, LevelLimits::coordinate, "m", true}, 2.5, "not in `upright` levels"),
    other("tags", Sort::names, "none", "that reactions and other zones may ask for"),
    number("dimness", kShare, 0.0, "how much slower who stands in it is noticed")
        .with("Where several zones overlap, the darkest of them counts."),
    other("triggered_by", Sort::names, "anybody", "whose steps into it set it off")
        .with("Who is placed in it at the start, or comes back into it, sets it off as well."),
    other("grants", Sort::names, "none", "tags that it gives to who sets it off"),
    other("takes", Sort::names, "none", "tags that it takes from who sets it off"),
    other("tells", Sort::names, "none", "agents that hear of who sets it off"),
    other("wakes", Sort::names, "none", "agents that it wakes when it is set off"),
    truth("once", "whether it is set off only the first time"),
    number("cost", {0.1, 100.0, ""}, 1.0, "of each metre in it, for the choice of ways"),
    other("closed_to", Sort::names, "nobody", "whom no way leads through it"),
};

constexpr Key kStartRows[] = {
    other("id", Sort::name, kMustBeGiven, "unlike all other ids"),
    other("kind", Sort::name, kMustBeGiven, "a kind, or the id of one agent"),
    other("outline", Sort::outline, kMustBeGiven, "3 to 500 points, in which they begin"),
    other("apart_from", Sort::name, "nobody", "whom they begin away from"),
    number("distance", kReach, 0.0, "how far away from all of these, at least"),
    truth("out_of_sight", "whether none of these may see the place, wherever they look"),
};

constexpr Key kRoundRows[] = {
    other("ends", Sort::names, kMustBeGiven, "any of `\"caught\"` and `\"TEAM out\"`"),
    truth("resets", "whether all begin again; else nothing moves any more"),
};

constexpr Key kBoundsRows[] = {
    other("outline", Sort::outline, "no edge", "3 to 500 points; the edge is inside"),
    number("low", kCoordinate, "no edge", "the lowest height that is inside"),
    number("high", kCoordinate, "no edge", "the greatest height that is inside"),
    word("leaving", "defeated|back", "defeated", "what comes of bodies that leave")
        .with(
            "`\"back\"` puts them where they began, with the health and the things that they had. "
            "Either way there is an event `left`. Things that leave are gone for good."),
};

}  // namespace

constinit const KeyTable kLevelKeys{
    "",
    "The level",
    "At the top of the file, before all tables.",
    R"(name = "A corner of the garden"
plane = "ground"
seconds = 20.0
)",
    kLevelRows,
    "team|material|wall|block|door|floor|ramp|stairs|mesh|link|kind|agent|zone|start|round|bounds|"
    "figure|expect"};

constinit const KeyTable kTeamKeys{
    "team.NAME", "[team.NAME]",
    "Kinds belong to teams. Who belongs to none is nobody's friend and nobody's foe.",
    R"([team.caretakers]
hostile = ["visitors"]

[team.visitors]
hostile = ["caretakers"]
)",
    kTeamRows};

constinit const KeyTable kMaterialKeys{
    "material.NAME", "[material.NAME]",
    "What solids are made of. `brick` is built in, and stops all four things.",
    R"([material.glass]
stops = ["bodies", "shots", "sound"]
muffles = 0.5
)",
    kMaterialRows};

constinit const KeyTable kZoneKeys{
    "zone", "[[zone]]",
    "A part of the level that does something to who is in it. An agent is in "
    "a zone if its feet are, "
    "borders included.",
    R"([[zone]]
id = "shade"
outline = [[8.0, 0.0], [12.0, 0.0], [12.0, 4.0], [8.0, 4.0]]
dimness = 0.6
grants = ["dusty"]
)",
    kZoneRows};

constinit const KeyTable kStartKeys{
    "start", "[[start]]",
    "Agents of that kind are put somewhere in the outline instead of `at`: "
    "at the beginning, when they "
    "come back, and when a round begins. The places are drawn by the level's "
    "seed. Of 256 tries the first "
    "that serves in full is taken, or else the best, never in each other; "
    "`at` still says at which height.",
    R"([[start]]
id = "gate"
kind = "collector"
outline = [[0.0, 8.0], [4.0, 8.0], [4.0, 11.0], [0.0, 11.0]]
apart_from = "pruner"
distance = 4.0
)",
    kStartRows};

constinit const KeyTable kRoundKeys{
    "round", "[round]", "When a round is over; [harm.md](harm.md) says what that brings.",
    R"([round]
ends = ["visitors out"]
resets = true
)",
    kRoundRows};

constinit const KeyTable kBoundsKeys{
    "bounds", "[bounds]",
    "Where the level ends; at least one of `outline`, `low` and `high`. "
    "Shots that get out are gone "
    "quietly (`spent`): they hit nothing and burst nowhere. Bodies whose "
    "feet are outside after a step leave. No path leads out.",
    R"([bounds]
outline = [[-2.0, -2.0], [22.0, -2.0], [22.0, 14.0], [-2.0, 14.0]]
leaving = "back"
)",
    kBoundsRows};

}  // namespace gaze
