#include "serve/checker.hpp"

#include <utility>

namespace gaze::serve {

Checker::Checker() : thread_([this] { run(); }) {}

Checker::~Checker() {
  {
    const std::scoped_lock lock(mutex_);
    wanted_ = -1;
  }
  comes_.notify_one();
  thread_.join();
}

void Checker::check(Level level, LevelSource source) {
  {
    const std::scoped_lock lock(mutex_);
    next_ = Job{std::move(level), std::move(source), ++wanted_};
    checked_ = {};
    ++revision_;
  }
  comes_.notify_one();
}

Checked Checker::checked() const {
  const std::scoped_lock lock(mutex_);
  return checked_;
}

void Checker::run() {
  while (true) {
    std::optional<Job> job;
    {
      std::unique_lock lock(mutex_);
      comes_.wait(lock, [this] { return next_ || wanted_ < 0; });
      if (wanted_ < 0) return;
      job = std::exchange(next_, std::nullopt);
    }
    work(*job);
  }
}

// What has been found of a level that is no longer played is of no use.
void Checker::tell(const Job& job, Checked checked) {
  const std::scoped_lock lock(mutex_);
  if (!is_current(job)) return;
  checked_ = std::move(checked);
  ++revision_;
}

// A level whose file has just been broken fails here too; the session tells of that.
void Checker::work(const Job& job) {
  Checked checked;
  try {
    checked.findings = judge(job.level, [&] { return is_current(job); });
    tell(job, checked);
    if (is_current(job) && !job.level.expectations.empty()) {
      StudyOptions options;
      options.threads = 1;  // the other cores are for the play
      options.goes_on = [&](std::size_t, std::size_t) { return is_current(job); };
      checked.expectations = expect(job.source, {}, options);
    }
  } catch (const std::exception&) {
    checked.expectations.clear();
  }
  checked.is_done = true;
  tell(job, std::move(checked));
}

}  // namespace gaze::serve
