#include <algorithm>
#include <functional>

#include "drawing/palette.hpp"
#include "show/paint.hpp"

namespace gaze {
namespace {

constexpr double kSwatch = 34.0;

/// Rows from the top down: a small drawing, and what it stands for.
class Legend {
 public:
  Legend(Canvas& canvas, const Rectangle& frame) : canvas_(canvas), frame_(frame) {}

  void heading(const std::string& text) {
    y_ += 10.0;
    canvas_.font(12.5, true);
    canvas_.text({frame_.x + 14.0, y_ + 12.0}, text, kInk);
    y_ += 20.0;
  }

  void row(const std::string& text, const std::function<void(const Vector2d&)>& draw) {
    draw({frame_.x + 14.0 + kSwatch / 2, y_ + 11.0});
    canvas_.font(11.5);
    double baseline = y_ + 15.0;
    for (const std::string& line : canvas_.wrapped(text, frame_.width - kSwatch - 34.0)) {
      canvas_.text({frame_.x + 14.0 + kSwatch + 10.0, baseline}, line, kInk);
      baseline += 14.0;
    }
    y_ = std::max(y_ + 24.0, baseline - 5.0);
  }

  bool has_room() const { return y_ < frame_.y + frame_.height - 30.0; }

 private:
  Canvas& canvas_;
  Rectangle frame_;
  double y_ = frame_.y + 6.0;
};

void add_agents(Canvas& canvas, Legend& legend, const Scene& scene) {
  legend.heading("Agents");
  const auto body = [&](std::uint32_t team, bool is_alive) {
    return [&canvas, team, is_alive](const Vector2d& p) {
      paint_body(canvas, team, p - Vector2d{7, 7}, p + Vector2d{7, 7}, is_alive);
      if (is_alive) paint_nose(canvas, p, {1, 0}, 7.0);
    };
  };
  for (std::uint32_t team = 0; team < scene.teams.size() && legend.has_room(); ++team) {
    legend.row(scene.teams[team] + " (the tip is the facing)", body(team, true));
  }
  legend.row("acts on a target", [&](const Vector2d& p) {
    body(0, true)(p);
    canvas.disc(p, 11.0);
    canvas.stroke(kAlert, 2.0);
  });
  if (scene.has(Meaning::body_out)) legend.row("out: defeated", body(0, false));
  legend.row("where it has been", [&](const Vector2d& p) {
    paint_trail(canvas, 1, {p - Vector2d{kSwatch / 2, 0}, p + Vector2d{kSwatch / 2, 0}});
  });
  if (scene.has(Meaning::way)) {
    legend.row("its way ahead", [&](const Vector2d& p) {
      paint_way(canvas, 1, {p - Vector2d{kSwatch / 2, 0}, p + Vector2d{kSwatch / 2 - 4, 0}});
    });
  }
}

void add_harm(Canvas& canvas, Legend& legend, const Scene& scene) {
  if (scene.has(Meaning::shot)) {
    legend.row("a shot in flight", [&](const Vector2d& p) {
      paint_shot(canvas, p + Vector2d{9, 0}, {1, 0}, 3.5);
    });
  }
  if (scene.has(Meaning::beam)) {
    legend.row("a beam that is on", [&](const Vector2d& p) {
      paint_beam(canvas, p - Vector2d{16, 0}, p + Vector2d{9, 0}, 3.0);
    });
  }
  if (scene.has(Meaning::hit)) {
    legend.row("a hit of the last 1.5 s", [&](const Vector2d& p) {
      canvas.line(p - Vector2d{16, 0}, p + Vector2d{9, 0});
      canvas.stroke(kShot.with_opacity(0.7), 1.0);
      paint_hit(canvas, p + Vector2d{9, 0});
    });
  }
  if (scene.has(Meaning::blast)) {
    legend.row("a blast just now", [&](const Vector2d& p) {
      canvas.disc(p, 10.0);
      canvas.set(kStopped.with_opacity(0.25));
      cairo_fill_preserve(canvas.raw());
      canvas.stroke(kStopped, 1.6);
    });
    legend.row("shielded from it", [&](const Vector2d& p) {
      canvas.disc(p, 10.0);
      fill_shadow(canvas, p, 10.0);
      canvas.disc(p, 10.0);
      canvas.stroke(kStopped, 1.8, {1.0, 3.0});
    });
  }
}

void add_seen(Canvas& canvas, Legend& legend) {
  legend.heading("What is seen");
  for (const bool is_alert : {false, true}) {
    legend.row(is_alert ? "seen area of one that has noticed somebody"
                        : "seen area of one that has noticed nobody",
               [&, is_alert](const Vector2d& p) {
                 cairo_rectangle(canvas.raw(), p.x() - 16, p.y() - 8, 32, 16);
                 paint_seen_edge(canvas, is_alert);
               });
  }
  legend.row("field of view, were nothing in the way", [&](const Vector2d& p) {
    canvas.line(p - Vector2d{16, 0}, p + Vector2d{16, 0});
    paint_field_edge(canvas);
  });
}

void add_lines(Canvas& canvas, Legend& legend) {
  legend.heading("Lines of sight (distance, angle)");
  const auto line = [&](Meaning meaning) {
    return [&canvas, meaning](const Vector2d& p) {
      paint_sight_line(canvas, meaning, p - Vector2d{17, 0}, p + Vector2d{17, 0});
    };
  };
  legend.row("sees it", line(Meaning::sight_clear));
  legend.row("outside its field of view", line(Meaning::sight_outside));
  legend.row("stopped there, by what is named", [&](const Vector2d& p) {
    paint_sight_line(canvas, Meaning::sight_stopped, p - Vector2d{17, 0}, p + Vector2d{2, 0});
    paint_sight_line(canvas, Meaning::sight_beyond, p + Vector2d{2, 0}, p + Vector2d{17, 0});
  });
}

// The legend explains only what there is in the picture.
void add_other_senses(Canvas& canvas, Legend& legend, const Scene& scene) {
  const bool has_nearness = scene.has(Meaning::nearness);
  const bool has_noise = scene.has(Meaning::noise);
  const bool has_feelers = scene.has(Meaning::feeler_reach);
  const bool has_zones = scene.has(Meaning::zone);
  if (!has_feelers && !has_nearness && !has_noise && !has_zones) return;
  legend.heading("Other senses");
  if (has_feelers) {
    legend.row("feeler that finds what it looks for", [&](const Vector2d& p) {
      paint_feeler_reach(canvas, p - Vector2d{16, 0}, p + Vector2d{16, 0}, 3.0, true);
      paint_feeler(canvas, p - Vector2d{16, 0}, p + Vector2d{4, 0}, true);
    });
    legend.row("feeler that does not", [&](const Vector2d& p) {
      paint_feeler_reach(canvas, p - Vector2d{16, 0}, p + Vector2d{16, 0}, 3.0, false);
      paint_feeler(canvas, p - Vector2d{16, 0}, p + Vector2d{16, 0}, false);
    });
  }
  if (has_nearness) {
    legend.row("nearness",
               [&](const Vector2d& p) { paint_ring(canvas, Meaning::nearness, p, 9.0); });
  }
  if (has_noise) {
    legend.row("a noise just made, and its reach",
               [&](const Vector2d& p) { paint_ring(canvas, Meaning::noise, p, 10.0); });
  }
  if (!has_zones) return;
  legend.row("zone; the darker, the dimmer", [&](const Vector2d& p) {
    cairo_rectangle(canvas.raw(), p.x() - 16, p.y() - 8, 32, 16);
    canvas.set(kInk.with_opacity(0.14));
    cairo_fill_preserve(canvas.raw());
    canvas.stroke(kInk.with_opacity(0.55), 1.0, {3.0, 3.0});
  });
}

void add_edge(Canvas& canvas, Legend& legend, const Scene& scene) {
  if (!scene.has(Meaning::bounds)) return;
  legend.heading("Level");
  legend.row("its edge", [&](const Vector2d& p) {
    canvas.line(p - Vector2d{16, 0}, p + Vector2d{16, 0});
    paint_bounds(canvas);
  });
}

void add_materials(Canvas& canvas, Legend& legend, const Scene& scene) {
  legend.heading("Materials");
  for (std::uint32_t i = 0; i < scene.materials.size() && legend.has_room(); ++i) {
    if (!scene.material_in_use[i]) continue;
    legend.row(scene.materials[i], [&, i](const Vector2d& p) {
      cairo_rectangle(canvas.raw(), p.x() - 16, p.y() - 8, 32, 16);
      fill_as_material(canvas, i, scene.stops_sight[i]);
      cairo_rectangle(canvas.raw(), p.x() - 16, p.y() - 8, 32, 16);
      canvas.stroke(material_colour(i), 1.4);
    });
  }
}

}  // namespace

void paint_legend(Canvas& canvas, const Scene& scene, const Rectangle& frame) {
  canvas.fill_rectangle(frame, kPlate);
  Legend legend(canvas, frame);
  add_agents(canvas, legend, scene);
  add_harm(canvas, legend, scene);
  add_seen(canvas, legend);
  add_lines(canvas, legend);
  add_other_senses(canvas, legend, scene);
  add_materials(canvas, legend, scene);
  add_edge(canvas, legend, scene);
}

void paint_title(Canvas& canvas, const Scene& scene, const Rectangle& frame) {
  canvas.font(17.0, true);
  canvas.text({frame.x + 16.0, frame.y + 27.0}, scene.title, kInk);
  canvas.font(15.0);
  const double width = canvas.text_width(scene.moment);
  canvas.text({frame.x + frame.width - width - 16.0, frame.y + 27.0}, scene.moment, kInk);
  canvas.line({frame.x + 16.0, frame.y + 38.5}, {frame.x + frame.width - 16.0, frame.y + 38.5});
  canvas.stroke(kInk, 1.0);
}

}  // namespace gaze
