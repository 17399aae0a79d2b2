# Pictures, plots and reports.
find_package(nlohmann_json REQUIRED)

set(headers picture report chart tools)
list(TRANSFORM headers REPLACE "(.+)" "${PROJECT_SOURCE_DIR}/include/gaze/tools/\\1.hpp")
gaze_component(pictures FOLDERS show USES studies HEADERS ${headers} NEEDS cairo pugixml
               PRIVATE $<BUILD_INTERFACE:nlohmann_json::nlohmann_json>)
