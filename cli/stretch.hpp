#pragma once

#include <string>
#include <vector>

#include "gaze/tools/chart.hpp"
#include "gaze/tools/watch.hpp"

/// What `gaze why` makes of a stretch of time.
namespace gaze::cli {

[[nodiscard]] std::string table(const std::vector<WatchRow>& rows);
[[nodiscard]] std::string table_json(const std::vector<WatchRow>& rows);
/// Of a whole run: when it noticed the other, or what kept it from that.
[[nodiscard]] std::string overview_text(const Overview& all, const std::string& agent,
                                        const std::string& other, double notice_seconds);
[[nodiscard]] std::string overview_json(const Overview& all, const std::string& agent,
                                        const std::string& other);
[[nodiscard]] Chart chart_of(const std::vector<WatchRow>& rows, const std::string& title);

}  // namespace gaze::cli
