#pragma once

/// Public headers put their declarations between these two macros. A shared library exports these
/// names and no others. The macros are pragmas, because clang ignores the visibility of a namespace
/// where it is opened again.
#define GAZE_PUBLIC_BEGIN _Pragma("GCC visibility push(default)")
#define GAZE_PUBLIC_END _Pragma("GCC visibility pop")
