// Triangle meshes from OBJ and glTF files: what they stop, what they carry, and what is wrong.

#include <fstream>

#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

class MeshFile : public testing::InTemporaryFolder {
 protected:
  /// A level file beside a mesh, with one mesh in it.
  std::filesystem::path level_with(const std::string& mesh, const std::string& more = "") const {
    std::string text = "plane = \"space\"\n[[mesh]]\nid = \"rockery\"\nmaterial = \"brick\"\n";
    text += mesh;
    text += more;
    return write("level.toml", text);
  }

  std::string fault_of(const std::string& mesh) const {
    try {
      static_cast<void>(read_level(level_with(mesh)));
    } catch (const LevelError& error) {
      std::string text;
      for (const Fault& fault : error.faults()) text += fault.text() + "\n";
      // The folder of a test has another name each time.
      const std::string place = folder.string() + "/";
      for (auto at = text.find(place); at != std::string::npos; at = text.find(place)) {
        text.erase(at, place.size());
      }
      return text;
    }
    return "readable";
  }
};

/// Heights over a grid of n x n squares of a metre, as an OBJ, and the height over a place.
struct Terrain {
  int n = 0;
  std::vector<double> heights;

  Terrain(int squares, std::uint64_t seed) : n(squares) {
    scenes::Random random(seed);
    for (int i = 0; i < (n + 1) * (n + 1); ++i) heights.push_back(random.between(1.0, 1.4));
  }
  double at_corner(int x, int y) const {
    return heights[static_cast<std::size_t>(y * (n + 1) + x)];
  }
  std::string obj() const {
    std::string text;
    for (int y = 0; y <= n; ++y) {
      for (int x = 0; x <= n; ++x) {
        text += "v " + std::to_string(x) + " " + std::to_string(y) + " ";
        char height[32];
        std::snprintf(height, sizeof height, "%.9f", at_corner(x, y));
        text += height;
        text += "\n";
      }
    }
    for (int y = 0; y < n; ++y) {
      for (int x = 0; x < n; ++x) {
        const int a = y * (n + 1) + x + 1;
        const auto face = [&](int i, int j, int k) {
          text += "f " + std::to_string(i) + " " + std::to_string(j) + " " + std::to_string(k);
          text += "\n";
        };
        face(a, a + 1, a + n + 2);
        face(a, a + n + 2, a + n + 1);
      }
    }
    return text;
  }
  double at(double x, double y) const {
    const int i = std::min(n - 1, static_cast<int>(x));
    const int j = std::min(n - 1, static_cast<int>(y));
    const double u = x - i;
    const double v = y - j;
    const double a = at_corner(i, j);
    const double c = at_corner(i + 1, j + 1);
    if (v <= u) {
      const double b = at_corner(i + 1, j);
      return a + (b - a) * u + (c - b) * v;
    }
    const double d = at_corner(i, j + 1);
    return a + (c - d) * u + (d - a) * v;
  }
};

TEST_F(MeshFile, StopsRaysWhereItsTrianglesAre) {
  const Terrain terrain(6, 5);
  write("terrain.obj", terrain.obj());
  const Level level = read_level(level_with("file = \"terrain.obj\"\n"));
  const World world(level);
  scenes::Random random(9);
  for (int i = 0; i < 500; ++i) {
    const double x = random.between(0.01, 5.99);
    const double y = random.between(0.01, 5.99);
    const Segment down{{x, y, 9.0}, {x, y, -1.0}};
    const auto touch = world.first_touch(down, Stops::sight);
    ASSERT_TRUE(touch.has_value());
    // Assimp reads single precision.
    EXPECT_NEAR(touch->place.z(), terrain.at(x, y), 1e-5);
    const auto up = world.first_touch(Segment{{x, y, 0.0}, {x, y, 9.0}}, Stops::sight);
    ASSERT_TRUE(up.has_value());
    EXPECT_LE(up->place.z(), terrain.at(x, y) - 0.02 + 1e-5);
    EXPECT_GE(up->place.z(), terrain.at(x, y) - 0.03);  // 2 cm across the triangle
  }
}

TEST_F(MeshFile, IsPutWhereTheLevelSays) {
  write("flag.obj", "v 0 0 0\nv 2 0 0\nv 2 0 1\nv 0 0 1\nf 1 2 3 4\n");
  // Twice as large, turned to face along x, at [10, 20, 0.5]: an upright sheet in the plane x = 10.
  const Level level = read_level(
      level_with("file = \"flag.obj\"\nat = [10.0, 20.0, 0.5]\nturn = 90.0\nscale = 2.0\n"));
  const World world(level);
  const auto hit = [&](double y, double z) {
    return world.first_touch(Segment{{12.0, y, z}, {8.0, y, z}}, Stops::bodies);
  };
  for (const double y : {20.01, 22.0, 23.99}) {
    for (const double z : {0.51, 1.5, 2.49}) {
      ASSERT_TRUE(hit(y, z).has_value()) << y << ", " << z;
      EXPECT_NEAR(hit(y, z)->place.x(), 10.0, 0.021) << y << ", " << z;
    }
  }
  EXPECT_FALSE(hit(19.9, 1.0).has_value());
  EXPECT_FALSE(hit(24.1, 1.0).has_value());
  EXPECT_FALSE(hit(22.0, 0.45).has_value());
  EXPECT_FALSE(hit(22.0, 2.55).has_value());
}

TEST_F(MeshFile, CarriesBodiesWhoWalkOverIt) {
  const Terrain terrain(6, 11);
  write("terrain.obj", terrain.obj());
  const Level level = read_level(level_with("file = \"terrain.obj\"\n", R"(
[kind.pruner]
radius = 0.2
[kind.pruner.move]
slope = 45.0
speed = 1.5
[[agent]]
id = "pruner"
kind = "pruner"
at = [1.0, 1.2, 1.4]
patrol = [[5.2, 4.7, 1.2], [5.2, 4.7, 1.2]]
)"));
  Simulation simulation(level);
  for (int tick = 1; tick <= 300; ++tick) {
    simulation.step();
    const Vector3d at = simulation.state({0}).position;
    EXPECT_NEAR(at.z(), terrain.at(at.x(), at.y()), 1e-4) << tick;
  }
  EXPECT_NEAR(simulation.state({0}).position.x(), 5.2, 1e-9);
  EXPECT_NEAR(simulation.state({0}).position.y(), 4.7, 1e-9);
}

TEST_F(MeshFile, TakesGltfWithItsOwnWayUp) {
  // A triangle in the plane y = 3 of the file, which is 3 m up; its z points to our -y.
  const std::array<float, 9> corners{0.0F, 3.0F, 0.0F, 4.0F, 3.0F, 0.0F, 0.0F, 3.0F, -4.0F};
  write("tri.bin", std::string(reinterpret_cast<const char*>(corners.data()), sizeof corners));
  write("tri.gltf", R"({"asset":{"version":"2.0"},
"buffers":[{"uri":"tri.bin","byteLength":36}],
"bufferViews":[{"buffer":0,"byteLength":36}],
"accessors":[{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3",
"min":[0,3,-4],"max":[4,3,0]}],
"meshes":[{"primitives":[{"attributes":{"POSITION":0}}]}],
"nodes":[{"mesh":0}],"scenes":[{"nodes":[0]}],"scene":0})");
  const World world(read_level(level_with("file = \"tri.gltf\"\n")));
  const auto touch = world.first_touch(Segment{{1.0, 1.0, 9.0}, {1.0, 1.0, 0.0}}, Stops::sight);
  ASSERT_TRUE(touch.has_value());
  EXPECT_NEAR(touch->place.z(), 3.0, 1e-6);
  EXPECT_TRUE(world.is_clear(Segment{{3.0, 3.0, 9.0}, {3.0, 3.0, 0.0}}, Stops::sight));
  EXPECT_TRUE(world.is_clear(Segment{{1.0, -1.0, 9.0}, {1.0, -1.0, 0.0}}, Stops::sight));
}

TEST_F(MeshFile, SaysInOneLineWhatIsWrong) {
  write("empty.obj", "");
  write("flat.obj", "v 0 0 0\nv 1 0 0\nv 2 0 0\nf 1 2 3\n");
  write("far.obj", "v 0 0 0\nv 1e9 0 0\nv 0 1 0\nf 1 2 3\n");
  write("points.obj", "v 0 0 0\nv 1 0 0\np 1 2\n");
  write("broken.glb", "glTF and then nothing of the kind");
  const std::string start = "level.toml:5:8: error: mesh.rockery.file";
  EXPECT_EQ(fault_of("file = \"gone.obj\"\n"), start + ": gone.obj is not there\n");
  EXPECT_EQ(fault_of("file = \"flat.obj\"\n"),
            start + ": flat.obj holds no triangle with an area\n");
  EXPECT_EQ(fault_of("file = \"points.obj\"\n"), start + ": points.obj holds no triangles\n");
  EXPECT_EQ(fault_of("file = \"far.obj\"\n"),
            start + ": far.obj has a corner that is not a number, or farther than 20000 m out\n");
  EXPECT_EQ(fault_of("file = \"rockery.stl\"\n"),
            start + " is 'rockery.stl'; .obj, .gltf and .glb files are read\n");
  for (const std::string name : {"empty.obj", "broken.glb"}) {
    const std::string fault = fault_of("file = \"" + name + "\"\n");
    EXPECT_TRUE(fault.starts_with(start + ": " + name)) << fault;
    EXPECT_EQ(std::count(fault.begin(), fault.end(), '\n'), 1) << fault;
  }
}

TEST_F(MeshFile, SurvivesAnyBytes) {
  const Terrain terrain(2, 3);
  const std::string good = terrain.obj();
  scenes::Random random(17);
  int refused = 0;
  for (int i = 0; i < 300; ++i) {
    std::string bytes = good;
    for (int k = 0; k < 6; ++k) {
      const auto at = static_cast<std::size_t>(random.between(0.0, double(bytes.size())));
      bytes[std::min(at, bytes.size() - 1)] =
          static_cast<char>(static_cast<unsigned char>(random.between(0.0, 255.9)));
    }
    if (i % 5 == 0) bytes.resize(bytes.size() / 2);
    write("any.obj", bytes);
    refused += fault_of("file = \"any.obj\"\n") == "readable" ? 0 : 1;
  }
  EXPECT_LT(refused, 300);
}

TEST_F(MeshFile, FlawsAreFindings) {
  // Three triangles on one edge, and one without an area.
  write("odd.obj",
        "v 0 0 0\nv 4 0 0\nv 2 2 0\nv 2 -2 0\nv 2 0 2\nf 1 2 3\nf 2 1 4\nf 1 2 5\nf 1 1 2\n");
  const auto findings = judge(read_level(level_with("file = \"odd.obj\"\n")));
  std::vector<std::string> codes;
  for (const Finding& finding : findings) codes.push_back(finding.code);
  EXPECT_TRUE(std::find(codes.begin(), codes.end(), "mesh-not-manifold") != codes.end());
  EXPECT_TRUE(std::find(codes.begin(), codes.end(), "mesh-without-area") != codes.end());
}

}  // namespace
}  // namespace gaze
