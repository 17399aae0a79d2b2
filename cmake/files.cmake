# Level files, triangle meshes and traces.
find_package(nlohmann_json REQUIRED)
find_package(PkgConfig REQUIRED)
find_path(TOML_INCLUDE_DIR toml++/toml.h REQUIRED)
pkg_check_modules(ASSIMP REQUIRED IMPORTED_TARGET assimp)

gaze_component(files FOLDERS file USES core
  HEADERS ${PROJECT_SOURCE_DIR}/include/gaze/gaze.hpp ${PROJECT_SOURCE_DIR}/include/gaze/level_file.hpp
          ${PROJECT_SOURCE_DIR}/include/gaze/tools/level_keys.hpp
          ${PROJECT_SOURCE_DIR}/include/gaze/tools/trace.hpp
  PRIVATE $<BUILD_INTERFACE:nlohmann_json::nlohmann_json> PkgConfig::ASSIMP)
target_include_directories(gaze_files SYSTEM PRIVATE ${TOML_INCLUDE_DIR})
