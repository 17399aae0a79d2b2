#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of the senses of a kind, and of what belongs to them.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Allowed kTurnRate{0.0, 36'000.0, "degrees/s", true};

constexpr Key remember(LeftOut left_out) {
  return number("remember", kSeconds, left_out, "after its evidence has ended");
}
constexpr Key kSenseRange = number("range", kRange, kMustBeGiven, "as far as it goes");
constexpr Key kOnSides = words("sides", kSides, "all", "of its own body");

constexpr Key kSightRows[] = {
    number("range", kRange, kMustBeGiven, "between the feet; on the limit is inside"),
    number("field_of_view", kFullAngle, kMustBeGiven, "the full opening angle"),
    number("keep_range", kRange, "range", "what it has noticed it keeps up to here"),
    number("eye_height", kMetres, "0.9 height", "above the feet"),
    numbers("eye", 3, kOffset, "eye_height", "forward, left and up from the feet")
        .with("It turns with the head. Give it or `eye_height`, not both."),
    number("vertical_field_of_view", {0.0, 180.0, "degrees", true}, "none",
           "the full angle upwards")
        .with(
            "With it `field_of_view` counts across alone. It has no meaning in `upright` levels."),
    number("tilt", kTilt, 0.0, "of the view's middle, upwards")
        .with(
            "From level; in `upright` levels from the facing, and mirrored for who faces left. In "
            "`ground` levels it counts only with `vertical_field_of_view`."),
    number("near_ring", kReach, 0.0, "nearer than this the facing does not matter"),
    number("visible_at_least", kShare, 0.0, "share of the body points that it needs"),
    word("measure", "centre|surface", "centre", "what distances are measured to"),
    number("fade_from", kShare, 1.0, "share of the range from which evidence thins"),
    number("ebb_time", kSeconds, 0.0, "in which full evidence ebbs away; 0: at once"),
    number("notice_time", kSeconds, 0.0, "of full evidence before it counts"),
    remember(0.0),
};

constexpr Key kScanRows[] = {
    word("style", "sweep|round|list", kMustBeGiven, "to and fro, round and round, or by a list"),
    number("rate", kTurnRate, kMustBeGiven, "how fast the head turns"),
    number("arc", kFullAngle, "`sweep`: must be given", "the full angle of a sweep"),
    numbers("headings", 1000, kTurn, "`list`: must be given",
            "where it stops, from the body's facing", Sort::list),
    number("pause", kSeconds, 0.0, "at each end, after each round, at each heading"),
    truth("goes_on",
          "true: the head scans on while the agent has a target; else it turns to the target"),
};

constexpr Key kHeadRows[] = {
    number("turn_rate", kTurnRate, 180.0, "how fast it turns"),
    numbers("limits", 2, {-180.0, 180.0, "degrees"}, "[-180, 180]", "about the body's facing")
        .with("The first is 0 or less, the second 0 or more: straight ahead lies between them."),
};

constexpr Key kHearingRows[] = {
    kSenseRange,
    number("acuity", kFactor, 1.0, "times the reach of each noise"),
    truth("around_corners", "whether noises come round corners by the shortest way"),
    truth("own", "whether it hears its own noises"),
    truth("friends", "whether it hears those of its friends"),
    truth("forgets_on_way", "whether it forgets a noise before it arrives there")
        .with("If false, `remember` counts from its arrival. If true, it counts from the noise."),
    remember(5.0),
};

constexpr Key kFeelerRows[] = {
    number("length", kRange, kMustBeGiven, "how far it feels"),
    numbers("from", 3, kOffset, "half the height", "where it begins: forward, left, up"),
    number("toward", kTurn, 0.0, "from the facing"),
    number("tilt", kTilt, 0.0, "upwards"),
    number("thickness", kMetres, 0.0, "of the ray"),
    word("finds", "hostile|anything|nothing", "hostile", "whom it tells of"),
    word("stopped_by", kThings, "bodies", "solids that stop this stop it"),
    word("turns", "body|head", "body", "whose facing it is fixed to"),
    remember(0.0),
};

constexpr Key kNearnessRows[] = {
    kSenseRange,
    other("axes", Sort::text, "those of the plane", "which of the letters x, y and z count"),
    truth("once", "whether it perceives each of them only once"),
    remember(0.0),
};

constexpr Key kTouchRows[] = {kOnSides, remember(0.0)};

constexpr Key kHurtRows[] = {remember(5.0)};

constexpr Key kTellRows[] = {
    kSenseRange,
    number("delay", kSeconds, 0.0, "before they know"),
    number("remember", kSeconds, 5.0, "how long those who were told remember it"),
};

constexpr Key kChooseRows[] = {
    word("by", "nearest|first|weakest|clearest|hurt me last", "nearest",
         "whom of several it takes"),
    number("stick", kReach, 0.0, "so much nearer another has to be")
        .with("`stick` counts with `by = \"nearest\"` alone."),
    other("tags", Sort::names, "any", "only those who hold one of these"),
    other("kinds", Sort::names, "any", "only those of these kinds"),
    other("teams", Sort::names, "any", "only those of these teams"),
};

}  // namespace

constinit const KeyTable kSightKeys{
    "kind.NAME.sight", "[kind.NAME.sight]",
    "Left out, it never sees. The formulas with numbers are in [perception.md](perception.md).",
    R"([kind.pruner.sight]
range = 8.0
field_of_view = 110.0
notice_time = 0.4
remember = 3.0
)",
    kSightRows};

constinit const KeyTable kScanKeys{"kind.NAME.scan", "[kind.NAME.scan]",
                                   "A head that looks about by itself.",
                                   R"([kind.pruner.scan]
style = "sweep"
rate = 60.0
arc = 90.0
)",
                                   kScanRows};

constinit const KeyTable kHeadKeys{"kind.NAME.head", "[kind.NAME.head]",
                                   "A head that turns to what it looks at before the body does.",
                                   R"([kind.pruner.head]
turn_rate = 240.0
limits = [-70.0, 70.0]
)",
                                   kHeadRows};

constinit const KeyTable kHearingKeys{"kind.NAME.hearing", "[kind.NAME.hearing]",
                                      "It hears noises; what it hears is a place.",
                                      R"([kind.pruner.hearing]
range = 15.0
around_corners = true
)",
                                      kHearingRows};

constinit const KeyTable kFeelerKeys{
    "kind.NAME.feeler.ANY", "[kind.NAME.feeler.ANY]",
    "A ray in a fixed direction; a kind has up to 32. `feeler.ANY = false` takes one away.",
    R"([kind.pruner.feeler.ahead]
length = 2.0
finds = "anything"
)",
    kFeelerRows};

constinit const KeyTable kNearnessKeys{"kind.NAME.nearness", "[kind.NAME.nearness]",
                                       "It knows who is near, whatever is between.",
                                       R"([kind.pruner.nearness]
range = 1.0
)",
                                       kNearnessRows};

constinit const KeyTable kTouchKeys{"kind.NAME.touch", "[kind.NAME.touch]",
                                    "It knows who touches it.",
                                    R"([kind.pruner.touch]
sides = ["front", "left", "right"]
)",
                                    kTouchRows};

constinit const KeyTable kHurtKeys{
    "kind.NAME.hurt", "[kind.NAME.hurt]",
    "It knows who hurt it. A kind with a reaction to `hurt` has this as well.",
    R"([kind.pruner.hurt]
remember = 8.0
)",
    kHurtRows};

constinit const KeyTable kTellKeys{"kind.NAME.tell", "[kind.NAME.tell]",
                                   "It tells friends of whom it notices.",
                                   R"([kind.pruner.tell]
range = 10.0
delay = 0.5
)",
                                   kTellRows};

constinit const KeyTable kChooseKeys{"kind.NAME.choose", "[kind.NAME.choose]",
                                     "On whom it acts if it has noticed several.",
                                     R"([kind.pruner.choose]
by = "weakest"
)",
                                     kChooseRows};

}  // namespace gaze
