# Findings about levels, and questions about whole runs.
set(headers finding watch cover duel attack_reach spots figures study expect vary compare sheet sneak)
list(TRANSFORM headers REPLACE "(.+)" "${PROJECT_SOURCE_DIR}/include/gaze/tools/\\1.hpp")
gaze_component(studies FOLDERS study judge USES core HEADERS ${headers} NEEDS polyclipping tbb
               TOGETHER "study judge")

# Not GAZE_QUICKLY: without any optimisation a search for a path takes ten times as long under sanitizers.
target_compile_options(gaze_studies PRIVATE $<$<CONFIG:Release>:-O1>)
