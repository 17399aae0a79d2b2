#include "gaze/attack.hpp"
#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of attacks, of things and of what a defeat brings.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr std::string_view kShotOrBeam = "shot, beam";

constexpr Key kDamageKind = other("damage_kind", Sort::text, "none", "that kinds may `resist`");
constexpr Key kPush = number("push", kSpeed, 0.0, "away from the hit, for a body of `mass` 1");
constexpr Key kFriends = word("friends", "pass|stop|hurt", "pass", "what its own side does to it");
constexpr Key kLifetime = number("lifetime", {0.0, 86'400.0, "s", true}, "range / speed",
                                 "how long it flies; lobs and things: 30 s");
constexpr Key kNoise = number("noise_reach", kReach, 0.0, "how far its landing is heard");
constexpr Key kBounces = whole("bounces", {0.0, 1000.0, ""}, 0.0, "off solids and the ground");
constexpr Key kBounceLoss = number("bounce_loss", kShare, 0.0, "share of the speed lost each time");
constexpr Key kPierce =
    whole("pierce", {0.0, double(kMostPierced), ""}, 0.0, "bodies it passes through");
constexpr Key kDrag =
    number("drag", {0.0, 100.0, "a second"}, 0.0, "share of the speed lost a second");
constexpr Key kBlast = number("blast_radius", kReach, "none", "of a blast where it ends")
                           .with("A shot that bursts does its damage by the blast alone.");
constexpr Key kFallOff = number("blast_fall_off", kShare, 1.0, "how much weaker it is at the rim")
                             .with("0: the same all over. 1: linear, down to nothing at the rim.");
constexpr Key kLeaves = other("leaves", Sort::name, "none", "a kind that appears where it ends");
constexpr Key kKeeps =
    whole("keeps", {1.0, 64.0, ""}, 4.0, "of those at once; then the oldest moves");
constexpr Key kGravity = number("gravity_share", {-10.0, 10.0, ""}, "0; lobs, things: 1",
                                "of the level's gravity; of lobs above 0");

constexpr Key kAttackRows[] = {
    word("how", "strike|shot|beam|touch|burst|catch", kMustBeGiven, "the way in which it harms")
        .with("`\"strike\"`: it hits its target itself, near by. `\"shot\"`: it fires projectiles. "
              "`\"beam\"`: a ray "
              "that is there at once. `\"touch\"`: who touches it is hurt. `\"burst\"`: a blast "
              "around itself. "
              "`\"catch\"`: who is near enough is taken out of the round."),
    number("range", kRange, kMustBeGiven, "centre to centre; of a burst its blast's radius")
        .with("A catch may leave it out, and then needs to touch.")
        .of("all but touch"),
    number("damage", kPoints, kMustBeGiven, "of a blow, a projectile or a whole beam")
        .of("all but catch"),
    number("cooldown", {0.001, 86'400.0, "s"}, kMustBeGiven, "from pull to pull")
        .with("It is exact at any rate of steps. A catch may leave it out: 1 s."),
    number("wind_up", kSeconds, 0.0, "from the pull to the first blow or shot"),
    whole("ammunition", {0.0, 1e6, ""}, 0.0, "blows or shots until it is empty; 0: endless"),
    number("reload", kSeconds, "never", "from empty to full"),
    number("min_range", kReach, 0.0, "nearer than that it is not made").of("all but touch"),
    numbers("at_health", 2, kShare, "[0, 1]",
            "made while its health, as a share, is between these"),
    number("far_damage", kShare, 1.0, "share of the damage left at the range")
        .of("strike, shot, beam"),
    number("fade_from", kShare, 0.0, "share of the range from which it fades")
        .of("strike, shot, beam"),
    Key(kFriends)
        .of("shot, beam, burst")
        .with("`\"pass\"`: nothing. `\"stop\"`: they stop it unhurt, and it is not fired while "
              "they are in the way. "
              "`\"hurt\"`: the same, and they are hurt."),
    Key(kPush).of("all but catch"),
    Key(kDamageKind).of("all but catch"),
    number("arc", kFullAngle, 360.0, "full opening, about the facing").of("strike"),
    words("sides", kSides, "all", "of its own body, on which it hurts").of("touch"),
    numbers("muzzle", 3, kOffset, "half the height", "forward, left, up from the feet")
        .of(kShotOrBeam),
    other("along", Sort::name, "the facing", "a feeler of its kind, for straight ahead")
        .of(kShotOrBeam),
    number("aim_tolerance", {0.0, 180.0, "degrees"}, 3.0, "between facing and target")
        .of(kShotOrBeam)
        .with("In the plan, from middle to middle. Who walks seen from the side faces left or "
              "right alone, and aims "
              "anywhere to that side."),
    number("fire_reach", kReach, 0.0, "how far the noise \"shot\" is heard").of(kShotOrBeam),
    number("thickness", {0.0, 100.0, "m"}, 0.0, "of the ray").of("beam"),
    number("hold", kSeconds, 0.0, "how long it stays on").of("beam"),
    truth("locks_on", "whether it fires when the ray ahead meets an enemy")
        .of("beam")
        .with(
            "The enemy need not be noticed. The agent turns to that enemy, at its `turn_rate`. The "
            "beam ends after `hold`, or when it meets anything else."),
    number("speed", kShotSpeed, kMustBeGiven, "of the projectile").of("shot"),
    number("radius", {0.0, 100.0, "m"}, 0.05, "of the projectile").of("shot"),
    word("aim", "direct|lead|lob|high lob|ahead|mirror", "direct", "where it is fired")
        .of(kShotOrBeam)
        .with("Beams have `\"direct\"`, `\"ahead\"` and `\"mirror\"`. `\"direct\"`: at the target. "
              "`\"lead\"`: to where they meet. `\"lob\"` and `\"high "
              "lob\"`: in the low or the high "
              "arc to where they meet. `\"ahead\"`: along the facing. `\"mirror\"`: where a friend "
              "aims who is driven, while "
              "that fires."),
    number("mirror_radius", kReach, "range", "how near that friend has to be").of(kShotOrBeam),
    Key(kLeaves).of("shot"),
    Key(kKeeps).of("shot"),
    Key(kGravity).of("shot"),
    Key(kLifetime).of("shot"),
    whole("burst", {1.0, 1000.0, ""}, 1.0, "shots a pull").of("shot"),
    number("burst_interval", kSeconds, 0.1, "between two of these").of("shot"),
    number("spread", {0.0, 360.0, "degrees"}, 0.0, "full opening of the cone they fill").of("shot"),
    truth("spread_rises", "in `ground` levels: it also spreads up and down").of("shot"),
    Key(kBounces).of("shot").with("It needs a `radius` above 0."),
    Key(kBounceLoss).of("shot"),
    Key(kPierce).of("shot"),
    Key(kDrag).of("shot"),
    number("homing_rate", kRate, 0.0, "how fast it turns to its target").of("shot"),
    Key(kBlast).of("shot"),
    Key(kFallOff).of("shot, burst"),
    Key(kNoise).of("shot"),
};

constexpr Key kThingRows[] = {
    number("speed", kShotSpeed, 9.0, "at which it is thrown"),
    word("aim", "lob|high lob", "lob", "in which arc"),
    number("take_reach", kMetres, 0.5, "from body to body, to take it"),
    other("picked_up_by", Sort::names, "none", "agents that pick it up within `take_reach`")
        .with("Agents, kinds, teams or tags. No other agent can take it. A thing that `heals` or "
              "`refills` is picked up only by an agent that needs it, and is then removed. It "
              "returns after `respawn` ([`defeat`](#kindnamedefeat)). Any other thing is carried."),
    number("heals", kPoints, 0.0, "health for the agent that picks it up"),
    other("refills", Sort::names, "none", "names of attacks whose ammunition it refills"),
    truth("breaks", "whether it is gone where it lands"),
    number("damage", kPoints, 0.0, "of what it hits"),
    kPush,
    kDamageKind,
    kFriends,
    kGravity,
    kLifetime,
    kNoise,
    kBounces,
    kBounceLoss,
    kPierce,
    kDrag,
    kBlast,
    kFallOff,
    kLeaves,
    kKeeps,
};

constexpr Key kDefeatRows[] = {
    other("leaves", Sort::name, "none", "a kind that appears where it stood").or_false(),
    other("attack", Sort::name, "none", "a burst of its own that it makes, or a shot")
        .with("A shot must have `aim = \"ahead\"`. It fires all its projectiles at the same time, "
              "each "
              "in a random direction within `spread`. With `leaves` they become debris."),
    number("score", {-1e9, 1e9, "points"}, 0.0, "for who defeated it"),
    number("respawn", {0.001, 86'400.0, "s"}, "never", "after which it comes back"),
    other("tells", Sort::names, "none", "agents that learn who did it"),
    other("wakes", Sort::names, "none", "agents that wake"),
};

}  // namespace

constinit const KeyTable kAttackKeys{
    "kind.NAME.attack.ANY", "[kind.NAME.attack.ANY]",
    "A way to harm; a kind has as many as it likes. The second column says which ways have a key. "
    "Formulas and their sources are in [harm.md](harm.md). `attack.ANY = false` takes one away.",
    R"([kind.pruner.attack.shears]
how = "strike"
range = 1.2
damage = 15.0
cooldown = 0.8
wind_up = 0.2

[kind.pruner.attack.pod]
how = "shot"
range = 6.0
damage = 5.0
cooldown = 2.0
speed = 8.0
aim = "lob"
)",
    kAttackRows};

constinit const KeyTable kThingKeys{
    "kind.NAME.thing", "[kind.NAME.thing]",
    "It can be carried and thrown, and flies like a shot ([harm.md](harm.md)).",
    R"([kind.jar]
radius = 0.15
height = 0.3
[kind.jar.thing]
breaks = true
noise_reach = 12.0
)",
    kThingRows};

constinit const KeyTable kDefeatKeys{"kind.NAME.defeat", "[kind.NAME.defeat]",
                                     "What comes of its defeat, all in the same step.",
                                     R"([kind.pruner.defeat]
score = 10.0
respawn = 20.0
)",
                                     kDefeatRows};

}  // namespace gaze
