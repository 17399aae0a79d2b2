#include "triangles.hpp"

#include <algorithm>
#include <array>
#include <vector>

#include "world/index.hpp"

namespace gaze {
namespace {

struct Mesh {
  std::vector<std::array<float, 3>> corners;
  std::vector<std::array<unsigned, 3>> triangles;

  void add(const World::Index& index, const ShellCorners& shell) {
    const auto first = static_cast<unsigned>(corners.size());
    for (const std::uint32_t corner : shell) {
      const Vector3d& p = index.vertices[corner];
      corners.push_back({float(p.x()), float(p.y()), float(p.z())});
    }
    triangles.push_back({first, first + 1, first + 2});
  }

  void add(const Prism& prism) {
    const auto first = static_cast<unsigned>(corners.size());
    const auto n = static_cast<unsigned>(prism.edges.size());
    for (const double z : {prism.low, prism.high}) {
      for (const PrismEdge& edge : prism.edges) {
        corners.push_back({float(edge.x), float(edge.y), float(z)});
      }
    }
    for (unsigned i = 0; i < n; ++i) {
      const unsigned next = (i + 1) % n;
      triangles.push_back({first + i, first + next, first + n + i});
      triangles.push_back({first + next, first + n + next, first + n + i});
    }
    for (unsigned i = 1; i + 1 < n; ++i) {
      triangles.push_back({first, first + i + 1, first + i});
      triangles.push_back({first + n, first + n + i, first + n + i + 1});
    }
  }
};

}  // namespace

TriangleKernel::TriangleKernel(const World& world)
    : device_(rtcNewDevice("threads=1")), scene_(rtcNewScene(device_)) {
  Mesh mesh;
  const World::Index& index = index_of(world);
  for (std::uint32_t i = 0; i < index.pieces.size(); ++i) {
    if (index.pieces[i].is_shell()) {
      mesh.add(index, index.pieces[i].corners);
      continue;
    }
    const PieceShape shape(index, i);
    mesh.add(shape.prism());
  }
  RTCGeometry geometry = rtcNewGeometry(device_, RTC_GEOMETRY_TYPE_TRIANGLE);
  void* corners = rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3,
                                          12, mesh.corners.size());
  void* triangles = rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3,
                                            12, mesh.triangles.size());
  std::copy(mesh.corners.begin(), mesh.corners.end(), static_cast<std::array<float, 3>*>(corners));
  std::copy(mesh.triangles.begin(), mesh.triangles.end(),
            static_cast<std::array<unsigned, 3>*>(triangles));
  rtcCommitGeometry(geometry);
  rtcAttachGeometry(scene_, geometry);
  rtcReleaseGeometry(geometry);
  rtcSetSceneBuildQuality(scene_, RTC_BUILD_QUALITY_HIGH);
  rtcCommitScene(scene_);
}

TriangleKernel::~TriangleKernel() {
  rtcReleaseScene(scene_);
  rtcReleaseDevice(device_);
}

}  // namespace gaze
