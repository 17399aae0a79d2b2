#include "fuzz/level_writer.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gaze::fuzz {
namespace {

/// Writes one level, part by part; names are numbers of their sort.
class LevelWriter {
 public:
  explicit LevelWriter(Choices& choices) : choices_(choices) {}

  std::string write() {
    plane_ = choices_.of<std::string>({"ground", "upright", "space"});
    line("plane = \"{}\"", plane_);
    line("ticks_per_second = {}", choices_.of<int>({60, 20, 30, 144, 240, 7, 1, 1000}));
    line("seconds = 3");
    line("seed = {}", choices_.below(1000));
    if (choices_.one_in(6)) line("gravity = {}", number(0, 20, 0, 1000));
    if (choices_.one_in(6)) line("ground_height = false");
    line("[team.caretakers]\nhostile = [\"visitors\"]\n[team.visitors]\nhostile = [\"{}\"]",
         choices_.of<std::string>({"caretakers", "visitors"}));
    line(
        "[material.glass]\nstops = [\"bodies\", \"shots\"]\n[material.curtain]\nstops = "
        "[\"sight\", \"sound\"]\nmuffles = 0.5");
    kinds_ = 1 + choices_.below(4);
    for (std::uint32_t i = 0; i < kinds_; ++i) write_kind(i);
    line("[kind.pot]\nradius = 0.2\nheight = 0.3\n[kind.pot.thing]\nspeed = {}",
         number(1, 15, 1e-6, 1000));
    for (std::uint32_t i = many(9); i > 0; --i) write_solid(i);
    for (std::uint32_t i = choices_.below(3); i > 0; --i) write_zone(i);
    for (std::uint32_t i = many(3); i > 0; --i) write_link(i);
    agents_ = 1 + choices_.below(7);
    for (std::uint32_t i = 0; i < agents_; ++i) write_agent(i);
    if (choices_.one_in(5)) {
      line("[round]\nends = [\"{}\"]\nresets = {}",
           choices_.of<std::string>({"caught", "visitors out"}), choices_.one_in(2));
    }
    if (choices_.one_in(6)) {
      line("[bounds]\noutline = {}\nleaving = \"{}\"", outline(0, 0, 12),
           choices_.of<std::string>({"defeated", "back"}));
    }
    for (std::uint32_t i = choices_.below(3); i > 0; --i) write_figure(i);
    return std::move(text_);
  }

 private:
  template <typename... Args>
  void line(fmt::format_string<Args...> format, Args&&... args) {
    text_ += fmt::format(format, std::forward<Args>(args)...) + "\n";
  }

  double number(double low, double high, double least, double most) {
    return choices_.number(low, high, least, most);
  }
  // So many at most, but now and then far more.
  std::uint32_t many(std::uint32_t usual) {
    return choices_.below(choices_.one_in(5) ? 8 * usual : usual);
  }
  double coordinate() { return choices_.between(-10.0, 10.0); }

  // A key that is there now and then.
  void maybe(const char* key, double low, double high, double least, double most) {
    if (choices_.one_in(4)) line("{} = {}", key, number(low, high, least, most));
  }
  void maybe_word(const char* key, const std::vector<std::string>& words) {
    if (choices_.one_in(4)) line("{} = \"{}\"", key, choices_.of(words));
  }
  void maybe_flag(const char* key) {
    if (choices_.one_in(4)) line("{} = true", key);
  }

  std::string point(double x, double y) {
    if (plane_ == "space") return fmt::format("[{}, {}, {}]", x, y, choices_.between(0.0, 2.0));
    return fmt::format("[{}, {}]", x, y);
  }
  std::string point() { return point(coordinate(), coordinate()); }
  std::string point3() {
    return fmt::format("[{}, {}, {}]", coordinate(), coordinate(), choices_.between(0.0, 3.0));
  }

  // Star-shaped about a middle, so that it never crosses itself; now and then as thin as paper, as
  // a hair, or thinner than any lattice.
  std::string outline(double x, double y, double size) {
    const std::uint32_t count = 3 + choices_.below(6);
    const double depth = choices_.one_in(20) ? choices_.of<double>({1e-2, 1e-4, 1e-6, 1e-9}) : 1.0;
    std::vector<std::string> points;
    for (std::uint32_t i = 0; i < count; ++i) {
      const double angle = 6.283185307179586 * i / count;
      const double away = choices_.one_in(2) ? size : choices_.between(size / 4.0, size);
      points.push_back(depth < 1.0 ? fmt::format("[{:.2f}, {:.10f}]", x + away * std::cos(angle),
                                                 y + depth * away * std::sin(angle))
                                   : fmt::format("[{:.2f}, {:.2f}]", x + away * std::cos(angle),
                                                 y + away * std::sin(angle)));
    }
    return fmt::format("[{}]", fmt::join(points, ", "));
  }

  void write_kind(std::uint32_t i) {
    line("[kind.k{}]", i);
    if (i > 0 && choices_.one_in(3)) line("like = \"k{}\"", choices_.below(i));
    if (!choices_.one_in(8)) {
      line("team = \"{}\"", choices_.of<std::string>({"caretakers", "visitors"}));
    }
    maybe("radius", 0.1, 1.0, 1e-6, 1000);
    maybe("height", 0.5, 2.0, 1e-6, 1000);
    maybe("health", 1, 200, 1e-6, 1e9);
    maybe("mass", 0.5, 5, 1e-6, 1e6);
    maybe("grace", 0, 2, 0, 86400);
    maybe("visibility", 0, 2, 0, 100);
    maybe("heals", 0, 5, 0, 1e9);
    if (choices_.one_in(4)) line("carries = {{ pot = {} }}", choices_.below(4));
    write_senses(i);
    write_move(i);
    write_attacks(i);
    write_rules(i);
    if (choices_.one_in(4)) {
      line("[kind.k{}.defeat]", i);
      maybe("score", 0, 100, -1e9, 1e9);
      maybe("respawn", 0.1, 2, 0.001, 86400);
    }
  }

  void write_senses(std::uint32_t i) {
    if (!choices_.one_in(4)) {
      line("[kind.k{}.sight]\nrange = {}\nfield_of_view = {}", i, number(2, 20, 1e-6, 40000),
           number(10, 360, 1e-6, 360));
      maybe("notice_time", 0, 1, 0, 86400);
      maybe("remember", 0, 3, 0, 86400);
      maybe("ebb_time", 0, 3, 0, 86400);
      maybe("vertical_field_of_view", 10, 180, 1e-6, 180);
      maybe("tilt", -60, 60, -90, 90);
      maybe("near_ring", 0, 2, 0, 40000);
      maybe("visible_at_least", 0, 1, 0, 1);
      maybe("fade_from", 0, 1, 0, 1);
      maybe("eye_height", 0, 2, 0, 1000);
      maybe_word("measure", {"centre", "surface"});
    }
    if (choices_.one_in(3)) {
      line("[kind.k{}.scan]", i);
      const std::string style = choices_.of<std::string>({"sweep", "round", "list"});
      line("style = \"{}\"\nrate = {}", style, number(10, 180, 1e-6, 36000));
      if (style == "sweep") line("arc = {}", number(10, 180, 1e-6, 360));
      if (style == "list") line("headings = [0, {}, -90]", number(-180, 180, -360, 360));
      maybe("pause", 0, 1, 0, 86400);
      if (style == "round") line("goes_on = true");
    }
    if (choices_.one_in(4))
      line("[kind.k{}.head]\nturn_rate = {}", i, number(30, 360, 1e-6, 36000));
    if (choices_.one_in(3)) {
      line("[kind.k{}.hearing]\nrange = {}", i, number(2, 20, 1e-6, 40000));
      maybe("acuity", 0, 3, 0, 1000);
      maybe_flag("around_corners");
      maybe_flag("friends");
    }
    if (choices_.one_in(4)) {
      line("[kind.k{}.nearness]\nrange = {}", i, number(0.5, 5, 1e-6, 40000));
      maybe_word("axes", {"x", "xy", "xz", "xyz", "z"});
    }
    if (choices_.one_in(3)) line("[kind.k{}.touch]", i);
    if (choices_.one_in(3)) {
      line("[kind.k{}.feeler.whisker]\nlength = {}", i, number(0.3, 4, 1e-6, 40000));
      maybe("thickness", 0, 0.5, 0, 1000);
      maybe("tilt", -60, 60, -90, 90);
      maybe("toward", -90, 90, -360, 360);
      maybe_word("finds", {"hostile", "anything", "nothing"});
      maybe_word("turns", {"body", "head"});
      has_feeler_ = true;
    } else {
      has_feeler_ = false;
    }
    if (choices_.one_in(4)) line("[kind.k{}.tell]\nrange = {}", i, number(2, 20, 1e-6, 40000));
  }

  void write_move(std::uint32_t i) {
    if (choices_.one_in(5)) return;
    line("[kind.k{}.move]", i);
    const std::string gait =
        choices_.of<std::string>({"walk", "walk", "walk", "hop", "hover", "drop", "fixed"});
    line("gait = \"{}\"", gait);
    if (gait != "hop") maybe("speed", 0.5, 5, 0, 1000);
    maybe("turn_rate", 0, 720, 0, 36000);
    maybe("stop_distance", 0, 3, 0, 1000);
    maybe("acceleration", 1, 10, 1e-6, 10000);
    maybe("keep_away", 0, 4, 0, 1000);
    maybe("slope", 10, 60, 0, 89);
    maybe("step_reach", 0, 8, 0, 40000);
    if (gait == "walk" || gait == "hop") {
      maybe("hop_height", 0.2, 1.5, 1e-6, 1000);
      maybe("drop_height", 0.2, 3, 0, 1000);
    }
    maybe_word("route", {"path", "straight"});
    maybe_word("chase", {"at", "ahead"});
    maybe_word("face", {"target", "travel", "always target", "keep"});
    maybe_word("no_path", {"nearest", "wait", "give up"});
    maybe_word("flee_to", {"far side", "out of sight"});
    maybe_word("flee_from", {"post", "here"});
    if (choices_.one_in(5)) line("follows = [\"k{}\"]", choices_.below(kinds_));
    if (choices_.one_in(4)) {
      line("[kind.k{}.wander]", i);
      maybe_word("style", {"to and fro", "free"});
    }
  }

  void write_attacks(std::uint32_t i) {
    attacks_ = choices_.below(3);
    for (std::uint32_t n = 0; n < attacks_; ++n) {
      const std::string how =
          choices_.of<std::string>({"strike", "shot", "shot", "beam", "touch", "burst", "catch"});
      line("[kind.k{0}.attack.a{0}-{1}]\nhow = \"{2}\"", i, n, how);
      if (how != "touch") line("range = {}", number(0.5, 10, 1e-6, 40000));
      if (how != "catch") {
        line("damage = {}\ncooldown = {}", number(0, 20, 0, 1e9), number(0.1, 2, 0.001, 86400));
        maybe("push", 0, 10, 0, 1000);
        maybe("wind_up", 0, 1, 0, 86400);
      }
      if (how == "shot") write_shot();
      if (how == "beam") maybe("hold", 0, 2, 0, 86400);
      if (how == "shot" || how == "beam" || how == "burst") {
        maybe_word("friends", {"pass", "stop", "hurt"});
      }
    }
  }

  void write_shot() {
    line("speed = {}", number(2, 40, 1e-6, 10000));
    const std::string aim =
        choices_.of<std::string>({"direct", "lead", "ahead", "lob", "high lob"});
    line("aim = \"{}\"", aim);
    if (aim[0] != 'l' && aim[0] != 'h') maybe("gravity_share", 0, 1, -10, 10);
    maybe("radius", 0.01, 0.3, 1e-6, 100);
    maybe("spread", 0, 30, 0, 360);
    maybe("drag", 0, 2, 0, 100);
    maybe("homing_rate", 0, 180, 0, 36000);
    maybe("blast_radius", 0, 3, 0, 1000);
    maybe("noise_reach", 0, 8, 0, 40000);
    maybe("lifetime", 0.1, 5, 1e-3, 86400);
    if (choices_.one_in(4)) line("bounces = {}", choices_.below(5));
    if (choices_.one_in(4)) line("pierce = {}", choices_.below(5));
    if (choices_.one_in(4)) line("burst = {}", 1 + choices_.below(5));
  }

  std::string reaction() {
    const std::string mode = choices_.of<std::string>(
        {"chase", "investigate", "search", "flee", "post", "return", "follow"});
    switch (choices_.below(4)) {
      case 0:
        return fmt::format("{{ mode = \"{}\", after = {} }}", mode, choices_.between(0, 1));
      case 1:
        return fmt::format("{{ turn = {}, noise = \"cough\", reach = 5 }}",
                           choices_.between(-180, 180));
      default:
        return fmt::format("\"{}\"", mode);
    }
  }

  void write_rules(std::uint32_t i) {
    if (choices_.one_in(4)) return;
    line("[kind.k{}.when]", i);
    for (const char* cause :
         {"sees", "hurt", "loses", "arrives", "forgets", "touches", "near", "hears", "told"}) {
      if (choices_.one_in(3)) line("{} = {}", cause, reaction());
    }
    if (has_feeler_ && choices_.one_in(2)) line("feels = {}", reaction());
  }

  void write_solid(std::uint32_t i) {
    const std::string material = choices_.of<std::string>({"brick", "brick", "glass", "curtain"});
    const bool is_upright = plane_ == "upright";
    const std::uint32_t form = choices_.below(is_upright ? 3 : 6);
    const char* names[] = {"wall", "block", "door", "floor", "ramp", "stairs"};
    line("[[{}]]\nid = \"s{}\"\nmaterial = \"{}\"", names[form], i, material);
    switch (form) {
      case 0:
      case 2:
        line("path = [[{}, {}], [{}, {}]]", coordinate(), coordinate(), coordinate(), coordinate());
        maybe("thickness", 0.05, 0.5, 1e-6, 100);
        break;
      case 1:
        line("outline = {}", outline(coordinate(), coordinate(), choices_.between(0.5, 4)));
        if (choices_.one_in(4)) line("health = {}", number(1, 50, 1e-6, 1e9));
        break;
      case 3:
        line("outline = {}\ntop = {}", outline(coordinate(), coordinate(), choices_.between(1, 5)),
             number(0, 3, -5, 10));
        break;
      default:
        line("from = {}\nto = {}\nwidth = {}", point3(), point3(), number(0.5, 4, 1e-6, 100));
        if (form == 5) line("steps = {}", 1 + choices_.below(12));
        return;
    }
    if (!is_upright && form != 3) maybe("height", 0.2, 3, 1e-6, 100);
  }

  void write_zone(std::uint32_t i) {
    line("[[zone]]\nid = \"z{}\"\noutline = {}", i,
         outline(coordinate(), coordinate(), choices_.between(1, 6)));
    maybe("dimness", 0, 1, 0, 1);
    maybe("cost", 0.2, 5, 0.1, 100);
    if (choices_.one_in(4)) line("grants = [\"wet\"]");
    if (choices_.one_in(4)) line("closed_to = [\"k{}\"]", choices_.below(kinds_));
  }

  std::string figure_event() {
    return choices_.of<std::string>({"noticed", "hurt", "lost", "mode", "hit", "landed"});
  }

  std::string figure_of_events() {
    if (choices_.one_in(2)) {
      const std::string first = figure_event();
      return fmt::format("between = [{{ event = \"{}\" }}, {{ event = \"{}\", by = \"k0\" }}]",
                         first, figure_event());
    }
    const std::string how = choices_.of<std::string>({"first", "last", "count"});
    return fmt::format("{} = \"{}\"", how, figure_event());
  }

  std::string figure_of_the_way() {
    const std::string how = choices_.of<std::string>({"least", "most", "mean", "start", "end"});
    const std::string quantity = choices_.of<std::string>(
        {"distance", "angle", "visible", "evidence", "health", "speed", "score", "seen by"});
    return fmt::format("{} = \"{}\"", how, quantity);
  }

  std::string figure_of_parts() {
    if (choices_.one_in(2)) {
      const std::string what = choices_.of<std::string>({"seen", "unseen", "noticed", "chase"});
      return fmt::format("share = \"{}\"", what);
    }
    const std::string what = choices_.of<std::string>({"damage", "distance"});
    return fmt::format("sum = \"{}\"\nevent = \"{}\"", what, figure_event());
  }

  void write_figure(std::uint32_t i) {
    line("[figure.f{}]", i);
    const std::uint32_t sort = choices_.below(3);
    line("{}", sort == 0   ? figure_of_events()
               : sort == 1 ? figure_of_the_way()
                           : figure_of_parts());
    if (choices_.one_in(2)) line("by = \"k{}\"", choices_.below(kinds_));
    if (choices_.one_in(3)) line("of = \"a{}\"", choices_.below(agents_));
    if (choices_.one_in(4)) line("from = 0.5\nto = 2.0");
    line("[[expect]]\nid = \"e{0}\"\nfigure = \"f{0}\"\nat_least = {1}", i, coordinate());
  }

  void write_link(std::uint32_t i) {
    line("[[link]]\nid = \"l{}\"\nfrom = {}\nto = {}\nboth_ways = {}", i, point3(), point3(),
         choices_.one_in(2));
  }

  void write_agent(std::uint32_t i) {
    line("[[agent]]\nid = \"a{}\"\nkind = \"k{}\"\nat = {}\nfacing = {}", i, choices_.below(kinds_),
         point(), choices_.between(-180, 180));
    switch (choices_.below(4)) {
      case 0:
        line("patrol = [{}, {}, {}]", point(), point(), point());
        maybe_word("patrol_style", {"round", "to and fro"});
        break;
      case 1: {
        std::vector<std::string> steps;
        for (std::uint32_t n = choices_.below(5); n > 0; --n) steps.push_back(step());
        line("script = [{}]", fmt::join(steps, ", "));
        break;
      }
      case 2:
        line("driver = \"host\"");
        break;
      default:
        break;
    }
  }

  std::string step() {
    switch (choices_.below(7)) {
      case 0:
        return fmt::format("{{ wait = {} }}", choices_.between(0, 1));
      case 1:
        return fmt::format("{{ face = {} }}", choices_.between(-180, 180));
      case 2:
        return fmt::format("{{ noise = \"cough\", reach = {} }}", choices_.between(1, 10));
      case 3:
        return fmt::format("{{ aim = {}, fire = {} }}", point(), choices_.between(0, 1));
      case 4:
        return fmt::format("{{ throw = \"pot\", to = {} }}", point());
      case 5:
        return "{ hop = true }";
      default:
        return fmt::format("{{ go = {} }}", point());
    }
  }

  Choices& choices_;
  std::string text_;
  std::string plane_;
  std::uint32_t kinds_ = 0;
  std::uint32_t agents_ = 0;
  std::uint32_t attacks_ = 0;
  bool has_feeler_ = false;
};

}  // namespace

std::string write_level(Choices& choices) {
  return LevelWriter(choices).write();
}

std::optional<Level> level_of_seed(std::uint64_t seed) {
  Choices choices(seed);
  try {
    return read_level_text(write_level(choices), "swept");
  } catch (const LevelError&) {
    return std::nullopt;
  }
}

}  // namespace gaze::fuzz
