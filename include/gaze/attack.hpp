#pragma once

#include <cstdint>
#include <optional>
#include <string>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/senses.hpp"
#include "gaze/time.hpp"

/// Ways to harm, as a designer sets them.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// So many bodies a projectile can pierce at the most.
constexpr int kMostPierced = 16;

/// A way to harm. What is meant for one way alone says so.
struct Attack {
  enum class How {
    strike,  ///< Hits its target itself, near by.
    shot,    ///< Fires projectiles.
    beam,    ///< A ray from the muzzle, at once, for a while.
    touch,   ///< Hurts who touches it on some side.
    burst,   ///< A blast around itself.
    catch_,  ///< Takes who is near enough out of the round.
  };
  enum class Aim {
    direct,    ///< Straight at the middle of the target.
    lead,      ///< Straight to where the two meet if the target keeps its course.
    lob,       ///< In an arc under gravity, the low one of two.
    high_lob,  ///< In an arc under gravity, the high one of two.
    ahead,     ///< Along the facing.
    mirror,    ///< Where the nearest friend aims who is driven, when that fires.
  };
  /// What friends in its way do to it.
  enum class Friends {
    pass,  ///< Nothing.
    stop,  ///< They stop it, unhurt; it is not fired while they are in the way.
    hurt,  ///< The same, and they are hurt.
  };
  std::string name;
  How how = How::strike;
  double range = 0.0;  ///< Metres, above 0. Bursts: the radius of the blast; catches: 0: touching.
  double min_range = 0.0;            ///< Nearer than that it is not made, metres.
  double health_low = 0.0;           ///< It is made from this share of its own health on.
  double health_high = 1.0;          ///< It is made up to this share of its own health.
  double damage = 0.0;               ///< Points of health.
  std::string damage_kind;           ///< That kinds may resist; empty: none.
  double far_damage = 1.0;           ///< Share of the damage that is left at the range.
  double fade_from = 0.0;            ///< Share of the range from which on the damage fades evenly.
  Friends friends = Friends::pass;   ///< Shots, beams, bursts.
  double push = 0.0;                 ///< Metres a second for a body of mass 1, away from it.
  std::optional<Duration> cooldown;  ///< From pull to pull, above 0; catches may leave it out: 1 s.
  Duration wind_up;                  ///< From the pull to the first blow or shot.
  int ammunition = 0;                ///< Blows or shots until it is empty; 0: endless.
  std::optional<Duration> reload;    ///< From empty to full; none: never.
  Angle arc = Angle::from_degrees(360.0);  ///< Strikes: full opening, (0, 360].
  SideSet sides{0b111111};                 ///< Touches: on which of its own sides.

  Aim aim = Aim::direct;  ///< Shots. Beams allow `direct`, `ahead` and `mirror`.
  double speed = 0.0;     ///< Shots: metres a second, above 0.
  std::optional<double>
      radius;  ///< Shots: of the projectile; else 0.05. Beams: half as thick; else 0.
  std::optional<double> gravity_share;  ///< Shots: of the level's gravity; else lobs 1, others 0.
  Angle toward;                         ///< Shots, beams: straight ahead, turned from the facing
  Angle tilt;                           ///< and upwards by so much.
  std::optional<Vector3d> muzzle;  ///< Shots, beams: forward, left, up from the feet, metres; else
                                   ///< half the height up.
  Angle aim_tolerance = Angle::from_degrees(3.0);  ///< Shots, beams: between facing and target.
  std::optional<Duration> lifetime;      ///< Shots: above 0; else lobs 30 s, others to their range.
  int burst = 1;                         ///< Shots: so many a pull.
  Duration burst_interval{100'000'000};  ///< Shots: the time between two of a pull.
  Angle spread;                          ///< Shots: full opening of the cone, [0, 360].
  bool spread_rises = false;             ///< Shots spread vertically in ground levels too.
  int bounces = 0;                       ///< Shots: off solids.
  double bounce_loss = 0.0;              ///< Shots: of the speed, [0, 1].
  int pierce = 0;                        ///< Shots: so many bodies let them through.
  double drag = 0.0;                     ///< Shots: share of the speed lost, a second.
  Angle homing_rate;                     ///< Shots: turn to their target, a second.
  double blast_radius = 0.0;             ///< Shots: of the blast where they end; 0: none.
  double blast_fall_off = 1.0;  ///< Shots, bursts: 0 the same all over, 1 to nothing at the rim.
  Duration hold;                ///< Beams: how long they stay on; 0: for a moment.
  /// Beams: fires when the ray ahead meets an enemy, noticed or not. The agent then turns to that
  /// enemy. The beam ends when it meets anything else.
  bool locks_on = false;
  double noise_reach = 0.0;             ///< Shots: heard where they land, by its name.
  double fire_reach = 0.0;              ///< Shots, beams: of the noise "shot" at the muzzle.
  std::optional<std::uint32_t> leaves;  ///< Shots: a kind that appears where they end, by index.
  int keeps = 4;                        ///< So many of these at once; then the oldest is moved.
  std::optional<double>
      mirror_radius;  ///< Mirrored: how near the friend has to be; else its range.

  bool operator==(const Attack&) const = default;
};

/// Seconds from a pull to one of its blows or shots, which are counted from 0.
[[nodiscard]] constexpr double seconds_to_blow(const Attack& attack, int number) {
  return attack.wind_up.seconds() + number * attack.burst_interval.seconds();
}

/// Returns whether a kind can have this as the attack of its defeat: bursts, and shots ahead.
[[nodiscard]] constexpr bool is_made_at_defeat(const Attack& attack) {
  return attack.how == Attack::How::burst ||
         (attack.how == Attack::How::shot && attack.aim == Attack::Aim::ahead);
}

/// True for shots in an arc.
[[nodiscard]] constexpr bool is_lobbed(const Attack& attack) {
  return attack.aim == Attack::Aim::lob || attack.aim == Attack::Aim::high_lob;
}

}  // namespace gaze
GAZE_PUBLIC_END
