#include "scenes.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <string>

namespace gaze::scenes {
namespace {

constexpr double kOuterThickness = 0.5;

/// Circles on a grid, so that a new one is compared with its neighbours only.
class Spacing {
 public:
  bool add(const Vector2d& middle, double radius) {
    const auto [column, row] = cell(middle);
    for (int x = column - 1; x <= column + 1; ++x) {
      for (int y = row - 1; y <= row + 1; ++y) {
        for (const auto& [other, other_radius] : circles_[{x, y}]) {
          if ((other - middle).norm() < radius + other_radius) return false;
        }
      }
    }
    circles_[{column, row}].emplace_back(middle, radius);
    return true;
  }

 private:
  static std::pair<int, int> cell(const Vector2d& p) {
    return {static_cast<int>(std::floor(p.x() / 6.0)), static_cast<int>(std::floor(p.y() / 6.0))};
  }

  std::map<std::pair<int, int>, std::vector<std::pair<Vector2d, double>>> circles_;
};

std::vector<Vector2d> box_or_l(Random& random, double width, double depth) {
  const double x = width / 2.0;
  const double y = depth / 2.0;
  if (random.between(0.0, 1.0) < 0.7) return {{-x, -y}, {x, -y}, {x, y}, {-x, y}};
  const double cut_x = random.between(0.3, 0.7) * width - x;
  const double cut_y = random.between(0.3, 0.7) * depth - y;
  return {{-x, -y}, {x, -y}, {x, cut_y}, {cut_x, cut_y}, {cut_x, y}, {-x, y}};
}

Solid outer_wall(double side) {
  Solid wall;
  wall.id = "outer-wall";
  wall.form = Solid::Form::wall;
  wall.points = {{0.0, 0.0}, {side, 0.0}, {side, side}, {0.0, side}, {0.0, 0.0}};
  wall.thickness = kOuterThickness;
  wall.height = 4.0;
  return wall;
}

Kind chaser_kind() {
  Kind kind;
  kind.name = "pruner";
  kind.team = 0;
  kind.radius = 0.4;
  kind.sight = Sight{
      25.0, 30.0, Angle::from_degrees(200.0), Vector3d{0.0, 0.0, 1.5}, {}, Duration{2'000'000'000}};
  kind.move.emplace();
  kind.move->speed = 2.5;
  Rule& chases = kind.when.rules.emplace_back();
  chases.reaction.mode = Mode::chase;
  return kind;
}

Kind player_kind() {
  Kind kind;
  kind.name = "collector";
  kind.team = 1;
  kind.move.emplace();
  kind.move->speed = 3.0;
  return kind;
}

}  // namespace

std::uint64_t Random::next() {
  std::uint64_t z = (state_ += 0x9E3779B97F4A7C15ULL);
  z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9ULL;
  z = (z ^ (z >> 27U)) * 0x94D049BB133111EBULL;
  return z ^ (z >> 31U);
}

double Random::between(double low, double high) {
  return low + (high - low) * (static_cast<double>(next() >> 11U) * 0x1.0p-53);
}

Level make_scene(int solids, double side, std::uint64_t seed) {
  Random random(seed);
  Spacing spacing;
  Level level;
  level.name = "generated";
  level.solids.push_back(outer_wall(side));
  while (static_cast<int>(level.solids.size()) <= solids) {
    const double width = random.between(0.3, 4.0);
    const double depth = random.between(0.3, 4.0);
    const double radius = std::hypot(width, depth) / 2.0;
    const double margin = radius + kOuterThickness;
    const Vector2d middle{random.between(margin, side - margin),
                          random.between(margin, side - margin)};
    if (!spacing.add(middle, radius)) continue;
    const SineCosine turn = sine_cosine(Angle::from_degrees(random.between(0.0, 360.0)));
    Solid solid;
    solid.id = "solid-" + std::to_string(level.solids.size());
    solid.height = random.between(0.8, 3.0);
    for (const Vector2d& p : box_or_l(random, width, depth)) {
      solid.points.emplace_back(middle.x() + p.x() * turn.cosine - p.y() * turn.sine,
                                middle.y() + p.x() * turn.sine + p.y() * turn.cosine);
    }
    level.solids.push_back(solid);
  }
  return level;
}

Level hall() {
  return make_scene(200, 60.0, 1);
}
Level campus() {
  return make_scene(2'000, 200.0, 2);
}
Level city() {
  return make_scene(50'000, 1000.0, 3);
}

namespace {

constexpr int kTerrainCells = 707;  // of one metre, along either side

double sine(double radians) {
  return sine_cosine(Angle::from_degrees(radians * 180.0 / M_PI)).sine;
}

Vector3d on_terrain(double x, double y) {
  return {x, y, terrain_height(x, y)};
}

}  // namespace

double terrain_height(double x, double y) {
  return 8.0 * sine(x / 35.0) * sine(y / 28.0 + 1.0) + 2.0 * sine(x / 7.0 + y / 9.0) +
         0.3 * sine(x * 1.3) * sine(y * 1.1);
}

// In parts, for a mesh may have 200,000 triangles.
Level terrain() {
  constexpr int kRowsEach = 100;
  Level level;
  level.name = "hills";
  level.plane = Plane::space;
  for (int i = 0; i < kTerrainCells; ++i) {
    if (i % kRowsEach == 0) {
      Solid part;
      part.id = "hills-" + std::to_string(i / kRowsEach + 1);
      part.form = Solid::Form::mesh;
      level.solids.push_back(part);
    }
    for (int j = 0; j < kTerrainCells; ++j) {
      const Vector3d a = on_terrain(i, j);
      const Vector3d c = on_terrain(i + 1, j + 1);
      level.solids.back().triangles.push_back({a, on_terrain(i + 1, j), c});
      level.solids.back().triangles.push_back({a, c, on_terrain(i, j + 1)});
    }
  }
  complete(level);
  return level;
}

std::vector<Segment> terrain_segments(std::size_t count, std::uint64_t seed) {
  Random random(seed);
  std::vector<Segment> segments;
  const auto is_on_it = [](double x) { return x > 1.0 && x < kTerrainCells - 1.0; };
  while (segments.size() < count) {
    const double x = random.between(1.0, kTerrainCells - 1.0);
    const double y = random.between(1.0, kTerrainCells - 1.0);
    const double share = random.between(0.0, 1.0);
    const double length = 2.0 + 98.0 * share * share;
    const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0.0, 360.0)));
    const double to_x = x + length * way.cosine;
    const double to_y = y + length * way.sine;
    if (!is_on_it(to_x) || !is_on_it(to_y)) continue;
    segments.push_back({on_terrain(x, y) + Vector3d{0.0, 0.0, 1.6},
                        on_terrain(to_x, to_y) + Vector3d{0.0, 0.0, random.between(0.2, 1.7)}});
  }
  return segments;
}

double side_of(const Level& level) {
  return level.solids.front().points[1].x();
}

std::vector<Segment> sight_segments(const World& world, double side, std::size_t count,
                                    std::uint64_t seed) {
  Random random(seed);
  std::vector<Segment> segments;
  const auto is_free = [&](const Vector3d& p) {
    return p.x() > 0.5 && p.y() > 0.5 && p.x() < side - 0.5 && p.y() < side - 0.5 &&
           !world.overlaps({{p.x(), p.y(), 0.0}, 0.3, 1.7}, Stops::sight);
  };
  while (segments.size() < count) {
    const Vector3d eye{random.between(0.0, side), random.between(0.0, side), 1.6};
    // Few far ones: at even lengths nearly all would be blocked.
    const double share = random.between(0.0, 1.0);
    const double length = 2.0 + 38.0 * share * share * share;
    const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0.0, 360.0)));
    const Vector3d target{eye.x() + length * way.cosine, eye.y() + length * way.sine,
                          random.between(0.2, 1.7)};
    if (is_free(eye) && is_free(target)) segments.push_back({eye, target});
  }
  return segments;
}

void add_chasers(Level& level, int chasers, std::uint64_t seed) {
  const double side = side_of(level);
  Random random(seed);
  const World world(level);
  level.teams = {{"caretakers", {1}, {}}, {"visitors", {0}, {}}};
  level.kinds = {chaser_kind(), player_kind()};
  level.named_kinds = 2;
  Agent player;
  player.id = "collector";
  player.kind = 1;
  player.driver = Driver::script;
  const double third = side / 3.0;
  player.position = {third, third, 0.0};
  for (const Vector2d& corner : {Vector2d{2, 1}, Vector2d{2, 2}, Vector2d{1, 2}, Vector2d{1, 1}}) {
    ScriptStep step;
    step.what = ScriptStep::What::go;
    step.place = {corner.x() * third, corner.y() * third, 0.0};
    player.script.push_back(step);
  }
  ScriptStep repeat;
  repeat.what = ScriptStep::What::repeat;
  player.script.push_back(repeat);
  level.agents.push_back(player);
  while (static_cast<int>(level.agents.size()) <= chasers) {
    Agent agent;
    agent.id = "pruner-" + std::to_string(level.agents.size());
    agent.position = {random.between(1.0, side - 1.0), random.between(1.0, side - 1.0), 0.0};
    agent.facing = Angle::from_degrees(random.between(0.0, 360.0));
    if (!world.overlaps({agent.position, 0.4, 1.7}, Stops::bodies)) level.agents.push_back(agent);
  }
}

void add_players(Level& level, int players, std::uint64_t seed) {
  const double side = side_of(level);
  Random random(seed);
  const World world(level);
  for (int i = 0; i < players;) {
    Agent player = level.agents[0];
    player.id = "collector-" + std::to_string(i + 2);
    player.position = {random.between(0.2, 0.8) * side, random.between(0.2, 0.8) * side, 0.0};
    if (world.overlaps({player.position, 0.4, 1.7}, Stops::bodies)) continue;
    for (ScriptStep& step : player.script) {
      step.place = player.position + Vector3d{random.between(-30, 30), random.between(-30, 30), 0};
    }
    level.agents.push_back(player);
    ++i;
  }
}

void gather_round_player(Level& level, double within, std::uint64_t seed) {
  Random random(seed);
  const World world(level);
  Sight& sight = *level.kinds[0].sight;
  sight.field_of_view = Angle::from_degrees(360.0);
  sight.remember = Duration::from_seconds(86'400.0);
  const Vector3d player = level.agents[0].position;
  for (std::size_t i = 1; i < level.agents.size();) {
    const Vector3d place =
        player + Vector3d{random.between(-within, within), random.between(-within, within), 0.0};
    const Segment eye_to_middle{place + Vector3d{0.0, 0.0, sight.eye->z()},
                                player + Vector3d{0.0, 0.0, 0.85}};
    const bool is_free = !world.overlaps({place, 0.4, 1.7}, Stops::bodies);
    if (!is_free || (place - player).norm() > within) continue;
    if (world.is_clear(eye_to_middle, Stops::sight)) level.agents[i++].position = place;
  }
}

}  // namespace gaze::scenes
