#pragma once

#include "simulation/archive_combat.hpp"
#include "simulation/archive_told.hpp"
#include "simulation/archive_travel.hpp"
