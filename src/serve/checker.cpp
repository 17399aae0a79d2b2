#include "serve/checker.hpp"

#include <utility>

namespace gaze::serve {

void Checker::check(Level level, LevelSource source) {
  stop();
  tell({});
  ends_ = false;
  thread_ = std::thread(
      [this, level = std::move(level), source = std::move(source)] { work(level, source); });
}

void Checker::stop() {
  ends_ = true;
  if (thread_.joinable()) thread_.join();
}

Checked Checker::checked() const {
  const std::scoped_lock lock(mutex_);
  return checked_;
}

void Checker::tell(Checked checked) {
  const std::scoped_lock lock(mutex_);
  checked_ = std::move(checked);
  ++revision_;
}

// A level whose file has just been broken fails here too; the session tells of that.
void Checker::work(const Level& level, const LevelSource& source) {
  Checked checked;
  try {
    checked.findings = judge(level);
    if (ends_) return;
    tell(checked);
    if (!level.expectations.empty()) {
      StudyOptions options;
      options.threads = 1;  // the other cores are for the play
      options.goes_on = [this](std::size_t, std::size_t) { return !ends_.load(); };
      checked.expectations = expect(source, {}, options);
    }
  } catch (const std::exception&) {
    checked.expectations.clear();
  }
  if (ends_) return;
  checked.is_done = true;
  tell(std::move(checked));
}

}  // namespace gaze::serve
