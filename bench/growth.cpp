// How what is asked most grows with the size of a level and with how many ask: a table as CSV and a
// plot of it. Levels of all sizes are as dense as the campus.
//
//   build-release/bench/growth FOLDER

#include <cmath>
#include <cstdio>
#include <fstream>
#include <functional>
#include <iostream>

#include "gaze/path.hpp"
#include "gaze/seen_area.hpp"
#include "growth_plot.hpp"
#include "scenes.hpp"
#include "timing.hpp"

namespace gaze {
namespace {

constexpr double kSolidsPerSquareMetre = 0.05;

double time_of(const std::function<void()>& work) {
  const auto start = std::chrono::steady_clock::now();
  work();
  return microseconds_since(start);
}

/// The median of several, which is what one takes on a machine that is quiet now and then.
double usual_time_of(int times, const std::function<void()>& work) {
  std::vector<double> taken;
  for (int i = 0; i < times; ++i) taken.push_back(time_of(work));
  return median(taken);
}

class BySolids {
 public:
  BySolids() {
    plot_.over = "solids";
    plot_.lines = {{"a line of sight", {}},
                   {"a seen area", {}},
                   {"a shortest way", {}},
                   {"a mesh is made", {}},
                   {"a world is made", {}}};
  }

  GrowthPlot measure() {
    for (const int solids : {100, 1'000, 10'000, 100'000, 1'000'000}) measure(solids);
    return plot_;
  }

 private:
  enum Line { sight, area, way, mesh, world };

  void note(Line line, int solids, double microseconds) {
    plot_.lines[line].measures.push_back({static_cast<double>(solids), microseconds});
    std::cerr << plot_.lines[line].what << ", " << solids << ": " << microseconds << " us\n";
  }

  void measure(int solids) {
    side_ = std::sqrt(solids / kSolidsPerSquareMetre);
    const Level level = scenes::make_scene(solids, side_, 4);
    note(world, solids, usual_time_of(3, [&] { World made(level); }));
    const World built(level);
    measure_sight(built, solids);
    measure_areas(built, solids);
    if (solids <= 100'000) measure_ways(level, built, solids);
  }

  void measure_sight(const World& built, int solids) {
    const std::vector<Segment> segments = scenes::sight_segments(built, side_, 100'000, 5);
    std::size_t clear = 0;
    const double all = usual_time_of(9, [&] {
      for (const Segment& segment : segments) clear += built.is_clear(segment, Stops::sight);
    });
    if (clear == 0) throw std::runtime_error("nothing is clear");
    note(sight, solids, all / static_cast<double>(segments.size()));
  }

  void measure_areas(const World& built, int solids) {
    constexpr double kEye = 1.6;
    SeenAreaFinder finder(built, std::array{kEye});
    std::vector<Looker> lookers(300);
    for (Looker& looker : lookers) {
      looker.feet = free_place(built);
      looker.sight.range = 1e6;
      looker.sight.field_of_view = Angle::from_degrees(360.0);
      looker.sight.eye = Vector3d{0.0, 0.0, kEye};
    }
    std::size_t edges = 0;
    const double all = usual_time_of(9, [&] {
      for (const Looker& looker : lookers) edges += finder.find(built, looker).edges.size();
    });
    if (edges == 0) throw std::runtime_error("nothing is seen");
    note(area, solids, all / static_cast<double>(lookers.size()));
  }

  void measure_ways(const Level& level, const World& built, int solids) {
    note(mesh, solids, usual_time_of(solids > 10'000 ? 1 : 5, [&] {
           NavigationMesh made(level, built, BodySize{});
         }));
    const NavigationMesh made(level, built, BodySize{});
    PathFinder finder;
    std::vector<double> taken;
    while (taken.size() < 200) {
      const Vector3d from = free_place(built);
      const Vector3d to = free_place(built);
      Path::Outcome outcome{};
      const double time = time_of([&] { outcome = finder.find(made, from, to).outcome; });
      if (outcome == Path::Outcome::whole) taken.push_back(time);
    }
    note(way, solids, median(taken));
  }

  Vector3d free_place(const World& built) {
    while (true) {
      const Vector3d p{random_.between(1.0, side_ - 1.0), random_.between(1.0, side_ - 1.0), 0.0};
      if (!built.overlaps({p, 0.4, 1.7}, Stops::bodies)) return p;
    }
  }

  GrowthPlot plot_;
  double side_ = 0.0;
  scenes::Random random_{6};
};

double step_time(int agents, bool have_senses) {
  Level level = scenes::campus();
  constexpr int kPlayers = 4;
  scenes::add_chasers(level, agents - kPlayers, 11);  // and one player
  scenes::add_players(level, kPlayers - 1, 12);
  if (!have_senses) {
    level.kinds[0].sight.reset();
    level.kinds[0].nearness.reset();
  }
  Simulation simulation(level);
  for (int i = 0; i < 60; ++i) simulation.step();
  return usual_time_of(120, [&] { simulation.step(); });
}

GrowthPlot by_agents() {
  GrowthPlot plot{"agents", {{"a step", {}}, {"without senses", {}}}};
  for (const int agents : {10, 100, 1'000, 10'000, 100'000}) {
    plot.lines[0].measures.push_back({static_cast<double>(agents), step_time(agents, true)});
    plot.lines[1].measures.push_back({static_cast<double>(agents), step_time(agents, false)});
  }
  return plot;
}

void write_table(const std::string& folder, const std::vector<GrowthPlot>& plots) {
  std::ofstream table(folder + "/growth.csv");
  table.precision(9);  // no powers of ten
  table << "what,over,size,microseconds\n";
  for (const GrowthPlot& plot : plots) {
    for (const Growth& line : plot.lines) {
      for (const Timing& measure : line.measures) {
        table << line.what << ',' << plot.over << ',' << measure.size << ',' << measure.microseconds
              << '\n';
      }
    }
  }
}

}  // namespace
}  // namespace gaze

int main(int count, char** arguments) {
  if (count != 2) {
    std::cerr << "growth FOLDER: writes growth.csv and growth.png there\n";
    return 2;
  }
  const std::string folder = arguments[1];
  const std::vector<gaze::GrowthPlot> plots{gaze::BySolids().measure(), gaze::by_agents()};
  gaze::write_table(folder, plots);
  std::ofstream(folder + "/growth.png", std::ios::binary) << gaze::draw_growth(plots);
}
