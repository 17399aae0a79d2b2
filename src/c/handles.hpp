#pragma once

#include "gaze/drawing.hpp"
#include "gaze/gaze.h"
#include "gaze/level.hpp"
#include "gaze/prepared.hpp"
#include "gaze/simulation.hpp"

/// What is behind the handles of the C interface.
struct gaze_level {
  gaze::Level level;
};

struct gaze_prepared {
  gaze::Prepared prepared;
};

struct gaze_game {
  gaze::Simulation simulation;
};

struct gaze_drawing {
  std::vector<gaze::Mark> marks;
};
