# The page that `gaze play` serves and `gaze replay` writes, and its server: for the command alone.
find_package(Boost 1.74 REQUIRED)
find_package(Threads REQUIRED)
find_package(nlohmann_json REQUIRED)

# The files of the page become a part of the library.
file(GLOB GAZE_PAGE CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/page/*.html ${PROJECT_SOURCE_DIR}/page/*.css
     ${PROJECT_SOURCE_DIR}/page/*.js)
set(GAZE_PAGE_SOURCE ${PROJECT_BINARY_DIR}/page_files.cpp)
add_custom_command(OUTPUT ${GAZE_PAGE_SOURCE}
  COMMAND ${CMAKE_COMMAND} "-DFILES=${GAZE_PAGE}" -DOUTPUT=${GAZE_PAGE_SOURCE} -P ${PROJECT_SOURCE_DIR}/cmake/embed.cmake
  DEPENDS ${GAZE_PAGE} ${PROJECT_SOURCE_DIR}/cmake/embed.cmake VERBATIM)

# A target of its own: a generated source waits for all libraries of its target, and all sources of the target for it.
add_library(gaze_page_files OBJECT ${GAZE_PAGE_SOURCE})
target_include_directories(gaze_page_files PRIVATE ${PROJECT_SOURCE_DIR}/src)
target_compile_features(gaze_page_files PRIVATE cxx_std_20)

# gaze_serve_target(TARGET)
function(gaze_serve_target target)
  target_include_directories(${target} PUBLIC ${PROJECT_SOURCE_DIR}/src)
  target_link_libraries(${target} PUBLIC gaze::gaze Threads::Threads PRIVATE gaze_inside fmt::fmt)
  gaze_same_bits_everywhere(${target})
  gaze_build_quickly(${target})
  gaze_compile_together(${target})
  gaze_read_once(${target} <algorithm> <fmt/format.h> <map> <memory> <optional> <span> <string> <vector>)
  if(GAZE_DEVELOPER)
    gaze_strict_warnings(${target})
  endif()
endfunction()

# The session behind a page, and replays. It knows no sockets.
file(GLOB GAZE_SERVE CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/src/serve/*.cpp)
set(GAZE_SERVER_SOURCES ${PROJECT_SOURCE_DIR}/src/serve/admission.cpp ${PROJECT_SOURCE_DIR}/src/serve/server.cpp)
list(REMOVE_ITEM GAZE_SERVE ${GAZE_SERVER_SOURCES})
add_library(gaze_page STATIC ${GAZE_SERVE})
gaze_serve_target(gaze_page)
target_link_libraries(gaze_page PRIVATE Boost::headers nlohmann_json::nlohmann_json)
target_sources(gaze_page PRIVATE $<TARGET_OBJECTS:gaze_page_files>)

add_library(gaze_serve STATIC ${GAZE_SERVER_SOURCES})
gaze_serve_target(gaze_serve)
target_link_libraries(gaze_serve PUBLIC gaze_page PRIVATE Boost::headers)
