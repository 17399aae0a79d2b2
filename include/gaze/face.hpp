#pragma once

/// Marks the namespace in public headers: a shared library offers these names and no others.
#define GAZE_FACE [[gnu::visibility("default")]]
