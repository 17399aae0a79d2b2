#pragma once

/// What stands between these two in public headers is what a shared library offers, and nothing
/// else. A pragma, because clang does not carry an attribute of a namespace over to definitions
/// elsewhere.
#define GAZE_PUBLIC_BEGIN _Pragma("GCC visibility push(default)")
#define GAZE_PUBLIC_END _Pragma("GCC visibility pop")
