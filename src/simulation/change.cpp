#include "simulation/change.hpp"

#include <atomic>

#include "simulation/make_fixed.hpp"

namespace gaze {
namespace {

// The game's own account, made for it alone and shared with nobody.
Fixed& own(std::unique_ptr<Simulation::State>& state) {
  const bool is_own = state->fixed.is_changed && state->shared.use_count() == 1;
  // Whoever shared it before, on whatever thread, has done with it.
  std::atomic_thread_fence(std::memory_order_acquire);
  if (!is_own) {
    go_on_with(state, std::make_shared<Level>(state->level()), state->fixed.written,
               state->fixed.pools);
  }
  return const_cast<Fixed&>(state->fixed);
}

}  // namespace

void need_no_fault(const std::vector<Fault>& faults) {
  if (!faults.empty()) throw UsageError(faults.front().message);
}

Changing::Changing(std::unique_ptr<Simulation::State>& state)
    : fixed(own(state)), level(const_cast<Level&>(*fixed.level)) {}

void go_on_with(std::unique_ptr<Simulation::State>& state, std::shared_ptr<const Level> level,
                std::shared_ptr<const std::vector<Kind>> written, std::vector<Pool> pools) {
  auto fixed = changed(*state->begun, std::move(level));
  fixed->written = std::move(written);
  fixed->pools = std::move(pools);
  fixed->generation = state->fixed.generation;
  fixed->vacancy = state->fixed.vacancy;
  state = std::make_unique<Simulation::State>(std::move(*state), std::move(fixed));
}

}  // namespace gaze
