#pragma once

#include <string>
#include <string_view>

#include "gaze/public.hpp"
#include "gaze/setting.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// The text of a level file with one value set in it, by the path of a `--set`; comments, order and
/// layout stay as they are. A value that stands there is written over; another is put into the
/// table that it belongs to. The text then says what it said before but for that value, which is
/// made sure of. Throws LevelError if the text or the value is no TOML or the path leads nowhere in
/// this text, UsageError if the value has no place of its own: that of one of an agent's copies.
[[nodiscard]] std::string with_value(std::string_view text, const std::string& name,
                                     const Setting& setting);

}  // namespace gaze
GAZE_PUBLIC_END
