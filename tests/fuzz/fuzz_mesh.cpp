// Any bytes as a mesh beside a level: read or refused. The first byte says of which sort it is.

#include <unistd.h>

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <string>

#include "gaze/gaze.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  namespace fs = std::filesystem;
  if (size == 0) return 0;
  const char* endings[] = {".obj", ".gltf", ".glb"};
  const std::string name = std::string("mesh") + endings[data[0] % 3];
  const fs::path folder = fs::temp_directory_path() / ("gaze-fuzz-" + std::to_string(getpid()));
  fs::create_directories(folder);
  std::ofstream(folder / name, std::ios::binary)
      .write(reinterpret_cast<const char*>(data + 1), static_cast<std::streamsize>(size - 1));
  try {
    const gaze::Level level = gaze::read_level_text(
        "[[mesh]]\nid = \"m\"\nmaterial = \"brick\"\nfile = \"" + name +
            "\"\n[kind.pot]\n[[agent]]\nid = \"pot\"\nkind = \"pot\"\nat = [0, 0]\n",
        (folder / "level.toml").string());
    gaze::Simulation simulation(level);
    for (int i = 0; i < 5; ++i) simulation.step();
  } catch (const gaze::LevelError&) {
    // Refused, and told why.
  }
  return 0;
}
