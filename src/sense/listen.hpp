#pragma once

#include "gaze/hearing.hpp"

namespace gaze {

/// `listen` into a verdict that is used again and again: it allocates no more once that has grown.
void listen_into(const World& world, const Level& level, const Listener& listener,
                 const Noise& noise, HearingVerdict& verdict);

}  // namespace gaze
