// Every key of attacks and of what they meet: what it becomes, and ways to get it wrong, word for
// word.

#include "support/levels.hpp"

namespace gaze {
namespace {

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
  EXPECT_EQ(pod.gravity_share, 1.0);        // of a lob,
  EXPECT_EQ(pod.lifetime.seconds(), 30.0);  // as this
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
  EXPECT_EQ(ray.muzzle, Vector3d(0.1, 0.2, 0.3));
  EXPECT_EQ(ray.fire_reach, 6.0);
  EXPECT_EQ(kind.attacks[2].how, Attack::How::touch);
  EXPECT_EQ(kind.attacks[2].sides, SideSet(0b010001));
  EXPECT_EQ(kind.attacks[3].how, Attack::How::burst);
  EXPECT_EQ(kind.attacks[3].blast_fall_off, 1.0);
  EXPECT_FALSE(kind.attacks[3].reload);
}

struct Bad {
  const char* text;
  const char* faults;
};

class BadHarm : public ::testing::TestWithParam<Bad> {};

TEST_P(BadHarm, IsReportedInOneClearLineEach) {
  EXPECT_EQ(testing::faults_of(GetParam().text), GetParam().faults);
}

INSTANTIATE_TEST_SUITE_P(
    Gallery, BadHarm,
    ::testing::Values(
        Bad{"[kind.a.attack.x]\nhow = \"shot\"\nrange = 9\ndamage = 1\ncooldown = -1\nspeed = 0\n"
            "lifetime = 0\nspread = 361\nammunition = -1\npierce = 17\n",
            "bad.toml:5:12: error: kind.a.attack.x.cooldown is -1; 0.001 to 86400 s is allowed\n"
            "bad.toml:6:9: error: kind.a.attack.x.speed is 0; above 0 to 10000 m/s is allowed\n"
            "bad.toml:7:12: error: kind.a.attack.x.lifetime is 0; above 0 to 86400 s is allowed\n"
            "bad.toml:8:10: error: kind.a.attack.x.spread is 361; 0 to 360 degrees is allowed\n"
            "bad.toml:9:14: error: kind.a.attack.x.ammunition is -1; 0 to 1000000 is allowed\n"
            "bad.toml:10:10: error: kind.a.attack.x.pierce is 17; 0 to 16 is allowed\n"},
        Bad{"[kind.a.attack.x]\nhow = \"shot\"\nrange = 9\ndamage = 1\ncooldown = 1\nspeed = 5\n"
            "aim = \"lob\"\ngravity_share = 0\nradius = 0\nbounces = 2\n",
            "bad.toml:8:17: error: kind.a.attack.x.gravity_share is 0; a lob needs more than 0\n"
            "bad.toml:10:11: error: kind.a.attack.x.bounces needs a radius above 0: a point has no "
            "side to bounce off by\n"},
        Bad{"[kind.a.attack.x]\nhow = \"touch\"\nrange = 9\ndamage = 1\ncooldown = 1\nsides = "
            "[\"botom\"]\n[kind.a.resist]\nwater = 1.5\n",
            "bad.toml:3:1: error: unknown key 'range' in kind.a.attack.x; allowed: how, damage, "
            "cooldown, wind_up, ammunition, reload, push, damage_kind, at_health, sides\n"
            "bad.toml:6:10: error: there is no side 'botom'; did you mean 'bottom'?\n"
            "bad.toml:8:9: error: kind.a.resist.water is 1.5; -100 to 1 is allowed\n"}));

}  // namespace
}  // namespace gaze
