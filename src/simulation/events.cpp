#include <fmt/format.h>

#include <algorithm>

#include "level/numbers.hpp"
#include "level/solid_name.hpp"
#include "simulation/stages.hpp"

namespace gaze {
namespace {

/// The words of an event, given the names that go into it.
struct Describer {
  const Level& level;
  const Event& event;

  std::string who() const { return level.agents[event.agent.index].id; }
  std::string other() const { return event.other ? level.agents[event.other->index].id : ""; }
  std::string blocked() const {
    if (!event.attack.empty()) return fmt::format("{} has no {} to throw", who(), event.attack);
    if (!event.other) return fmt::format("{} is blocked on its way to {}", who(), place());
    const auto& thing = level.kind_of(level.agents[event.other->index]).thing;
    if (!thing || event.distance <= thing->take_reach) {
      return fmt::format("{} cannot take {}: it does not lie there", who(), other());
    }
    return fmt::format("{} cannot take {}: it is {:.2f} m away, at most {:.2f}", who(), other(),
                       event.distance, thing->take_reach);
  }
  std::string place() const { return place_text(level.plane, event.place); }
  std::string what_was_hit() const {
    if (event.other) return other();
    return event.solid ? solid_name(level, event.solid->index) : "the ground";
  }

  std::string what_made_it() const {
    return event.other ? fmt::format("the {} of {}", event.noise, other())
                       : fmt::format("a {}", event.noise);
  }
  // Told only where not all axes of the plane count.
  std::string axes_text() const {
    const auto& nearness = level.kind_of(level.agents[event.agent.index]).nearness;
    std::string axes;
    for (std::size_t i = 0; i < 3 && nearness; ++i) {
      if ((*nearness->axes)[i]) axes += "xyz"[i];
    }
    const bool is_usual = axes == (level.plane == Plane::ground    ? "xy"
                                   : level.plane == Plane::upright ? "xz"
                                                                   : "xyz");
    return axes.empty() || is_usual ? "" : " along " + axes;
  }

  std::string noticed() const {
    const std::string teller =
        event.teller ? fmt::format(" ({})", level.agents[event.teller->index].id) : "";
    if (event.by == Sense::nearness) {
      return fmt::format("{} noticed {} by nearness, {:.2f} m away{}", who(), other(),
                         event.distance, axes_text());
    }
    const std::string_view by = event.by == Sense::told ? "being told" : name_of(event.by);
    return fmt::format("{} noticed {} by {}{}, {:.2f} m away, {:.1f} degrees off", who(), other(),
                       by, teller, event.distance, event.angle_deg);
  }

  // What the host takes away has no attack.
  std::string hurt() const {
    const std::string from =
        event.attack.empty() ? other() : fmt::format("{} of {}", event.attack, other());
    return fmt::format("{} lost {} health{}{}, {} left", who(), number_text(event.damage),
                       from.empty() ? "" : " to ", from, number_text(event.health));
  }

  std::string took() const {
    std::string text = fmt::format("{} took {}", who(), other());
    if (event.gained > 0.0) {
      text += fmt::format(", gained {} health, {} now", number_text(event.gained),
                          number_text(event.health));
    }
    if (!event.attack.empty()) text += fmt::format(", refilled {}", event.attack);
    return text;
  }

  std::string ending() const {
    if (event.team == kNoTeam) return fmt::format("{} was caught", other());
    return fmt::format("all {} are out", level.teams[event.team].name);
  }

  std::string text() const {
    switch (event.what) {
      case Event::What::arrived:
        return fmt::format("{} arrived at {}", who(), place());
      case Event::What::landed:
        return fmt::format("{} landed at {}, {:.2f} m down", who(), place(), event.distance);
      case Event::What::blocked:
        return blocked();
      case Event::What::left:
        return fmt::format("{} left the level at {}{}", who(), place(),
                           event.is_outside ? "" : " and is put back");
      case Event::What::took:
        return took();
      case Event::What::attacked:
        if (!event.other) return fmt::format("{} attacked with {}", who(), event.attack);
        return fmt::format("{} attacked {} with {} from {:.2f} m", who(), other(), event.attack,
                           event.distance);
      case Event::What::fired:
        return fmt::format("{} fired {} from {}", who(), event.attack, place());
      case Event::What::hit:
        return fmt::format("{} hit {} with {} at {}", who(), what_was_hit(), event.attack, place());
      case Event::What::spent:
        return fmt::format("a shot of {} by {} {} {}", event.attack, who(),
                           event.is_outside ? "left the level at" : "was spent at", place());
      case Event::What::broke:
        return fmt::format("{} broke {}", who(), level.solids[event.solid->index].id);
      case Event::What::blast:
        return fmt::format("the {} of {} burst at {}", event.attack, who(), place());
      case Event::What::hurt:
        return hurt();
      case Event::What::defeated:
        if (!event.other) return fmt::format("{} was defeated", who());
        if (event.score == 0.0) return fmt::format("{} was defeated by {}", who(), other());
        return fmt::format("{} was defeated by {}, for {} points", who(), other(),
                           number_text(event.score));
      case Event::What::caught:
        return fmt::format("{} caught {} with {}", who(), other(), event.attack);
      case Event::What::ended:
        return fmt::format("the round is over: {}{}", ending(),
                           level.round.resets ? "; all begin again" : "");
      case Event::What::triggered:
        return fmt::format("{} triggered {}", who(), level.zones[*event.zone].id);
      case Event::What::heard:
        return fmt::format("{} heard {}, {:.2f} m away at {}", who(), what_made_it(),
                           event.distance, place());
      case Event::What::noticed:
        return noticed();
      case Event::What::lost:
        return fmt::format("{} lost {}, last {} at {}", who(), other(),
                           event.by == Sense::sight ? "seen" : "perceived", place());
      case Event::What::forgot:
        return fmt::format("{} forgot {}", who(), event.other ? other() : what_made_it());
      case Event::What::mode:
        return fmt::format("{} went from {} to {}", who(), name_of(event.from), name_of(event.to));
      case Event::What::target:
        return fmt::format("{} acts on {} now", who(), other());
    }
    return {};
  }
};

// What the words of an event take for granted.
bool makes_sense(const Event& event) {
  if (event.what > Event::What::target || event.by > Sense::hearing) return false;
  if (event.from > Mode::out || event.to > Mode::out) return false;
  using What = Event::What;
  if (event.what == What::broke) return event.solid.has_value();
  if (event.what == What::triggered) return event.zone.has_value();
  return true;
}

}  // namespace

std::string_view name_of(Happening what) {
  return kHappeningNames[static_cast<std::size_t>(what)];
}

std::string Simulation::describe(const Event& event) const {
  const Level& level = state_->level();
  static_cast<void>(state_->known_index(event.agent));
  if (event.other) static_cast<void>(state_->known_index(*event.other));
  if (event.teller) static_cast<void>(state_->known_index(*event.teller));
  const bool is_of_level = (!event.solid || event.solid->index < level.solids.size() ||
                            (event.solid == kOfHost && event.what != Event::What::broke)) &&
                           (!event.zone || *event.zone < level.zones.size()) &&
                           (event.team == kNoTeam || event.team < level.teams.size());
  if (!is_of_level || !makes_sense(event)) {
    throw UsageError("an event that cannot have happened in this simulation");
  }
  return Describer{state_->level(), event}.text();
}

// Events are sorted by what they are, then by agent, and then as they came. Their keys are sorted,
// so that each event is moved once.
void order_events(Events& events) {
  const std::size_t first = events.sorted;
  const std::size_t count = events.all.size() - first;
  events.order.clear();
  events.in_order.clear();
  events.order.reserve(events.all.capacity());
  events.in_order.reserve(events.all.capacity());
  for (std::size_t i = 0; i < count; ++i) {
    const Event& event = events.all[first + i];
    const auto what = static_cast<std::uint64_t>(event.what);
    events.order.push_back(what << 56U | std::uint64_t{event.agent.index} << 28U | i);
  }
  if (!std::is_sorted(events.order.begin(), events.order.end())) {
    std::sort(events.order.begin(), events.order.end());
    constexpr std::uint64_t kPlace = (std::uint64_t{1} << 28U) - 1;
    for (const std::uint64_t key : events.order) {
      events.in_order.push_back(events.all[first + (key & kPlace)]);
    }
    std::copy(events.in_order.begin(), events.in_order.end(),
              events.all.begin() + static_cast<std::ptrdiff_t>(first));
  }
  events.sorted = events.all.size();
}

}  // namespace gaze
