// Lines of sight: million segments a second on one core, single and batch, against the plain loop
// over all walls and, where it is installed, against a general ray-tracing kernel on the same
// solids as triangles. Every answer is compared before a clock starts.

#include <benchmark/benchmark.h>
#include <fmt/core.h>

#include <array>
#include <cstdlib>
#include <functional>
#include <map>

#include "plain.hpp"
#include "scenes.hpp"
#ifdef GAZE_HAS_EMBREE
#include "triangles.hpp"
#endif

namespace gaze {
namespace {

constexpr std::size_t kSegments = 200'000;
constexpr int kTerrain = 3;

struct Scene {
  Level level;
  World world;
  std::vector<Segment> segments;
  std::vector<plain::Outline> outlines;

  explicit Scene(Level the_level)
      : level(std::move(the_level)),
        world(level),
        segments(scenes::sight_segments(world, scenes::side_of(level), kSegments, 7)),
        outlines(plain::outlines_of(level)) {
    check_answers();
    describe();
  }

  /// A terrain, which the plain loop knows nothing of.
  Scene(Level the_level, std::vector<Segment> the_segments)
      : level(std::move(the_level)), world(level), segments(std::move(the_segments)) {
    describe();
  }

  void check_answers() const {
    const std::size_t checked =
        std::min<std::size_t>(segments.size(), 40'000'000 / outlines.size());
    for (std::size_t i = 0; i < std::min<std::size_t>(checked, 20'000); ++i) {
      if (world.is_clear(segments[i], Stops::sight) == plain::is_clear(outlines, segments[i]))
        continue;
      fmt::print(stderr, "segment {} is answered differently by the plain loop\n", i);
      std::exit(1);
    }
  }

  void describe() const {
    std::size_t clear = 0;
    for (const Segment& segment : segments) clear += world.is_clear(segment, Stops::sight);
    fmt::print("{} solids: {:.0f} % clear, {:.1f} MB of index\n", level.solids.size(),
               100.0 * double(clear) / double(segments.size()), double(world.index_bytes()) / 1e6);
  }
};

const Scene& scene(int which) {
  static std::map<int, Scene> scenes;
  const auto found = scenes.find(which);
  if (found != scenes.end()) return found->second;
  if (which == kTerrain) {
    return scenes.try_emplace(which, scenes::terrain(), scenes::terrain_segments(kSegments, 7))
        .first->second;
  }
  return scenes
      .try_emplace(which, which == 0   ? scenes::hall()
                          : which == 1 ? scenes::campus()
                                       : scenes::city())
      .first->second;
}

void count_segments(benchmark::State& state, std::size_t each) {
  state.counters["M/s"] =
      benchmark::Counter(static_cast<double>(state.iterations()) * static_cast<double>(each) / 1e6,
                         benchmark::Counter::kIsRate);
}

void single(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  for (auto _ : state) {
    std::size_t clear = 0;
    for (const Segment& segment : scene_.segments) {
      clear += scene_.world.is_clear(segment, Stops::sight);
    }
    benchmark::DoNotOptimize(clear);
  }
  count_segments(state, scene_.segments.size());
}

void batch(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  std::vector<std::uint8_t> clear(scene_.segments.size());
  for (auto _ : state) {
    scene_.world.are_clear(std::span<const Segment>(scene_.segments), Stops::sight, clear);
    benchmark::DoNotOptimize(clear.data());
  }
  count_segments(state, scene_.segments.size());
}

// What one who looks asks about a body: three points of it, one above the other.
constexpr std::array kBodyPoints{0.1, 0.5, 0.9};
constexpr double kEyeHeight = 1.6;

void bodies(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  Looker looker;
  looker.sight.range = 1e3;
  looker.sight.eye = Vector3d{0.0, 0.0, kEyeHeight};
  LookedAt other;
  other.body_points = kBodyPoints;
  for (auto _ : state) {
    double evidence = 0.0;
    for (const Segment& segment : scene_.segments) {
      looker.feet = segment.from - Vector3d{0.0, 0.0, kEyeHeight};
      other.feet = {segment.to.x(), segment.to.y(), 0.0};
      evidence += evidence_rate(scene_.world, looker, other);
    }
    benchmark::DoNotOptimize(evidence);
  }
  count_segments(state, kBodyPoints.size() * scene_.segments.size());
}

void plain_loop(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  const std::size_t count = std::min<std::size_t>(kSegments, 4'000'000 / scene_.outlines.size());
  for (auto _ : state) {
    std::size_t clear = 0;
    for (std::size_t i = 0; i < count; ++i) {
      clear += plain::is_clear(scene_.outlines, scene_.segments[i]);
    }
    benchmark::DoNotOptimize(clear);
  }
  count_segments(state, count);
}

void build(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(World(scene_.level));
  state.counters["M triangles/s"] = benchmark::Counter(
      static_cast<double>(state.iterations()) * double(scene_.world.triangle_count()) / 1e6,
      benchmark::Counter::kIsRate);
}

#ifdef GAZE_HAS_EMBREE
void triangle_kernel(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  const TriangleKernel kernel(scene_.world);
  std::size_t differing = 0;
  for (const Segment& segment : scene_.segments) {
    differing += kernel.is_clear(segment) != scene_.world.is_clear(segment, Stops::sight);
  }
  if (differing * 1000 > scene_.segments.size()) state.SkipWithError("answers differ");
  for (auto _ : state) {
    std::size_t clear = 0;
    for (const Segment& segment : scene_.segments) clear += kernel.is_clear(segment);
    benchmark::DoNotOptimize(clear);
  }
  count_segments(state, scene_.segments.size());
  state.counters["differing"] = static_cast<double>(differing);
}

// The same three points of each body, one after the other.
void kernel_of_bodies(benchmark::State& state) {
  const Scene& scene_ = scene(static_cast<int>(state.range(0)));
  const TriangleKernel kernel(scene_.world);
  for (auto _ : state) {
    std::size_t clear = 0;
    for (const Segment& segment : scene_.segments) {
      for (const double share : kBodyPoints) {
        const Vector3d point{segment.to.x(), segment.to.y(), share * kUsualHeight};
        clear += kernel.is_clear({segment.from, point});
      }
    }
    benchmark::DoNotOptimize(clear);
  }
  count_segments(state, kBodyPoints.size() * scene_.segments.size());
}
#endif

/// Keeps the best-known rate of each benchmark, and prints ratios at the end.
class RatioReporter : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) {
      const auto rate = run.counters.find("M/s");
      if (rate == run.counters.end() || run.aggregate_name != "median") continue;
      rates_[run.run_name.function_name + "/" + run.run_name.args] = rate->second;
    }
    ConsoleReporter::ReportRuns(runs);
  }

  void Finalize() override {
    constexpr std::array kNames{"hall", "campus", "city", "terrain"};
    fmt::print("\n{:8} {:>11} {:>11} {:>14} {:>14} {:>14} {:>18}\n", "scene", "single M/s",
               "batch M/s", "x plain loop", "single x kernel", "batch x kernel", "bodies x kernel");
    for (std::size_t i = 0; i < kNames.size(); ++i) {
      const auto rate = [&](const char* name) { return rates_[fmt::format("{}/{}", name, i)]; };
      const auto ratio = [&](const char* name, const char* to) {
        return rate(to) > 0.0 ? fmt::format("{:.2f}", rate(name) / rate(to)) : "-";
      };
      fmt::print("{:8} {:>11.2f} {:>11.2f} {:>14} {:>14} {:>14} {:>18}\n", kNames[i],
                 rate("single"), rate("batch"), ratio("single", "plain_loop"),
                 ratio("single", "triangle_kernel"), ratio("batch", "triangle_kernel"),
                 ratio("bodies", "kernel_of_bodies"));
    }
    fmt::print("city costs {:.2f} times hall a segment (single), {:.2f} (batch)\n",
               rates_["single/0"] / rates_["single/2"], rates_["batch/0"] / rates_["batch/2"]);
  }

 private:
  std::map<std::string, double> rates_;
};

void register_all() {
  using Function = void (*)(benchmark::State&);
  struct One {
    const char* name;
    Function function;
    int last;  ///< Scene.
  };
  const std::vector<One> all{{"single", single, kTerrain},
                             {"batch", batch, kTerrain},
                             {"bodies", bodies, kTerrain - 1},
#ifdef GAZE_HAS_EMBREE
                             {"triangle_kernel", triangle_kernel, kTerrain},
                             {"kernel_of_bodies", kernel_of_bodies, kTerrain - 1},
#endif
                             {"plain_loop", plain_loop, kTerrain - 1},
                             {"build", build, kTerrain}};
  for (const auto& [name, function, last] : all) {
    auto* one = benchmark::RegisterBenchmark(name, function);
    one->DenseRange(0, last)->Repetitions(9)->ReportAggregatesOnly(true)->MinTime(0.15);
    one->Unit(benchmark::kMillisecond);
  }
}

}  // namespace
}  // namespace gaze

int main(int argc, char** argv) {
  // By turns, so that a machine that slows down slows all alike.
  std::vector<char*> arguments(argv, argv + argc);
  std::string by_turns = "--benchmark_enable_random_interleaving=true";
  arguments.push_back(by_turns.data());
  argc = static_cast<int>(arguments.size());
  benchmark::Initialize(&argc, arguments.data());
  gaze::register_all();
  gaze::RatioReporter reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
}
