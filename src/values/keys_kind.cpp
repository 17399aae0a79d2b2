#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of a kind itself, and of how it gets about.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Key amounts(std::string_view name, const Allowed& allowed, std::string_view meaning) {
  return numbers(name, 0, allowed, "none", meaning, Sort::amounts);
}

constexpr Key kKindRows[] = {
    other("like", Sort::name, "none", "a kind whose values it has, but for those given here")
        .with("Tables are merged key by key, and lists are replaced whole."),
    other("team", Sort::name, "none", "whose friend and foe it is"),
    number("radius", kSize, 0.3, "of the body, an upright cylinder"),
    number("height", kSize, 1.7, "of the body"),
    number("health", {0.0, 1e9, "points", true}, 100.0, "which blows take away"),
    words("solid_to", "friends|foes", "both", "whom its body stops, if they are solid to it too")
        .with("`[]` is nobody. Things and the defeated stop nobody."),
    number("mass", {0.0, 1e6, "", true}, 1.0, "by which pushes are divided"),
    number("grace", kSeconds, 0.0, "after a hurt, in which nothing hurts it again")
        .with("What falls at the very same moment still hurts."),
    amounts("resist", {-100.0, 1.0, ""}, "by kind of damage: the share taken off")
        .with("Below 0 it takes more than is dealt: `resist = { fire = -1.0 }` doubles it."),
    amounts("side_factors", kFactor, "by side: damage from there times this")
        .with("The sides are `front`, `back`, `left`, `right`, `top` and `bottom`; 1 if they are "
              "left out."),
    number("heals", kPoints, 0.0, "points a second that it gets back"),
    number("heals_after", kSeconds, 0.0, "once it has not been hurt for so long"),
    amounts("carries", {0.0, 1e6, ""}, "by kind of thing: how many are in its pocket"),
    numbers("body_points", 32, kShare, "[0, 0.5, 1]", "heights that others look at, as shares",
            Sort::list),
    number("visibility", {0.0, 100.0, ""}, 1.0, "how fast evidence of it grows"),
    number("still_visibility", {0.0, 100.0, ""}, "visibility", "the same while it does not move"),
    other("tags", Sort::names, "none", "that doors, zones and reactions may ask for")
        .with("A level has at most 64 different tags."),
};

constexpr Key factor(std::string_view side) {
  return number(side, kFactor, 1.0, "of damage from there");
}

constexpr Key kSideFactorsRows[] = {factor("front"), factor("back"), factor("left"),
                                    factor("right"), factor("top"),  factor("bottom")};

constexpr Key kMoveRows[] = {
    word("gait", "fixed|walk|hop|hover|drop", "walk", "how it moves, see [travel.md](travel.md)"),
    number("speed", kSpeed, 2.0, "at full speed; that of hoppers follows from their hops"),
    number("idle_speed", kSpeed, "speed", "in its idle mode, and on the way back to it"),
    number("turn_rate", kRate, 360.0, "of its facing; walkers in `upright` levels turn at once"),
    number("stop_distance", kMetres, "both radii", "at which it stops before its target")
        .with("From centre to centre."),
    number("step_height", kMetres, "0.3 m, half the height", "lower solids do not stop it")
        .with("Left out, it is 0.3 m, or half the height of the body if that is less. It has to be "
              "below the height."),
    number("step_reach", kReach, 0.0, "how far the noise \"step\" of its walking is heard"),
    number("quiet_reach", kReach, 0.0, "the same while it walks quietly"),
    number("stride", {0.01, 1000.0, "m"}, 0.75, "from one such noise to the next"),
    number("search_radius", kMetres, 3.0, "how far round a place it searches"),
    word("route", "path|straight", "path", "how it goes to its goals"),
    number("slope", {0.0, 89.0, "degrees"}, 40.0, "the steepest that it walks on"),
    number("repath_distance", kMetres, 1.0, "a target that has moved so far is searched for anew"),
    number("stuck_time", {0.0, 3600.0, "s", true}, 1.5, "without progress, then it searches anew"),
    number("acceleration", {0.0, 10'000.0, "m/s2", true}, "at once", "by which it gathers speed")
        .with("It stops at once."),
    word("face", "target|travel|always target|keep", "target", "where it looks")
        .with("`\"target\"`: at its target while it acts on one. `\"travel\"`: where it goes. "
              "`\"always target\"`: at its target in every mode. `\"keep\"`: as it was placed."),
    word("chase", "at|ahead", "at", "to where the target is, or to where they meet")
        .with("They meet if the target keeps its course."),
    number("keep_away", kMetres, 0.0, "a distance that it holds as it chases")
        .with("It comes up to that distance, and backs off when it is a tenth nearer."),
    number("pace", {0.0, 100.0, "", true}, "none", "its speed as a share of that of `pace_of`")
        .with("`pace` and `pace_of` are given together, and win over `speed`."),
    other("pace_of", Sort::name, "none", "a kind, whose speed `pace` is a share of"),
    other("follows", Sort::names, "nobody", "whom it stays by in the mode `follow`"),
    number("follow_distance", kMetres, 2.0, "how near it comes to whom it follows"),
    number("follow_start", kMetres, "1.25 follow_distance", "farther off than that it sets out"),
    number("flee_distance", kSize, 8.0, "radius of the circle that it flees in"),
    word("flee_to", "far side|out of sight", "far side", "where in that circle"),
    word("flee_from", "post|here", "post", "centre of that circle: its post, or its position"),
    number("hop_height", kMetres, "0; `hop`: 0.5 m", "how far up it hops"),
    number("hop_length", kMetres, "2 hop_height", "how far it hops at most, in the plan"),
    number("hop_rest", kPause, "0; `hop`: 0.5 s", "between two hops"),
    truth("hops_in_place", "whether it hops on the spot below a target")
        .with(
            "For the gait `hop`. It does so while it chases, gets no nearer, and the target stands "
            "higher than `step_height` above it."),
    number("drop_height", kMetres, "hop_height", "how far down it drops from a ledge")
        .with("For the gait `drop` it is how far above `at` it hangs: 2 m in `ground` levels, else "
              "0."),
    number("hover_height", kMetres, "0; `hover`: 1.5 m", "above `at`")
        .with("1.5 m are taken in `ground` levels alone; elsewhere `at` says the height."),
    number("climb_speed", kSpeed, 0.0, "vertical speed towards a chased target")
        .with(
            "For the gait `hover` in `ground` and `space` levels. It moves to `hover_height` above "
            "the feet of the target while the straight path there is free, else back to its own "
            "height."),
    numbers("turn_limits", 2, {-180.0, 180.0, "degrees"}, "all round",
            "how far what is `fixed` turns")
        .with("From its placed facing, the lesser angle first."),
    numbers("tilt_limits", 2, kTilt, "all", "how far shots and beams of what is `fixed` rise"),
    word("no_path", "nearest|wait|give up", "nearest", "what it does where no way leads there"),
};

constexpr Key kWanderRows[] = {
    word("style", "to and fro|free", "to and fro", "along a line, or anywhere"),
    other("area", Sort::name, "5 m round its place", "a zone that it stays in"),
    number("pause", kPause, 0.3, "at each end"),
};

}  // namespace

constinit const KeyTable kKindKeys{
    "kind.NAME",
    "[kind.NAME]",
    "The values that agents of one sort share.",
    R"([kind.pruner]
team = "caretakers"
health = 60.0

[kind.collector]
team = "visitors"
height = 1.5
carries = { jar = 2 }
move.speed = 3.0

[kind.quick-pruner]
like = "pruner"
move.speed = 3.5
)",
    kKindRows,
    "sight|scan|head|hearing|feeler|nearness|touch|hurt|tell|choose|move|"
    "wander|attack|thing|defeat|when"};

constinit const KeyTable kSideFactorKeys{"side_factors", "side_factors", "", "", kSideFactorsRows};

constinit const KeyTable kMoveKeys{
    "kind.NAME.move", "[kind.NAME.move]",
    "How it gets about. Left out, it is `fixed`: it stands where it was "
    "placed, and does not turn. With the table it walks, "
    "unless `gait` says otherwise.",
    R"([kind.pruner.move]
speed = 2.5
stop_distance = 0.9
no_path = "wait"
)",
    kMoveRows};

constinit const KeyTable kWanderKeys{"kind.NAME.wander", "[kind.NAME.wander]",
                                     "How it goes about in the mode `wander`.",
                                     R"([kind.pruner.wander]
style = "free"
pause = 1.0
)",
                                     kWanderRows};

}  // namespace gaze
