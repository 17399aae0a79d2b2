# Level files, triangle meshes and traces.
find_package(nlohmann_json REQUIRED)
find_path(TOML_INCLUDE_DIR toml++/toml.h REQUIRED)

set(headers gaze level_file tools/level_keys tools/trace tools/differences tools/with_value)
list(TRANSFORM headers REPLACE "(.+)" "${PROJECT_SOURCE_DIR}/include/gaze/\\1.hpp")
gaze_component(files FOLDERS file USES core HEADERS ${headers} NEEDS assimp
               PRIVATE $<BUILD_INTERFACE:nlohmann_json::nlohmann_json>)
target_include_directories(gaze_files SYSTEM PRIVATE ${TOML_INCLUDE_DIR})

# Compiler options that count which code a text reaches, for scripts/fuzz. Code that does not read texts is compiled in
# three quarters of the time without them.
set(GAZE_GUIDED "" CACHE STRING "Compiler options of code whose coverage guides scripts/fuzz")
target_compile_options(gaze_files PRIVATE ${GAZE_GUIDED})
