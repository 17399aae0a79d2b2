#pragma once

/// The version of Gaze; 0.2.0 may differ from 0.1.0 in all that it says and does.
#define GAZE_VERSION_MAJOR 0
#define GAZE_VERSION_MINOR 1
#define GAZE_VERSION_PATCH 0
