#pragma once

#include "simulation/archive_everyone.hpp"

/// What travel knows, in a save.
namespace gaze {

template <typename Archive>
void members(Archive& to, Progress& progress) {
  auto& [best, since, told] = progress;
  archive_infinite(to, best);
  archive_all(to, since, told);
}

template <typename Archive>
void members(Archive& to, Course& course) {
  auto& [next, backwards, is_new, wait_until, progress] = course;
  archive_all(to, next, backwards, is_new, wait_until, progress);
}

template <typename Archive>
void members(Archive& to, InLine& line) {
  auto& [place, head] = line;
  archive(to, place);
  to.agent(head);
}

template <typename Archive>
void members(Archive& to, InTheWay& way) {
  auto& [who, at] = way;
  to.agent(who);
  archive(to, at);
}

template <typename Archive>
void members(Archive& to, Path::Leg& leg) {
  auto& [to_point, link] = leg;
  archive_all(to, to_point, link);
}

template <typename Archive>
void members(Archive& to, Route& route) {
  auto& [points, links, next_link, next, goal, outcome, is_made, own_face, goal_face, was_pushed,
         progress] = route;
  archive_all(to, points, links, next_link, next, goal, outcome, is_made, own_face, goal_face,
              was_pushed, progress);
  if (is_made && (next > points.size() || next_link > links.size())) throw Damaged{};
}

template <typename Archive>
void members(Archive& to, LeadsRound& round) {
  auto& [all, count] = round;
  archive_all(to, all, count);
  if (count == 0 || count > all.size()) throw Damaged{};
}

template <typename Archive>
void members(Archive& to, RingPlace& place) {
  auto& [centre, offset, tick] = place;
  to.agent(centre);
  archive_all(to, offset, tick);
}

template <typename Archive>
void members(Archive& to, Arc& arc) {
  auto& [from, end, up, gravity, seconds] = arc;
  archive_all(to, from, end, up, gravity, seconds);
}

template <typename Archive>
void members(Archive& to, Leap& leap) {
  auto& [what, arc, speed, start, end] = leap;
  archive_all(to, what, arc, speed, start, end);
}

template <typename Archive>
void members(Archive& to, TrackDeed& deed) {
  auto& [what, name, place, reach, from] = deed;
  archive_all(to, what, name, place, reach, from);
}

template <typename Archive>
void members(Archive& to, Steering& steering) {
  auto& [way, aim, is_plan_aim, fires, is_quiet, hops, deeds] = steering;
  archive_all(to, way, aim, is_plan_aim, fires, is_quiet, hops, deeds);
}

template <typename Archive>
void members(Archive& to, BodySize& body) {
  auto& [radius, height, step_height, slope, hop_height, hop_length, drop_height, altitude, closed,
         opens] = body;
  archive_all(to, radius, height, step_height, slope, hop_height, hop_length, drop_height, altitude,
              closed, opens);
}

template <typename Archive>
void members(Archive& to, Ways& ways) {
  auto& [course, left_course, home, wander_goal, script_facing, quiet, steering, stride_left,
         has_no_start, is_just_placed, has_settled, highest_of_fall, velocity, air_share, hangs,
         leap, longest_leap, rests_until, pushed, mesh_of, route, leads_round, asked, asked_goal,
         together, starts, searches_left, finder, ring_place, ring_taken, ring_ends, walkers,
         strayed, pace, pace_length, gathered, wish, next_wish, line, next_line, is_on_way,
         goes_on_way, fastest, keep_apart, neighbours, in_the_way, avoided] = ways;
  archive_items(to, course, left_course, home, wander_goal, quiet, stride_left, is_just_placed,
                has_settled, highest_of_fall, velocity, air_share, hangs, rests_until, pushed);
  archive_all(to, script_facing, steering, leap, leads_round, asked_goal, ring_place);
  archive_items(to, mesh_of, route, pace, pace_length, gathered, wish, next_wish, line, next_line,
                is_on_way, goes_on_way);
  archive_agents(to, has_no_start);
  archive_agents(to, asked);
  archive_all(to, searches_left, strayed, fastest);
  static_cast<void>(std::tie(together, starts, finder, ring_taken, ring_ends, walkers, keep_apart,
                             neighbours, in_the_way, avoided, longest_leap));
}

}  // namespace gaze
