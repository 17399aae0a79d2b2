#pragma once

#include <cairo.h>

#include <memory>
#include <string>
#include <vector>

#include "drawing/palette.hpp"
#include "gaze/geometry.hpp"
#include "gaze/tools/picture.hpp"

namespace gaze {

struct Rectangle {
  double x = 0.0;
  double y = 0.0;
  double width = 0.0;
  double height = 0.0;

  bool overlaps(const Rectangle& other) const {
    return x < other.x + other.width && other.x < x + width && y < other.y + other.height &&
           other.y < y + height;
  }
};

/// A sheet to draw on, in pixels from the top left corner; the bytes of the file come out at the
/// end. Throws std::runtime_error when Cairo cannot go on.
class Canvas {
 public:
  explicit Canvas(const PictureOptions& options);

  cairo_t* raw() const { return context_.get(); }
  double width() const { return width_; }
  double height() const { return height_; }

  /// From here on all is drawn in a part of the sheet, as if that were the sheet.
  void begin_part(const Rectangle& area);
  void end_part();

  void set(const Colour& colour);
  void fill_rectangle(const Rectangle& area, const Colour& colour);
  void line(const Vector2d& from, const Vector2d& to);
  void stroke(const Colour& colour, double line_width, const std::vector<double>& dashes = {});
  void polygon(const std::vector<Vector2d>& corners);
  void disc(const Vector2d& middle, double radius);

  void font(double size, bool bold = false);
  double text_width(const std::string& text) const;
  /// Lines of words that are not wider than the room; a longer word has a line of its own.
  std::vector<std::string> wrapped(const std::string& text, double room) const;
  void text(const Vector2d& baseline, const std::string& text, const Colour& colour);
  /// The same on a pale rim, readable on anything.
  void rimmed_text(const Vector2d& baseline, const std::string& text, const Colour& colour);

  std::string finish();

 private:
  struct Free {
    void operator()(cairo_t* context) const { cairo_destroy(context); }
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
  };

  void check() const;

  PictureFormat format_;
  double width_;
  double height_;
  Rectangle whole_;  ///< While a part is drawn: the size of the sheet.
  std::unique_ptr<std::string> bytes_ = std::make_unique<std::string>();
  std::unique_ptr<cairo_surface_t, Free> surface_;
  std::unique_ptr<cairo_t, Free> context_;
};

}  // namespace gaze
