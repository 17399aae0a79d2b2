#include <algorithm>
#include <array>
#include <map>

#include "navigation/mend.hpp"
#include "navigation/merge.hpp"

/// How a hole in a mesh is covered anew.
namespace gaze {
namespace {

using Ends = std::array<double, 4>;

/// Edges at which two surfaces join that have both been cut, by their ends and the surface beyond.
using Joints = std::map<std::pair<Ends, std::uint32_t>, std::uint32_t>;

Ends turned_round(const Ends& ends) {
  return {ends[2], ends[3], ends[0], ends[1]};
}

Ends ends_of(const NavigationMesh::Data& mesh, std::uint32_t edge) {
  const MeshPoint& from = mesh.edges[edge].from;
  const MeshPoint& to = mesh.edges[mesh.next(edge)].from;
  return {from.x, from.y, to.x, to.y};
}

/// What has been cut out of one surface.
class Hole {
 public:
  Hole(NavigationMesh::Data& mesh, const NavigationMesh::Data& old, const Cutting& cutting,
       std::uint32_t surface)
      : mesh_(mesh), old_(old), cutting_(cutting), surface_(surface) {
    for (const std::uint32_t face : cutting.faces) {
      if (old.faces[face].surface == surface) faces_.push_back(face);
    }
  }

  bool fill(Joints& joints) {
    if (faces_.empty()) return true;
    const auto first = static_cast<std::uint32_t>(mesh_.edges.size());
    Lines lines;
    add_rim(lines);
    std::vector<Covering> coverings;
    for (std::size_t i = 0; i < cutting_.outlines.size(); ++i) {
      if (cutting_.on[i] != surface_) continue;
      coverings.push_back({&cutting_.outlines[i], cutting_.hindrances[i].may_go});
    }
    add_merged(lines, coverings);
    cover(
        mesh_, surface_, lines, [&](const Vector2d& p) { return class_at(p); }, grounds_);
    return join(first, joints);
  }

 private:
  bool is_cut(std::uint32_t face) const { return cutting_.moved.face[face] == kNone; }

  // The rim of the hole, and in it the lines between different grounds. What stays beyond the rim
  // is noted, to be joined again.
  void add_rim(Lines& lines) {
    for (const std::uint32_t number : faces_) {
      const MeshFace& face = old_.faces[number];
      for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
        const std::uint32_t twin = across(old_, e);
        if (twin != kNone) {
          const std::uint32_t beyond = old_.edges[twin].polygon;
          const bool is_inside = is_cut(beyond) && old_.faces[beyond].surface == surface_;
          if (is_inside && ground_of(old_.faces[beyond]) == ground_of(face)) continue;
          if (!is_cut(beyond)) {
            loose_[ends_of(old_, e)] = cutting_.moved.edge[twin];
          } else if (!is_inside) {
            joints_[ends_of(old_, e)] = old_.faces[beyond].surface;
          }
        }
        const Ends ends = ends_of(old_, e);
        lines.add(to_lattice({ends[0], ends[1]}), to_lattice({ends[2], ends[3]}));
      }
    }
  }

  static Ground ground_of(const MeshFace& face) { return {face.cost, face.patch}; }

  std::uint32_t class_at(const Vector2d& p) {
    const auto holder = std::find_if(faces_.begin(), faces_.end(), [&](std::uint32_t face) {
      return holds(old_, face, {p.x(), p.y()});
    });
    if (holder == faces_.end()) return kNone;
    Ground ground = ground_of(old_.faces[*holder]);
    std::vector<std::uint32_t> to_go = mesh_.patches[ground.patch];
    for (std::size_t i = 0; i < cutting_.outlines.size(); ++i) {
      if (cutting_.on[i] != surface_ || !covers(cutting_.outlines[i], p)) continue;
      if (cutting_.hindrances[i].may_go == Hindrance::kStays) return kNone;
      to_go.push_back(cutting_.hindrances[i].may_go);
    }
    std::sort(to_go.begin(), to_go.end());
    to_go.erase(std::unique(to_go.begin(), to_go.end()), to_go.end());
    ground.patch = number_of(to_go, mesh_.patches);
    return number_of(ground, grounds_);
  }

  // Each edge that stayed behind, or that has been cut out on another surface as well, has to find
  // its neighbour again, from corner to corner.
  bool join(std::uint32_t first, Joints& joints) {
    std::size_t found = 0;
    for (std::uint32_t e = first; e < mesh_.edges.size(); ++e) {
      if (mesh_.edges[e].twin != kNone) continue;
      const Ends ends = ends_of(mesh_, e);
      if (const auto loose = loose_.find(ends); loose != loose_.end()) {
        make_twins(e, loose->second);
        ++found;
      } else if (const auto joint = joints_.find(ends); joint != joints_.end()) {
        const auto other = joints.find({turned_round(ends), surface_});
        if (other == joints.end()) {
          joints[{ends, joint->second}] = e;
        } else {
          make_twins(e, other->second);
        }
        ++found;
      }
    }
    return found == loose_.size() + joints_.size();
  }

  void make_twins(std::uint32_t one, std::uint32_t other) {
    mesh_.edges[one].twin = other;
    mesh_.edges[other].twin = one;
  }

  NavigationMesh::Data& mesh_;
  const NavigationMesh::Data& old_;
  const Cutting& cutting_;
  std::uint32_t surface_;
  std::vector<std::uint32_t> faces_;  ///< Those of this surface that were cut out.
  std::vector<Ground> grounds_;
  std::map<Ends, std::uint32_t> loose_;   ///< Edges that stay, by the ends of what was their twin.
  std::map<Ends, std::uint32_t> joints_;  ///< The surface beyond, where that has been cut as well.
};

}  // namespace

bool fill(NavigationMesh::Data& mesh, const NavigationMesh::Data& old, const Cutting& cutting) {
  Joints joints;
  for (std::uint32_t s = 0; s < mesh.surfaces.size(); ++s) {
    if (!Hole(mesh, old, cutting, s).fill(joints)) return false;
  }
  return true;
}

}  // namespace gaze
