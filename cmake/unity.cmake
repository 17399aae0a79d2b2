# Where CMAKE_UNITY_BUILD is on, files of one folder are compiled together, a few at a time: what
# they all include is read once. Folders stay apart, and a file on its own compiles too: `check` holds that.
# `most` of them at once.
function(gaze_compile_by_folder target most)
  get_target_property(sources ${target} SOURCES)
  set_target_properties(${target} PROPERTIES UNITY_BUILD_MODE GROUP)
  set(in_group 0)
  set(last_folder "")
  set(number 0)
  foreach(source ${sources})
    get_filename_component(folder ${source} DIRECTORY)
    get_filename_component(folder "${folder}" NAME)
    if(NOT folder STREQUAL last_folder OR in_group EQUAL most)
      math(EXPR number "${number} + 1")
      set(in_group 0)
      set(last_folder "${folder}")
    endif()
    math(EXPR in_group "${in_group} + 1")
    set_source_files_properties(${source} PROPERTIES UNITY_GROUP "${folder}_${number}")
  endforeach()
endfunction()

# What runs once a call need not be built for speed, which takes twice as long.
function(gaze_build_quickly target)
  target_compile_options(${target} PRIVATE $<$<CONFIG:Release>:-O1>)
endfunction()

# Where files are compiled one by one, what they all include is read once for all of them.
function(gaze_read_once target)
  if(NOT CMAKE_UNITY_BUILD)
    target_precompile_headers(${target} PRIVATE
      <Eigen/Core> <algorithm> <fmt/format.h> <map> <memory> <nlohmann/json.hpp> <optional> <span> <string> <vector>)
  endif()
endfunction()
