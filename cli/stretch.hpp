#pragma once

#include <string>
#include <vector>

#include "gaze/chart.hpp"
#include "gaze/watch.hpp"

/// What `gaze why` makes of a stretch of time.
namespace gaze::cli {

[[nodiscard]] std::string table(const std::vector<WatchRow>& rows);
[[nodiscard]] std::string table_json(const std::vector<WatchRow>& rows);
[[nodiscard]] Chart chart_of(const std::vector<WatchRow>& rows, const std::string& title);

}  // namespace gaze::cli
