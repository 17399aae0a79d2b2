# Warnings that the project's own code must not give.
function(gaze_strict_warnings target)
  target_compile_options(${target} PRIVATE -Wall -Wextra -Wpedantic -Wconversion -Wshadow)
  # What sanitizers add to the code makes gcc 12 see overflows that are not there.
  if(NOT CMAKE_CXX_FLAGS MATCHES "-fsanitize")
    target_compile_options(${target} PRIVATE -Werror)
  endif()
endfunction()

# What makes results must give the same bits on every compiler, machine and optimisation level.
function(gaze_same_bits_everywhere target)
  target_compile_options(${target} PRIVATE -ffp-contract=off -fno-fast-math)
endfunction()
