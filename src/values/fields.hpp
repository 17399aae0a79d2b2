#pragma once

#include "gaze/level.hpp"
#include "values/fields_harm.hpp"

/// Which key stands for which value: one list for the reader, `validate`, `set_value` and saves.
/// `fields(visit, part)` hands the visitor every value of a part, in the order of the reference,
/// and of those that depend on another value only the ones that count. What is more than a value
/// has a call of its own:
///
///     visit(key, value)          a number, a truth, a word, or what may be left out of these
///     visit.team, kind, kinds    what is named in the file and numbered in the level
///     visit.names, tags, teams   lists of names
///     visit.part(key, part)      a table of its own, or none
///     visit.parts(key, list)     tables by name
///     visit.pair(key, low, high) two numbers in one list
///     visit.may_be, needed       a key that may be left out, or must be given, though the list of
///                                keys says otherwise: what its part is decides
///
/// What stands in one place alone has a call named after its key (`along`, `axes`, `pockets`,
/// `when`), or after what it is made of: `half` a thickness, the `rise` of a solid, a `slab` by its
/// top.
namespace gaze {

template <typename Visit, Is<Sight> Of>
void fields(Visit& visit, Of& sight) {
  visit("range", sight.range);
  visit("field_of_view", sight.field_of_view);
  visit("keep_range", sight.keep_range);
  visit.eye("eye_height", "eye", sight.eye);
  visit("vertical_field_of_view", sight.vertical_field_of_view);
  visit("tilt", sight.tilt);
  visit("near_ring", sight.near_ring);
  visit("visible_at_least", sight.visible_at_least);
  visit("measure", sight.measure);
  visit("fade_from", sight.fade_from);
  visit("ebb_time", sight.ebb_time);
  visit("notice_time", sight.notice_time);
  visit("remember", sight.remember);
}

template <typename Visit, Is<Scan> Of>
void fields(Visit& visit, Of& scan) {
  visit("style", scan.style);
  visit("rate", scan.rate);
  visit("pause", scan.pause);
  visit("goes_on", scan.goes_on);
  if (scan.style == Scan::Style::sweep) visit.needed("arc", scan.arc);
  if (scan.style == Scan::Style::list) visit.needed("headings", scan.headings);
}

template <typename Visit, Is<Head> Of>
void fields(Visit& visit, Of& head) {
  visit("turn_rate", head.turn_rate);
  visit.pair("limits", head.low, head.high);
}

template <typename Visit, Is<Hearing> Of>
void fields(Visit& visit, Of& hearing) {
  visit("range", hearing.range);
  visit("acuity", hearing.acuity);
  visit("around_corners", hearing.around_corners);
  visit("own", hearing.own);
  visit("friends", hearing.friends);
  visit("forgets_on_way", hearing.forgets_on_way);
  visit("remember", hearing.remember);
}

template <typename Visit, Is<Feeler> Of>
void fields(Visit& visit, Of& feeler) {
  visit("length", feeler.length);
  visit("from", feeler.from);
  visit("toward", feeler.toward);
  visit("tilt", feeler.tilt);
  visit("thickness", feeler.thickness);
  visit("finds", feeler.finds);
  visit("stopped_by", feeler.stopped_by);
  visit.second_word("turns", feeler.turns_with_head);
  visit("remember", feeler.remember);
}

template <typename Visit, Is<Nearness> Of>
void fields(Visit& visit, Of& nearness) {
  visit("range", nearness.range);
  visit.axes("axes", nearness.axes);
  visit("once", nearness.once);
  visit("remember", nearness.remember);
}

template <typename Visit, Is<TouchSense> Of>
void fields(Visit& visit, Of& touch) {
  visit("sides", touch.sides);
  visit("remember", touch.remember);
}

template <typename Visit, Is<HurtSense> Of>
void fields(Visit& visit, Of& hurt) {
  visit("remember", hurt.remember);
}

template <typename Visit, Is<Tell> Of>
void fields(Visit& visit, Of& tell) {
  visit("range", tell.range);
  visit("delay", tell.delay);
  visit("remember", tell.remember);
}

template <typename Visit, Is<Choose> Of>
void fields(Visit& visit, Of& choose) {
  visit("by", choose.by);
  visit("stick", choose.stick);
  visit.tags("tags", choose.tags);
  visit.kinds("kinds", choose.kinds);
  visit.teams("teams", choose.teams);
}

template <typename Visit, Is<Move> Of>
void fields(Visit& visit, Of& move) {
  visit("gait", move.gait);
  visit("speed", move.speed);
  visit("idle_speed", move.idle_speed);
  visit("turn_rate", move.turn_rate);
  visit("stop_distance", move.stop_distance);
  visit("step_height", move.step_height);
  visit("step_reach", move.step_reach);
  visit("quiet_reach", move.quiet_reach);
  visit("stride", move.stride);
  visit("search_radius", move.search_radius);
  visit("route", move.route);
  visit("slope", move.slope);
  visit("repath_distance", move.repath_distance);
  visit("stuck_time", move.stuck_time);
  visit("acceleration", move.acceleration);
  visit("face", move.face);
  visit("chase", move.chase);
  visit("keep_away", move.keep_away);
  visit("pace", move.pace);
  visit.name("pace_of", move.pace_of);
  visit.names("follows", move.follows);
  visit("follow_distance", move.follow_distance);
  visit("follow_start", move.follow_start);
  visit("flee_distance", move.flee_distance);
  visit("flee_to", move.flee_to);
  visit("flee_from", move.flee_from);
  visit("hop_height", move.hop_height);
  visit("hop_length", move.hop_length);
  visit("hop_rest", move.hop_rest);
  visit("drop_height", move.drop_height);
  visit("hops_in_place", move.hops_in_place);
  visit("hover_height", move.hover_height);
  visit("climb_speed", move.climb_speed);
  visit.pair("turn_limits", move.turn_limits[0], move.turn_limits[1]);
  visit.pair("tilt_limits", move.tilt_limits[0], move.tilt_limits[1]);
  visit("no_path", move.no_path);
}

template <typename Visit, Is<Wander> Of>
void fields(Visit& visit, Of& wander) {
  visit("style", wander.style);
  visit.name("area", wander.area);
  visit("pause", wander.pause);
}

template <typename Visit, Is<Defeat> Of>
void fields(Visit& visit, Of& defeat) {
  visit.kind("leaves", defeat.leaves);
  visit.defeat_attack("attack", defeat.attack);
  visit("score", defeat.score);
  visit("respawn", defeat.respawn);
  visit.names("tells", defeat.tells);
  visit.names("wakes", defeat.wakes);
}

template <typename Visit, Is<Reaction> Of>
void fields(Visit& visit, Of& reaction) {
  visit.mode("mode", reaction.mode);
  visit.attack("attack", reaction.attack);
  visit.name("noise", reaction.noise);
  visit("reach", reaction.reach);
  visit.names("wakes", reaction.wakes);
  visit("turn", reaction.turn);
  visit("after", reaction.after);
}

template <typename Visit, Is<Kind> Of>
void fields(Visit& visit, Of& kind) {
  visit.like("like", kind.like);
  visit.team("team", kind.team);
  visit("radius", kind.radius);
  visit("height", kind.height);
  visit("health", kind.health);
  visit.solid_to("solid_to", kind.solid_to);
  visit("mass", kind.mass);
  visit("grace", kind.grace);
  visit.amounts("resist", kind.resist);
  visit.side_factors("side_factors", kind.side_factors);
  visit("heals", kind.heals);
  visit("heals_after", kind.heals_after);
  visit("body_points", kind.body_points);
  visit("visibility", kind.visibility);
  visit("still_visibility", kind.still_visibility);
  visit.tags("tags", kind.tags);
  visit.part("sight", kind.sight);
  visit.part("scan", kind.scan);
  visit.part("head", kind.head);
  visit.part("hearing", kind.hearing);
  visit.part("nearness", kind.nearness);
  visit.part("touch", kind.touch);
  visit.part("hurt", kind.hurt);
  visit.part("tell", kind.tell);
  visit.part("choose", kind.choose);
  visit.parts("feeler", kind.feelers);
  visit.part("move", kind.move);
  visit.part("wander", kind.wander);
  visit.parts("attack", kind.attacks);
  visit.part("thing", kind.thing);
  visit.pockets("carries", kind.carries);
  visit.part("defeat", kind.defeat);
  visit.when("when", kind.when);
}

template <typename Visit, Is<PatrolStop> Of>
void fields(Visit& visit, Of& stop) {
  visit("wait", stop.wait);
  visit("look", stop.look);
}

template <typename Visit, Is<ScriptStep> Of>
void fields(Visit& visit, Of& step) {
  switch (step.what) {
    case ScriptStep::What::go:
      visit.point("go", step.place);
      visit("speed", step.speed);
      break;
    case ScriptStep::What::wait:
      visit("wait", step.duration);
      break;
    case ScriptStep::What::face:
      visit("face", step.facing);
      break;
    case ScriptStep::What::noise:
      visit.needed_name("noise", step.noise);
      visit.needed("reach", step.reach);
      break;
    case ScriptStep::What::quiet:
      visit("quiet", step.quiet);
      break;
    case ScriptStep::What::take:
      visit.needed_name("take", step.name);
      break;
    case ScriptStep::What::throw_:
      visit.kind("throw", step.kind);
      visit.point("to", step.place);
      break;
    case ScriptStep::What::aim:
      visit.point("aim", step.place);
      visit("fire", step.duration);
      visit.name("attack", step.name);
      break;
    case ScriptStep::What::hop:
      visit.only_true("hop");
      break;
    case ScriptStep::What::repeat:
      visit.only_true("repeat");
      break;
    case ScriptStep::What::drop:
      visit.only_true("drop");
      break;
  }
}

template <typename Visit, Is<Agent> Of>
void fields(Visit& visit, Of& agent) {
  visit.needed_name("id", agent.id);
  visit.kind("kind", agent.kind);
  visit.point("at", agent.position);
  visit("facing", agent.facing);
  visit.patrol("patrol", agent.patrol, agent.stops);
  visit("patrol_style", agent.patrol_style);
  visit.script("script", agent.script);
  visit.track("track", agent.track);
  visit("driver", agent.driver);
  visit("asleep", agent.is_asleep);
}

template <typename Visit, Is<Solid> Of>
void ramp_fields(Visit& visit, Of& solid) {
  visit.point3("from", solid.from);
  visit.point3("to", solid.to);
  visit("width", solid.width);
  visit("thickness", solid.thickness);
  if (solid.form == Solid::Form::stairs) visit("steps", solid.steps);
}

template <typename Visit, Is<Solid> Of>
void fields(Visit& visit, Of& solid) {
  using Form = Solid::Form;
  visit.needed_name("id", solid.id);
  visit.material("material", solid.material);
  switch (solid.form) {
    case Form::wall:
    case Form::door:
      visit.outline("path", solid.points);
      visit("thickness", solid.thickness);
      visit.rise(solid.base, solid.height);
      if (solid.form == Form::wall) visit("can_go", solid.can_go);
      break;
    case Form::block:
      visit.outline("outline", solid.points);
      visit.rise(solid.base, solid.height);
      visit("health", solid.health);
      visit("can_go", solid.can_go);
      break;
    case Form::floor:
      visit.outline("outline", solid.points);
      visit.slab("top", "thickness", solid.base, solid.thickness);
      break;
    case Form::ramp:
    case Form::stairs:
      ramp_fields(visit, solid);
      break;
    case Form::mesh:
      visit.triangles(solid);
      break;
  }
  if (solid.form != Form::door) return;
  visit.names("opens_for", solid.door.opens_for);
  visit("opens_within", solid.door.opens_within);
  visit("closes_after", solid.door.closes_after);
}

template <typename Visit, Is<Zone> Of>
void fields(Visit& visit, Of& zone) {
  visit.needed_name("id", zone.id);
  visit.outline("outline", zone.outline);
  visit.rise(zone.base, zone.height);
  visit.tags("tags", zone.tags);
  visit("dimness", zone.dimness);
  visit.names("triggered_by", zone.triggered_by);
  visit.tags("grants", zone.grants);
  visit.tags("takes", zone.takes);
  visit.agents("tells", zone.tells);
  visit.agents("wakes", zone.wakes);
  visit("once", zone.once);
  visit("cost", zone.cost);
  visit.names("closed_to", zone.closed_to);
}

template <typename Visit, Is<Link> Of>
void fields(Visit& visit, Of& link) {
  visit.needed_name("id", link.id);
  visit.point3("from", link.from);
  visit.point3("to", link.to);
  visit("both_ways", link.both_ways);
}

template <typename Visit, Is<Start> Of>
void fields(Visit& visit, Of& start) {
  visit.needed_name("id", start.id);
  visit.needed_name("kind", start.kind);
  visit.outline("outline", start.outline);
  visit.name("apart_from", start.apart_from);
  visit("distance", start.distance);
  visit("out_of_sight", start.out_of_sight);
}

template <typename Visit, Is<Bounds> Of>
void fields(Visit& visit, Of& bounds) {
  visit.may_be_outline("outline", bounds.outline);
  visit("low", bounds.low);
  visit("high", bounds.high);
  visit.second_word("leaving", bounds.puts_back);
}

template <typename Visit, Is<Material> Of>
void fields(Visit& visit, Of& material) {
  visit("stops", material.stops);
  visit("muffles", material.muffles);
}

template <typename Visit, Is<EventPick> Of>
void fields(Visit& visit, Of& pick) {
  visit.needed("event", pick.event);
  visit.name("by", pick.by);
  visit.name("of", pick.of);
}

template <typename Visit, Is<Figure> Of>
void fields(Visit& visit, Of& figure) {
  visit("first", figure.first);
  visit("last", figure.last);
  visit("count", figure.count);
  visit("sum", figure.sum);
  visit("event", figure.event);
  visit("least", figure.least);
  visit("most", figure.most);
  visit("mean", figure.mean);
  visit("start", figure.start);
  visit("end", figure.end);
  visit("share", figure.share);
  visit.picks("between", figure.between);
  visit.name("by", figure.by);
  visit.name("of", figure.of);
  visit("from", figure.from);
  visit("to", figure.to);
}

template <typename Visit, Is<Expectation> Of>
void fields(Visit& visit, Of& expectation) {
  visit.needed_name("id", expectation.id);
  visit.text("figure", expectation.figure);
  visit("at_least", expectation.at_least);
  visit("at_most", expectation.at_most);
  visit("exactly", expectation.exactly);
  visit("never", expectation.never);
  visit("runs", expectation.runs);
  visit("of_runs", expectation.of_runs);
  visit.settings("set", expectation.set);
}

/// The values of the level itself, without its lists.
template <typename Visit, Is<Level> Of>
void fields(Visit& visit, Of& level) {
  visit("plane", level.plane);
  visit("ticks_per_second", level.ticks_per_second);
  visit("seconds", level.seconds);
  visit("seed", level.seed);
  visit("gravity", level.gravity);
  visit("ground_height", level.ground_height);
}

}  // namespace gaze
