# The page that `gaze play` serves: for the command alone.
find_package(Boost 1.74 REQUIRED)
find_package(Threads REQUIRED)

# The files of the page become a part of the library.
file(GLOB GAZE_PAGE CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/page/*.html ${PROJECT_SOURCE_DIR}/page/*.css
     ${PROJECT_SOURCE_DIR}/page/*.js)
set(GAZE_PAGE_SOURCE ${PROJECT_BINARY_DIR}/page_files.cpp)
add_custom_command(OUTPUT ${GAZE_PAGE_SOURCE}
  COMMAND ${CMAKE_COMMAND} "-DFILES=${GAZE_PAGE}" -DOUTPUT=${GAZE_PAGE_SOURCE} -P ${PROJECT_SOURCE_DIR}/cmake/embed.cmake
  DEPENDS ${GAZE_PAGE} ${PROJECT_SOURCE_DIR}/cmake/embed.cmake VERBATIM)

file(GLOB GAZE_SERVE CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/src/serve/*.cpp)
add_library(gaze_serve STATIC ${GAZE_SERVE} ${GAZE_PAGE_SOURCE})
target_include_directories(gaze_serve PUBLIC ${PROJECT_SOURCE_DIR}/src)
target_link_libraries(gaze_serve PUBLIC gaze::gaze Threads::Threads
                      PRIVATE gaze_inside Boost::headers fmt::fmt nlohmann_json::nlohmann_json)
gaze_same_bits_everywhere(gaze_serve)
gaze_build_quickly(gaze_serve)
gaze_compile_by_folder(gaze_serve 12)
gaze_read_once(gaze_serve)
set_source_files_properties(${PROJECT_SOURCE_DIR}/src/serve/server.cpp ${GAZE_PAGE_SOURCE}
                            PROPERTIES SKIP_UNITY_BUILD_INCLUSION ON)
if(GAZE_DEVELOPER)
  gaze_strict_warnings(gaze_serve)
endif()
