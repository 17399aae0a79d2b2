#pragma once

// Everything that Gaze offers; each header also stands alone.
#include "gaze/event.hpp"
#include "gaze/finding.hpp"
#include "gaze/geometry.hpp"
#include "gaze/level.hpp"
#include "gaze/level_file.hpp"
#include "gaze/picture.hpp"
#include "gaze/report.hpp"
#include "gaze/seen_area.hpp"
#include "gaze/sight.hpp"
#include "gaze/simulation.hpp"
#include "gaze/time.hpp"
#include "gaze/trace.hpp"
#include "gaze/world.hpp"
