# The page that `gaze play` serves and `gaze replay` writes, and its server: for the command alone.
find_package(Boost 1.74 REQUIRED)
find_package(Threads REQUIRED)
find_package(nlohmann_json REQUIRED)

# The files of the page become a part of the library. They are written when CMake runs: sources of a target wait for its
# custom commands, and the largest unit would be compiled last.
file(GLOB GAZE_PAGE CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/page/*.html ${PROJECT_SOURCE_DIR}/page/*.css
     ${PROJECT_SOURCE_DIR}/page/*.js)
include(cmake/embed.cmake)
set(GAZE_PAGE_SOURCE ${PROJECT_BINARY_DIR}/page_files.cpp)
gaze_embed(${GAZE_PAGE_SOURCE} ${GAZE_PAGE})
set_property(DIRECTORY APPEND PROPERTY CMAKE_CONFIGURE_DEPENDS ${GAZE_PAGE})

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
target_sources(gaze_page PRIVATE ${GAZE_PAGE_SOURCE})
if(BUILD_SHARED_LIBS)  # how files are read is no part of what the shared library of files offers
  target_sources(gaze_page PRIVATE ${PROJECT_SOURCE_DIR}/src/file/regular_file.cpp)
endif()

add_library(gaze_serve STATIC ${GAZE_SERVER_SOURCES})
gaze_serve_target(gaze_serve)
target_link_libraries(gaze_serve PUBLIC gaze_page PRIVATE Boost::headers)
