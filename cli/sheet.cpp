#include <optional>
#include <ostream>

#include "gaze/tools/report.hpp"
#include "output.hpp"
#include "play.hpp"
#include "study.hpp"

namespace gaze::cli {

int sheet(const SheetOptions& options, const Streams& streams) {
  std::optional<OutputFile> table;
  if (!options.csv.empty()) table.emplace(options.csv);
  Studying studying(streams, "pairs of kinds");
  const auto rows = balance_sheet(read(options.level), studying.options());
  if (table) {
    table->write(sheet_csv(rows));
    table->finish();
  }
  streams.out << (options.json ? sheet_json(rows) : sheet_text(rows));
  return studying.was_ended() ? ended_early : done;
}

}  // namespace gaze::cli
