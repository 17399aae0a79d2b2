// Every key of attacks and of what they meet: what it becomes, and ways to get it wrong, word for
// word.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
TEST(HarmFile, EveryKeyIsRead) {
  const Level level = testing::garden(R"(
[kind.lobber]
team = "caretakers"
height = 1.2
mass = 40.0
grace = 0.5
resist = { water = 0.5, thorns = -1.0 }
[kind.lobber.sight]
range = 20.0
field_of_view = 90.0
[kind.lobber.attack.pod]
how = "shot"
aim = "high lob"
range = 18.0
speed = 12.0
radius = 0.1
damage = 8
damage_kind = "water"
push = 4.0
cooldown = 2.0
wind_up = 0.4
burst = 3
burst_interval = 0.25
ammunition = 12
reload = 3.0
spread = 2.0
bounces = 2
bounce_loss = 0.4
pierce = 1
drag = 0.1
homing_rate = 30.0
blast_radius = 1.5
blast_fall_off = 0.5
[kind.lobber.attack.ray]
how = "beam"
range = 10.0
damage = 5
cooldown = 1.0
thickness = 0.2
hold = 0.5
muzzle = [0.1, 0.2, 0.3]
fire_reach = 6.0
[kind.lobber.attack.bump]
how = "touch"
damage = 1
cooldown = 1.0
sides = ["top", "front"]
[kind.lobber.attack.spores]
how = "burst"
range = 3.0
damage = 2
cooldown = 1.0
)");
  const Kind& kind = level.kinds[0];
  EXPECT_EQ(kind.mass, 40.0);
  EXPECT_EQ(kind.grace.seconds(), 0.5);
  EXPECT_EQ(kind.resist.at("water"), 0.5);
  EXPECT_EQ(kind.resist.at("thorns"), -1.0);
  const Attack& pod = kind.attacks[0];
  EXPECT_EQ(pod.how, Attack::How::shot);
  EXPECT_EQ(pod.aim, Attack::Aim::high_lob);
  EXPECT_EQ(*pod.gravity_share, 1.0);        // of a lob,
  EXPECT_EQ(pod.lifetime->seconds(), 30.0);  // as this
  EXPECT_EQ(pod.damage_kind, "water");
  EXPECT_EQ(pod.push, 4.0);
  EXPECT_EQ(pod.wind_up.seconds(), 0.4);
  EXPECT_EQ(pod.burst, 3);
  EXPECT_EQ(pod.burst_interval.seconds(), 0.25);
  EXPECT_EQ(pod.ammunition, 12);
  EXPECT_EQ(pod.reload->seconds(), 3.0);
  EXPECT_EQ(pod.spread.degrees(), 2.0);
  EXPECT_EQ(pod.bounces, 2);
  EXPECT_EQ(pod.bounce_loss, 0.4);
  EXPECT_EQ(pod.pierce, 1);
  EXPECT_EQ(pod.drag, 0.1);
  EXPECT_EQ(pod.homing_rate.degrees(), 30.0);
  EXPECT_EQ(pod.blast_radius, 1.5);
  EXPECT_EQ(pod.blast_fall_off, 0.5);
  const Attack& ray = kind.attacks[1];
  EXPECT_EQ(ray.how, Attack::How::beam);
  EXPECT_EQ(ray.radius, 0.1);
  EXPECT_EQ(ray.hold.seconds(), 0.5);
  EXPECT_EQ(*ray.muzzle, Vector3d(0.1, 0.2, 0.3));
  EXPECT_EQ(ray.fire_reach, 6.0);
  EXPECT_EQ(kind.attacks[2].how, Attack::How::touch);
  EXPECT_EQ(kind.attacks[2].sides, SideSet(0b010001));
  EXPECT_EQ(kind.attacks[3].how, Attack::How::burst);
  EXPECT_EQ(kind.attacks[3].blast_fall_off, 1.0);
  EXPECT_FALSE(kind.attacks[3].reload);
}

TEST(HarmFile, ThingsDefeatsAndRoundsAreRead) {
  const Level level = testing::garden(
      R"(
[round]
ends = ["caught", "visitors out"]
resets = true
[kind.satchel]
[kind.jar]
radius = 0.2
height = 0.4
[kind.jar.thing]
speed = 7.0
breaks = true
take_reach = 0.8
damage = 3
noise_reach = 5.0
bounces = 1
[kind.collector]
team = "visitors"
carries = { jar = 3 }
side_factors = { back = 2.0, top = 0.0 }
heals = 1.5
heals_after = 4.0
[kind.collector.attack.gulp]
how = "catch"
range = 1.0
[kind.collector.attack.jet]
how = "shot"
aim = "mirror"
range = 9.0
speed = 14.0
damage = 5
far_damage = 0.2
fade_from = 0.5
friends = "hurt"
cooldown = 1.0
min_range = 2.0
at_health = [0.1, 0.9]
leaves = "satchel"
keeps = 2
[kind.collector.attack.burst]
how = "burst"
range = 3.0
damage = 5
cooldown = 1.0
[kind.collector.move]
gait = "fixed"
turn_limits = [-60.0, 50.0]
tilt_limits = [-10.0, 45.0]
[kind.collector.defeat]
leaves = "satchel"
attack = "burst"
score = 10
respawn = 5.0
tells = ["one"]
wakes = ["one"]
)" +
      placed(
          "one", "collector", "[0.0, 0.0]",
          R"(script = [{ take = "jar-1" }, { throw = "jar", to = [1.0, 2.0] }, { drop = true },)") +
      R"(
          { aim = [3.0, 4.0], fire = 2.0, attack = "jet" }]
)" + placed("jar-1", "jar", "[0.0, 0.0]"));
  EXPECT_TRUE(level.round.ends_when_caught);
  ASSERT_EQ(level.round.ends_without.size(), 1U);
  EXPECT_EQ(level.teams[level.round.ends_without[0]].name, "visitors");
  EXPECT_TRUE(level.round.resets);
  const Kind& jar = level.kinds[1];
  ASSERT_TRUE(jar.thing);
  EXPECT_TRUE(jar.thing->breaks);
  EXPECT_EQ(jar.thing->take_reach, 0.8);
  EXPECT_EQ(jar.thing->flight.name, "jar");
  EXPECT_EQ(jar.thing->flight.speed, 7.0);
  EXPECT_EQ(jar.thing->flight.radius, 0.2);
  EXPECT_EQ(jar.thing->flight.damage, 3.0);
  EXPECT_EQ(*jar.thing->flight.gravity_share, 1.0);
  const Kind& collector = level.kinds[2];
  ASSERT_EQ(collector.carries.size(), 1U);
  EXPECT_EQ(collector.carries[0].kind, 1U);
  EXPECT_EQ(collector.carries[0].count, 3);
  EXPECT_EQ(collector.side_factors, (std::array<double, 6>{1.0, 2.0, 1.0, 1.0, 0.0, 1.0}));
  EXPECT_EQ(collector.heals, 1.5);
  EXPECT_EQ(collector.heals_after, Duration::from_seconds(4.0));
  EXPECT_EQ(collector.attacks[0].how, Attack::How::catch_);
  EXPECT_EQ(collector.attacks[0].cooldown, Duration::from_seconds(1.0));
  const Attack& jet = collector.attacks[1];
  EXPECT_EQ(jet.aim, Attack::Aim::mirror);
  EXPECT_EQ(*jet.mirror_radius, 9.0);
  EXPECT_EQ(jet.friends, Attack::Friends::hurt);
  EXPECT_EQ(jet.far_damage, 0.2);
  EXPECT_EQ(jet.fade_from, 0.5);
  EXPECT_EQ(jet.min_range, 2.0);
  EXPECT_EQ(jet.health_low, 0.1);
  EXPECT_EQ(jet.health_high, 0.9);
  EXPECT_EQ(jet.leaves, 0U);
  EXPECT_EQ(jet.keeps, 2);
  EXPECT_EQ(collector.move->turn_limits, (std::array<double, 2>{-60.0, 50.0}));
  EXPECT_EQ(collector.move->tilt_limits, (std::array<double, 2>{-10.0, 45.0}));
  EXPECT_EQ(collector.defeat.leaves, 0U);
  EXPECT_EQ(collector.defeat.attack, "burst");
  EXPECT_EQ(collector.defeat.score, 10.0);
  EXPECT_EQ(collector.defeat.respawn, Duration::from_seconds(5.0));
  EXPECT_EQ(collector.defeat.tells, std::vector<std::string>{"one"});
  EXPECT_EQ(collector.defeat.wakes, std::vector<std::string>{"one"});
  const std::vector<ScriptStep>& script = level.agents[0].script;
  EXPECT_EQ(script[0].what, ScriptStep::What::take);
  EXPECT_EQ(script[0].name, "jar-1");
  EXPECT_EQ(script[1].what, ScriptStep::What::throw_);
  EXPECT_EQ(script[1].kind, 1U);
  EXPECT_EQ(script[1].place, (Vector3d{1.0, 2.0, 0.0}));
  EXPECT_EQ(script[2].what, ScriptStep::What::drop);
  EXPECT_EQ(script[3].what, ScriptStep::What::aim);
  EXPECT_EQ(script[3].duration, Duration::from_seconds(2.0));
  EXPECT_EQ(script[3].name, "jet");
}

struct BadHarmCase {
  const char* text;
  const char* faults;
};

class BadHarm : public ::testing::TestWithParam<BadHarmCase> {};

TEST_P(BadHarm, IsReportedInOneClearLineEach) {
  EXPECT_EQ(testing::faults_of(GetParam().text), GetParam().faults);
}

INSTANTIATE_TEST_SUITE_P(
    Gallery, BadHarm,
    ::testing::Values(
        BadHarmCase{
            "[kind.a.attack.x]\nhow = \"shot\"\nrange = 9\ndamage = 1\ncooldown = -1\nspeed = 0\n"
            "lifetime = 0\nspread = 361\nammunition = -1\npierce = 17\n",
            "bad.toml:5:12: error: kind.a.attack.x.cooldown is -1; 0.001 to 86400 s is allowed\n"
            "bad.toml:6:9: error: kind.a.attack.x.speed is 0; above 0 to 10000 m/s is allowed\n"
            "bad.toml:7:12: error: kind.a.attack.x.lifetime is 0; above 0 to 86400 s is allowed\n"
            "bad.toml:8:10: error: kind.a.attack.x.spread is 361; 0 to 360 degrees is allowed\n"
            "bad.toml:9:14: error: kind.a.attack.x.ammunition is -1; 0 to 1000000 is allowed\n"
            "bad.toml:10:10: error: kind.a.attack.x.pierce is 17; 0 to 16 is allowed\n"},
        BadHarmCase{
            "[kind.a.attack.x]\nhow = \"shot\"\nrange = 9\ndamage = 1\ncooldown = 1\nspeed = 5\n"
            "aim = \"lob\"\ngravity_share = 0\nradius = 0\nbounces = 2\n",
            "bad.toml:8:17: error: kind.a.attack.x.gravity_share is 0; a lob needs more than 0\n"
            "bad.toml:10:11: error: kind.a.attack.x.bounces needs a radius above 0: a point has no "
            "side to bounce off by\n"},
        BadHarmCase{
            "[kind.a.attack.x]\nhow = \"touch\"\nrange = 9\ndamage = 1\ncooldown = 1\nsides = "
            "[\"botom\"]\n[kind.a.resist]\nwater = 1.5\n",
            "bad.toml:3:1: error: unknown key 'range' in kind.a.attack.x; allowed: how, damage, "
            "cooldown, wind_up, ammunition, reload, at_health, push, damage_kind, sides\n"
            "bad.toml:6:10: error: there is no side 'botom'; did you mean 'bottom'?\n"
            "bad.toml:8:9: error: kind.a.resist.water is 1.5; -100 to 1 is allowed\n"},
        BadHarmCase{
            "[kind.a.attack.x]\nhow = \"catch\"\ndamage = 3\nat_health = [0.6, 0.2]\n"
            "[kind.a.defeat]\nleaves = \"b\"\nattack = \"x\"\nrespawn = 0\n",
            "bad.toml:3:1: error: unknown key 'damage' in kind.a.attack.x; allowed: how, range, "
            "cooldown, wind_up, ammunition, reload, min_range, at_health\n"
            "bad.toml:4:13: error: kind.a.attack.x.at_health is [0.6, 0.2]; the lesser share comes "
            "first\n"
            "bad.toml:6:10: error: there is no kind 'b'; did you mean 'a'?\n"
            "bad.toml:7:10: error: there is no burst or shot ahead among its attacks called 'x'\n"
            "bad.toml:8:11: error: kind.a.defeat.respawn is 0; 0.001 to 86400 s is allowed\n"},
        BadHarmCase{
            "[kind.a.defeat]\nleaves = \"b\"\n[kind.b.attack.x]\nhow = \"shot\"\nrange = 9\n"
            "damage = 1\ncooldown = 1\nspeed = 5\nleaves = \"a\"\n"
            "[[agent]]\nid = \"one\"\nkind = \"a\"\nat = [0, 0]\n",
            "bad.toml:2:10: error: 'a' leaves itself behind for ever, by what it leaves\n"},
        BadHarmCase{
            "[kind.a]\ncarries = { a = 3 }\n[[agent]]\nid = \"one\"\nkind = \"a\"\nat = [0, 0]\n"
            "script = [{ take = \"two\" }, { throw = \"a\", to = [1, 2] }, { aim = [1, 2], "
            "attack = \"x\" }]\n",
            "bad.toml:2:17: error: 'a' is no thing to be carried and thrown: the kind needs a "
            "table "
            "[kind.a.thing]\n"
            "bad.toml:7:11: error: there is no agent 'two'\n"
            "bad.toml:7:29: error: 'a' is no thing to be carried and thrown: the kind needs a "
            "table "
            "[kind.a.thing]\n"
            "bad.toml:7:59: error: there is no attack 'x'\n"},
        BadHarmCase{
            "[team.x]\n[round]\nends = [\"catched\", \"y out\"]\nresets = 1\n",
            "bad.toml:3:9: error: round.ends holds the text \"catched\"; allowed: \"caught\", \"x "
            "out\"\n"
            "bad.toml:3:20: error: round.ends holds the text \"y out\"; allowed: \"caught\", \"x "
            "out\"\n"
            "bad.toml:4:10: error: round.resets is 1; true or false is needed\n"},
        BadHarmCase{
            "[kind.a.move]\ngait = \"walk\"\nturn_limits = [-10, 10]\n[kind.b.move]\n"
            "gait = \"fixed\"\nturn_limits = [10, -10]\ntilt_limits = [-91, 0]\n",
            "bad.toml:3:15: error: kind.a.move.turn_limits is for the gait \"fixed\"\n"
            "bad.toml:6:15: error: kind.b.move.turn_limits is [10, -10]; the lesser angle comes "
            "first\n"
            "bad.toml:7:16: error: kind.b.move.tilt_limits is -91; -90 to 90 degrees is "
            "allowed\n"}));

}  // namespace
}  // namespace gaze
