#pragma once

// What tools need beside play: findings, studies, pictures and reports; each header also stands
// alone.
#include "gaze/tools/attack_reach.hpp"
#include "gaze/tools/chart.hpp"
#include "gaze/tools/compare.hpp"
#include "gaze/tools/cover.hpp"
#include "gaze/tools/differences.hpp"
#include "gaze/tools/duel.hpp"
#include "gaze/tools/expect.hpp"
#include "gaze/tools/figures.hpp"
#include "gaze/tools/finding.hpp"
#include "gaze/tools/level_keys.hpp"
#include "gaze/tools/picture.hpp"
#include "gaze/tools/report.hpp"
#include "gaze/tools/sheet.hpp"
#include "gaze/tools/sneak.hpp"
#include "gaze/tools/spots.hpp"
#include "gaze/tools/study.hpp"
#include "gaze/tools/trace.hpp"
#include "gaze/tools/vary.hpp"
#include "gaze/tools/watch.hpp"
#include "gaze/tools/with_value.hpp"
