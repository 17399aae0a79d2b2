#pragma once

#include <cstdint>
#include <memory>
#include <vector>

#include "agents/contact.hpp"
#include "agents/links.hpp"
#include "gaze/level.hpp"
#include "level/openings.hpp"

namespace gaze {

/// Up to so many foes are looked through one by one; more are found by where they are.
constexpr std::size_t kFewFoes = 32;

/// What follows from the values of a kind at this rate of ticks.
struct KindLimits {
  NoticeLimits notice;
  SineCosine turn;                     ///< Most of one step.
  double head_turn_deg = 0.0;          ///< Most of one step; 0: the head is fixed to the body.
  double back_to_scan_deg = 0.0;       ///< The same where it scans.
  bool reacts = false;                 ///< Has rules.
  std::uint64_t urged_only = 0;        ///< Attacks that a reaction alone makes, by bit.
  std::vector<std::uint32_t> locking;  ///< Attacks with `locks_on` that no reaction requests.
  double farthest = 0.0;               ///< No sense but hearing reaches farther, metres.
  std::uint64_t tags = 0;              ///< That its agents begin with.
  std::uint64_t wanted_tags = 0;       ///< 0: any.
  std::vector<char> wants_kind;        ///< By kind; empty: any.
  std::vector<char> is_foe_of_team;    ///< By team + 1, 0: none; either is hostile to the other.
  std::vector<char> is_solid_to_team;  ///< By team + 1; nothing where things are.
  std::vector<char> wants_team;        ///< By team: hostile, and not filtered out.
  std::vector<Moment> cooldowns;       ///< By attack.
  Moment grace = 0;
  Moment heals_after = 0;
  double turret_turn_deg = 0.0;  ///< Most of one step, if its turning has limits; else 0.
};

/// Who triggers a zone, and the tags that it gives and takes.
struct ZoneTrigger {
  Whom whom;
  std::uint64_t grants = 0;
  std::uint64_t takes = 0;
};

/// Who begins at a start, and from whom that is to be apart.
struct StartChoice {
  Whom whom;
  Whom apart_from;
};

/// For whom the number of an agent is free that was taken out.
enum class Vacancy : std::uint8_t { none, free, of_that_name };

/// Agents kept for what one may leave behind: at its defeat, or where its shots end.
struct Pool {
  std::uint32_t owner = 0;
  std::uint32_t kind = 0;          ///< Of the owner, for which it is made.
  std::optional<AttackId> attack;  ///< None: at its defeat.
  std::uint32_t first = 0;         ///< Index of an agent; so many from there on.
  std::uint32_t count = 0;
};

/// The level, and what is worked out from it once, before anything moves.
struct Fixed {
  std::shared_ptr<const Level> level;
  std::uint64_t digest = 0;  ///< Of all that decides how the level plays with which it began.
  std::shared_ptr<const std::vector<Kind>> written;  ///< The kinds, with what is left out.
  bool is_changed = false;             ///< Agents have come or gone since, or values are others.
  std::shared_ptr<const Level> begun;  ///< If it is changed: the level when the game began.

  std::vector<KindLimits> limits;     ///< By kind.
  std::vector<std::uint32_t> bases;   ///< By kind: the one that it is like, or kNoBase.
  std::vector<Whom> follows;          ///< By kind: whom it may stay by.
  std::vector<Whom> pickers;          ///< For each kind of thing: the agents that pick it up.
  std::vector<ZoneTrigger> triggers;  ///< By zone.
  std::vector<StartChoice> starts;    ///< By start.
  Openings openings;
  Links links;

  std::vector<const Kind*> kind_of;                 ///< By agent; dense, for hot loops.
  std::vector<const KindLimits*> limit_of;          ///< By agent; dense, for hot loops.
  std::vector<std::uint32_t> kind_index;            ///< By agent; dense, for hot loops.
  std::vector<Driver> driver;                       ///< By agent; dense, for hot loops.
  std::vector<Mode> idle;                           ///< By agent: the mode that it begins in.
  std::vector<double> radius;                       ///< By agent, metres.
  std::vector<std::uint32_t> generation;            ///< By agent: so many had its number before it.
  std::vector<Vacancy> vacancy;                     ///< By agent: for whom its number is free.
  std::vector<Pool> pools;                          ///< By owner.
  std::vector<std::vector<std::uint32_t>> foes_of;  ///< By team: the agents it is hostile to.
  std::vector<std::uint32_t> touchers;              ///< Agents with an attack by touch.
  std::vector<std::uint32_t> healers;               ///< Agents that heal by themselves.
  std::vector<std::uint32_t> things;                ///< Agents that are things.
  std::vector<std::uint32_t> doors;                 ///< By door: its number as a solid.

  double widest = 0.0;      ///< Radius of any agent, metres.
  double tallest = 0.0;     ///< Height of any agent, metres.
  bool uses_crowd = false;  ///< Some sense asks who is near.
  bool uses_beams = false;  ///< Some kind has a beam.
  bool has_relief = false;  ///< Somebody may step up, down or fall.

  explicit Fixed(std::shared_ptr<const Level> the_level)
      : level(std::move(the_level)), openings(*level), links(*level) {}
  // It holds pointers into itself, so it can be neither copied nor moved.
  Fixed(const Fixed&) = delete;
  Fixed& operator=(const Fixed&) = delete;
};

}  // namespace gaze
