#include <assimp/postprocess.h>
#include <assimp/scene.h>
#include <fmt/format.h>

#include <assimp/DefaultIOSystem.h>
#include <assimp/MemoryIOWrapper.h>
#include <algorithm>
#include <assimp/Importer.hpp>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "file/read.hpp"
#include "file/regular_file.hpp"
#include "level/triangle.hpp"

/// Triangle meshes from OBJ and glTF files.
namespace gaze {
namespace {

std::string ending_of(const std::string& file) {
  std::string ending = std::filesystem::path(file).extension().string();
  std::transform(ending.begin(), ending.end(), ending.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? char(c - 'A' + 'a') : c; });
  return ending;
}

/// Where the triangles of a file are put.
struct Placing {
  Vector3d at{0.0, 0.0, 0.0};
  SineCosine turn;
  double scale = 1.0;
  bool is_y_up = false;

  Vector3d operator()(const aiVector3D& v) const {
    const double x = double(v.x) * scale;
    const double y = (is_y_up ? -double(v.z) : double(v.y)) * scale;
    const double z = (is_y_up ? double(v.y) : double(v.z)) * scale;
    return at + Vector3d{x * turn.cosine - y * turn.sine, x * turn.sine + y * turn.cosine, z};
  }
};

bool is_in_bounds(const Vector3d& p) {
  return p.allFinite() && p.cwiseAbs().maxCoeff() <= LevelLimits::coordinate;
}

/// Opens the file of a mesh, whose bytes have been read, and for glTF also the files that it names.
/// For OBJ those files describe materials, and are not opened. The importer gets bytes and no
/// names, because another file may get a name at any time.
class MeshFiles : public Assimp::DefaultIOSystem {
 public:
  /// The bytes must outlive the importer.
  MeshFiles(const std::filesystem::path& file, const std::string& bytes)
      : file_(file), bytes_(bytes), is_alone_(ending_of(file.string()) == ".obj") {}

  bool Exists(const char* file) const override {
    return file_ == file || (!is_alone_ && read(file).fault.empty());
  }

  Assimp::IOStream* Open(const char* file, const char*) override {
    if (file_ == file) return stream_of(bytes_, false);
    if (is_alone_) return nullptr;
    const FileText named = read(file);
    return named.fault.empty() ? stream_of(named.bytes, true) : nullptr;
  }

 private:
  static FileText read(const char* file) { return read_regular_file(file, ReadLimits::file_bytes); }
  // A stream deletes the bytes that it owns.
  static Assimp::IOStream* stream_of(const std::string& bytes, bool owns) {
    const auto* first = reinterpret_cast<const std::uint8_t*>(bytes.data());
    if (!owns) return new Assimp::MemoryIOStream(first, bytes.size(), false);
    auto* copy = new std::uint8_t[bytes.size()];
    std::copy_n(first, bytes.size(), copy);
    return new Assimp::MemoryIOStream(copy, bytes.size(), true);
  }

  std::filesystem::path file_;
  const std::string& bytes_;
  bool is_alone_;
};

/// Brackets within brackets, outside of strings, as deep as they come.
std::size_t depth_of_brackets(std::string_view json) {
  std::size_t depth = 0;
  std::size_t most = 0;
  bool is_text = false;
  for (std::size_t i = 0; i < json.size(); ++i) {
    if (is_text && json[i] == '\\') {
      ++i;
    } else if (json[i] == '"') {
      is_text = !is_text;
    } else if (!is_text && (json[i] == '[' || json[i] == '{')) {
      most = std::max(most, ++depth);
    } else if (!is_text && (json[i] == ']' || json[i] == '}') && depth > 0) {
      --depth;
    }
  }
  return most;
}

// How deep nodes lie in each other; more than a limit if they do so in a ring.
std::size_t depth_of_nodes(const nlohmann::json& gltf, std::size_t limit) {
  const auto nodes = gltf.is_object() ? gltf.find("nodes") : gltf.end();
  if (!gltf.is_object() || nodes == gltf.end() || !nodes->is_array()) return 0;
  std::vector<std::size_t> depth(nodes->size(), 1);
  for (std::size_t round = 0; round <= limit; ++round) {
    bool has_changed = false;
    for (std::size_t i = 0; i < nodes->size(); ++i) {
      const auto& node = (*nodes)[i];
      if (!node.is_object() || !node.contains("children")) continue;
      for (const auto& child : node["children"]) {
        if (!child.is_number_unsigned() || child.get<std::size_t>() >= depth.size()) continue;
        std::size_t& its = depth[child.get<std::size_t>()];
        if (its > depth[i]) continue;
        its = depth[i] + 1;
        if (its > limit) return its;
        has_changed = true;
      }
    }
    if (!has_changed) break;
  }
  return depth.empty() ? 0 : *std::max_element(depth.begin(), depth.end());
}

/// The part of a glTF file that is JSON: all of it, or the first chunk of a binary one.
std::string_view json_of(std::string_view bytes) {
  constexpr std::size_t kHead = 20;  // bytes: of the file and of its first chunk
  if (!bytes.starts_with("glTF") || bytes.size() < kHead) return bytes;
  std::uint32_t length = 0;
  for (std::size_t i = 0; i < 4; ++i) {
    length |= std::uint32_t{static_cast<unsigned char>(bytes[12 + i])} << (8 * i);
  }
  return bytes.substr(kHead, length);
}

// The library that reads it goes as deep as the file does.
std::string too_deep(std::string_view bytes) {
  constexpr std::size_t kDeepest = 200;
  const std::string_view json = json_of(bytes);
  if (depth_of_brackets(json) > kDeepest) {
    return fmt::format("has brackets in each other more than {} deep; so deep is read", kDeepest);
  }
  const auto gltf = nlohmann::json::parse(json, nullptr, false);
  if (depth_of_nodes(gltf, kDeepest) > kDeepest) {
    return fmt::format("has nodes in each other more than {} deep; so deep is read", kDeepest);
  }
  return "";
}

/// Reads one file into a solid. @return What is wrong with it; empty if nothing is.
std::string import(const std::filesystem::path& file, const Placing& placing, Solid& solid) {
  const FileText read = read_regular_file(file, ReadLimits::file_bytes);
  if (!read.fault.empty()) return read.fault;
  if (ending_of(file.string()) != ".obj") {
    if (const std::string deep = too_deep(read.bytes); !deep.empty()) return deep;
  }
  Assimp::Importer importer;
  importer.SetIOHandler(new MeshFiles(file, read.bytes));  // which it owns from here on
  // Nodes are put where they belong, and what has more corners is cut into triangles.
  const aiScene* scene =
      importer.ReadFile(file.string(), aiProcess_Triangulate | aiProcess_PreTransformVertices);
  if (scene == nullptr) return fmt::format("is no mesh: {}", importer.GetErrorString());
  for (unsigned m = 0; m < scene->mNumMeshes; ++m) {
    const aiMesh& mesh = *scene->mMeshes[m];
    for (unsigned f = 0; f < mesh.mNumFaces; ++f) {
      const aiFace& face = mesh.mFaces[f];
      if (face.mNumIndices != 3) continue;  // points and lines
      Triangle triangle;
      for (unsigned i = 0; i < 3; ++i) triangle[i] = placing(mesh.mVertices[face.mIndices[i]]);
      if (!std::all_of(triangle.begin(), triangle.end(), is_in_bounds)) {
        return fmt::format("has a corner that is not a number, or farther than {} m out",
                           LevelLimits::coordinate);
      }
      if (area_of(triangle) <= kLeastArea) {
        ++solid.left_out;
        continue;
      }
      solid.triangles.push_back(triangle);
      if (solid.triangles.size() > LevelLimits::triangles) {
        return fmt::format("has more than {} triangles; so many are read", LevelLimits::triangles);
      }
    }
  }
  if (!solid.triangles.empty()) return "";
  return solid.left_out > 0 ? "holds no triangle with an area" : "holds no triangles";
}

Placing read_placing(TableReader& reader, const std::string& ending) {
  Placing placing;
  if (const Node* at = reader.find("at")) {
    const auto p = reader.numbers(*at, reader.path_of("at"), 3, kCoordinate);
    if (p) placing.at = {(*p)[0], (*p)[1], (*p)[2]};
  }
  placing.turn = sine_cosine(Angle::from_degrees(reader.number("turn").value_or(0.0)));
  placing.scale = reader.number("scale").value_or(1.0);
  // glTF says which way is up; OBJ does not, and is taken as levels are.
  const bool usual = ending != ".obj";
  placing.is_y_up = reader.known_word("up").value_or(usual ? 1 : 0) == 1;
  return placing;
}

}  // namespace

std::optional<Solid> read_mesh(ReadContext& context, const Node& table, const Names& names,
                               Plane plane) {
  const Node* id = table.find("id");
  const bool is_named = id != nullptr && id->type == Node::Type::text;
  TableReader reader(context, table, is_named ? "mesh." + id->text : "mesh", kMeshKeys);
  if (plane == Plane::upright) {
    reader.fault(table.place, "[[mesh]] belongs in ground and space levels");
    return std::nullopt;
  }
  Solid solid;
  solid.form = Solid::Form::mesh;
  solid.place = table.place;
  solid.id = reader.needed_name("id");
  solid.material = reader.reference("material", names.materials, "material");
  const Node* file = reader.need("file", "the name of an .obj, .gltf or .glb file");
  const std::string name = reader.text("file", "");
  const std::string ending = ending_of(name);
  const Placing placing = read_placing(reader, ending);
  reader.finish();
  if (file == nullptr || file->type != Node::Type::text) return std::nullopt;
  if (ending != ".obj" && ending != ".gltf" && ending != ".glb") {
    reader.fault(file->place, fmt::format("{} is '{}'; .obj, .gltf and .glb files are read",
                                          reader.path_of("file"), name));
    return std::nullopt;
  }
  const auto path = std::filesystem::path(file->place.file).parent_path() / name;
  std::string wrong;
  try {
    wrong = import(path, placing, solid);
  } catch (const std::exception& error) {
    wrong = fmt::format("is no mesh: {}", error.what());
  }
  if (wrong.empty()) return solid;
  std::replace(wrong.begin(), wrong.end(), '\n', ' ');
  reader.fault(file->place, fmt::format("{}: {} {}", reader.path_of("file"), name, wrong));
  return std::nullopt;
}

}  // namespace gaze
