// The demo folder of typical mistakes: each is told by one finding, and by none once it is mended.

#include <algorithm>
#include <filesystem>

#include "support/levels.hpp"

namespace gaze {
namespace {

struct Mistake {
  const char* file;
  const char* code;
  Setting mend;
};

void PrintTo(const Mistake& mistake, std::ostream* out) {
  *out << mistake.file;
}

std::filesystem::path folder_of_mistakes() {
  return std::filesystem::path(GAZE_DEMO).parent_path() / "mistakes";
}

std::vector<std::string> told_of(const Mistake& mistake, const std::vector<Setting>& settings) {
  std::vector<std::string> codes;
  for (const Finding& finding : judge(read_level(folder_of_mistakes() / mistake.file, settings))) {
    if (finding.severity != Finding::Severity::note) codes.push_back(finding.code);
  }
  return codes;
}

class Mistakes : public ::testing::TestWithParam<Mistake> {};

TEST_P(Mistakes, AreToldByOneFinding) {
  EXPECT_EQ(told_of(GetParam(), {}), std::vector<std::string>{GetParam().code});
  EXPECT_EQ(told_of(GetParam(), {GetParam().mend}), std::vector<std::string>{});
}

const std::vector<Mistake> kMistakes{
    {"chases_without_legs.toml", "mode-without-legs", {"kind.sprinkler.move.gait", "\"walk\""}},
    {"gate_too_narrow.toml",
     "target-cut-off",
     {"wall.hedge.path", "[[2, 0.5], [2, 3], [-3, 3], [-3, -3], [2, -3], [2, -0.5]]"}},
    {"hangs_too_high.toml", "nearness-out-of-reach", {"kind.basket.nearness.axes", "\"xy\""}},
    {"hurts_each_step.toml", "blows-pour", {"kind.bumper.attack.bump.cooldown", "0.5"}},
    {"jet_into_the_planter.toml",
     "muzzle-behind-cover",
     {"kind.sprinkler.attack.jet.muzzle", "[0.0, 0.0, 1.2]"}},
    {"sees_and_does_nothing.toml", "notices-in-vain", {"kind.pruner.when.sees", "\"chase\""}},
    {"shears_too_short.toml", "strike-short-of-stop", {"kind.pruner.move.stop_distance", "1.0"}},
    {"stops_before_touching.toml",
     "stops-before-touching",
     {"kind.thistle.move.stop_distance", "0.5"}},
    {"sweeps_too_fast.toml", "pass-too-short", {"kind.lamp.scan.rate", "40.0"}},
    {"waits_for_another_noise.toml",
     "cause-never-comes",
     {"agent.collector.script", "[{ wait = 1.0 }, { noise = \"peble\", reach = 10.0 }]"}},
};

INSTANTIATE_TEST_SUITE_P(Demo, Mistakes, ::testing::ValuesIn(kMistakes));

TEST(MistakesFolder, HoldsNoOthers) {
  std::size_t files = 0;
  for (const auto& entry : std::filesystem::directory_iterator(folder_of_mistakes())) {
    const auto it = std::find_if(kMistakes.begin(), kMistakes.end(), [&](const Mistake& mistake) {
      return entry.path().filename() == mistake.file;
    });
    EXPECT_NE(it, kMistakes.end()) << entry.path();
    ++files;
  }
  EXPECT_EQ(files, kMistakes.size());
}

}  // namespace
}  // namespace gaze
