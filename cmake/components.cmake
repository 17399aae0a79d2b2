# The library comes in components, so that a program ships only what it uses. The core plays and asks; the others read
# files, study whole runs, and draw. `gaze::gaze` is all of them.

# gaze_component(NAME FOLDERS folder... HEADERS header... [USES component...] [NEEDS library...] [PRIVATE target...]
#                [TOGETHER "folder folder..."...] [QUICKLY folder...])
# The folders are those of src/. NEEDS are libraries that pkg-config knows, and that programs need which link the
# component statically; PRIVATE is needed to build it alone. TOGETHER and QUICKLY go to gaze_compile_together. What it
# uses and needs is kept for the rules to install.
function(gaze_component name)
  cmake_parse_arguments(ARG "" "" "FOLDERS;HEADERS;USES;NEEDS;PRIVATE;TOGETHER;QUICKLY" ${ARGN})
  list(TRANSFORM ARG_FOLDERS REPLACE "(.+)" "${PROJECT_SOURCE_DIR}/src/\\1/*.cpp" OUTPUT_VARIABLE patterns)
  file(GLOB sources CONFIGURE_DEPENDS ${patterns})
  set(target gaze_${name})
  add_library(${target} ${sources})
  add_library(gaze::${name} ALIAS ${target})
  set_target_properties(${target} PROPERTIES EXPORT_NAME ${name} POSITION_INDEPENDENT_CODE ON
    VERSION ${PROJECT_VERSION} SOVERSION ${PROJECT_VERSION_MAJOR}.${PROJECT_VERSION_MINOR}
    CXX_VISIBILITY_PRESET hidden VISIBILITY_INLINES_HIDDEN ON)
  target_compile_features(${target} PUBLIC cxx_std_20)
  target_include_directories(${target} PRIVATE ${PROJECT_SOURCE_DIR}/src)
  target_link_libraries(${target} PRIVATE fmt::fmt ${ARG_PRIVATE})
  foreach(library ${ARG_NEEDS})
    find_package(PkgConfig REQUIRED)
    pkg_check_modules(${library} REQUIRED IMPORTED_TARGET ${library})
    target_link_libraries(${target} PRIVATE PkgConfig::${library})
  endforeach()
  set(GAZE_NEEDS_${name} "${ARG_NEEDS}" PARENT_SCOPE)
  set(GAZE_USES_${name} "${ARG_USES}" PARENT_SCOPE)
  foreach(used ${ARG_USES})
    target_link_libraries(${target} PUBLIC gaze_${used})
  endforeach()
  target_sources(${target} PUBLIC FILE_SET HEADERS BASE_DIRS ${PROJECT_SOURCE_DIR}/include FILES ${ARG_HEADERS})
  gaze_read_once(${target} <Eigen/Core> <algorithm> <fmt/format.h> <map> <memory> <optional> <span> <string> <vector>)
  gaze_same_bits_everywhere(${target})
  gaze_compile_together(${target} ${ARG_TOGETHER} QUICKLY ${ARG_QUICKLY})
  if(NOT name STREQUAL core)
    if(NOT name STREQUAL studies)
      gaze_build_quickly(${target})
    endif()
    gaze_use_inside(${target})
  endif()
  if(GAZE_DEVELOPER)
    gaze_strict_warnings(${target})
    set_target_properties(${target} PROPERTIES VERIFY_INTERFACE_HEADER_SETS ON)
  endif()
endfunction()

# What the other components use of the core beside its public face. Of a shared core nothing else can be found from
# outside: they bring their own copy, which works because the core keeps nothing of its own between two calls.
function(gaze_share_inside)
  if(BUILD_SHARED_LIBS)
    add_library(gaze_inside STATIC $<TARGET_OBJECTS:gaze_core>)
    target_link_libraries(gaze_inside PRIVATE fmt::fmt)
  else()
    add_library(gaze_inside INTERFACE)
  endif()
endfunction()

function(gaze_use_inside target)
  target_link_libraries(${target} PRIVATE $<BUILD_INTERFACE:gaze_inside>)
  if(BUILD_SHARED_LIBS)
    target_link_options(${target} PRIVATE LINKER:--exclude-libs,libgaze_inside.a)
  endif()
endfunction()
