# The C interface, as one shared library that brings all of Gaze that it uses: for C, and for whatever can load a
# library (Python's ctypes). It offers the names of gaze/gaze.h and no others.
file(GLOB sources CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/src/c/*.cpp)
add_library(gaze_c SHARED ${sources})
add_library(gaze::c ALIAS gaze_c)
set_target_properties(gaze_c PROPERTIES EXPORT_NAME c VERSION ${PROJECT_VERSION}
  SOVERSION ${PROJECT_VERSION_MAJOR}.${PROJECT_VERSION_MINOR} CXX_VISIBILITY_PRESET hidden VISIBILITY_INLINES_HIDDEN ON)
target_include_directories(gaze_c PRIVATE ${PROJECT_SOURCE_DIR}/src ${PROJECT_SOURCE_DIR}/include)
target_sources(gaze_c PUBLIC FILE_SET HEADERS BASE_DIRS ${PROJECT_SOURCE_DIR}/include
  FILES ${PROJECT_SOURCE_DIR}/include/gaze/gaze.h)
target_link_libraries(gaze_c PRIVATE gaze_core gaze_files fmt::fmt)
target_link_options(gaze_c PRIVATE LINKER:--exclude-libs,ALL)
gaze_same_bits_everywhere(gaze_c)
gaze_build_quickly(gaze_c)
gaze_compile_together(gaze_c)
if(GAZE_DEVELOPER)
  gaze_strict_warnings(gaze_c)
endif()
