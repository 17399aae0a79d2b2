# Unity builds: if CMAKE_UNITY_BUILD is on, several sources are compiled as one unit. The compiler then reads each header
# and instantiates each template once per unit. Each source also compiles alone: the preset "file-by-file" tests that.

# Optimisation of code that runs once a call. It compiles in half the time of -O3.
set(GAZE_QUICKLY $<$<CONFIG:Release>:-O1> CACHE STRING "Optimisation of code that runs once a call")

# gaze_compile_together(TARGET ["folder folder..."...] [QUICKLY folder...]): the files of each set of folders are one
# unit, and those of every other folder are one. Sets are compiled in this order, other folders after them: the largest
# come first, so that no core waits for another at the end. A unit of QUICKLY folders is compiled with GAZE_QUICKLY.
function(gaze_compile_together target)
  cmake_parse_arguments(ARG "" "" "QUICKLY" ${ARGN})
  get_target_property(sources ${target} SOURCES)
  set(compiled "")
  set(sets ${ARG_UNPARSED_ARGUMENTS})
  while(sources)
    list(POP_FRONT sets set)
    if(NOT set)
      list(GET sources 0 source)
      gaze_folder_of(${source} set)
    endif()
    string(REPLACE " " ";" folders ${set})
    set(unit "")
    foreach(source ${sources})
      gaze_folder_of(${source} folder)
      if(folder IN_LIST folders)
        list(APPEND unit ${source})
      endif()
    endforeach()
    list(REMOVE_ITEM sources ${unit})
    if(CMAKE_UNITY_BUILD)
      gaze_make_unit(${target} unit ${unit})
    endif()
    list(GET folders 0 first)
    if(first IN_LIST ARG_QUICKLY)
      set_source_files_properties(${unit} PROPERTIES COMPILE_OPTIONS "${GAZE_QUICKLY}")
    endif()
    list(APPEND compiled ${unit})
  endwhile()
  set_target_properties(${target} PROPERTIES SOURCES "${compiled}" UNITY_BUILD OFF)
endfunction()

# The folder that a source lies in, without those above it.
function(gaze_folder_of source result)
  get_filename_component(path ${source} ABSOLUTE)
  get_filename_component(path ${path} DIRECTORY)
  get_filename_component(name ${path} NAME)
  set(${result} ${name} PARENT_SCOPE)
endfunction()

# gaze_make_unit(TARGET RESULT SOURCE...): writes a file that includes all sources, unless it exists unchanged.
function(gaze_make_unit target result)
  list(GET ARGN 0 first)
  gaze_folder_of(${first} folder)
  set(text "")
  foreach(source ${ARGN})
    get_filename_component(path ${source} ABSOLUTE)
    string(APPEND text "#include \"${path}\"\n")
  endforeach()
  set(unit ${PROJECT_BINARY_DIR}/unity/${target}_${folder}.cpp)
  file(CONFIGURE OUTPUT ${unit} CONTENT "${text}" @ONLY)
  set(${result} ${unit} PARENT_SCOPE)
endfunction()

# The same for a whole target.
function(gaze_build_quickly target)
  target_compile_options(${target} PRIVATE ${GAZE_QUICKLY})
endfunction()

# Precompiles headers where sources are compiled one by one. In unity builds that takes longer than it saves.
function(gaze_read_once target)
  if(NOT CMAKE_UNITY_BUILD)
    target_precompile_headers(${target} PRIVATE ${ARGN})
  endif()
endfunction()
