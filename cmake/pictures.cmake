# Pictures, plots and reports.
find_package(nlohmann_json REQUIRED)
find_package(PkgConfig REQUIRED)
pkg_check_modules(CAIRO REQUIRED IMPORTED_TARGET cairo)

set(headers picture report chart tools)
list(TRANSFORM headers REPLACE "(.+)" "${PROJECT_SOURCE_DIR}/include/gaze/tools/\\1.hpp")
gaze_component(pictures FOLDERS show USES studies HEADERS ${headers}
  PRIVATE $<BUILD_INTERFACE:nlohmann_json::nlohmann_json> PkgConfig::CAIRO)
