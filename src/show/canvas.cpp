#include "show/canvas.hpp"

#include <fmt/format.h>

#include <cairo-svg.h>

#include <stdexcept>

#include "drawing/palette.hpp"

namespace gaze {
namespace {

cairo_status_t append(void* bytes, const unsigned char* data, unsigned int length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(data), length);
  return CAIRO_STATUS_SUCCESS;
}

}  // namespace

Canvas::Canvas(const PictureOptions& options)
    : format_(options.format), width_(options.width), height_(options.height) {
  surface_.reset(
      format_ == PictureFormat::svg
          ? cairo_svg_surface_create_for_stream(append, bytes_.get(), width_, height_)
          : cairo_image_surface_create(CAIRO_FORMAT_RGB24, options.width, options.height));
  context_.reset(cairo_create(surface_.get()));
  check();
  cairo_set_line_join(raw(), CAIRO_LINE_JOIN_ROUND);
}

void Canvas::check() const {
  const cairo_status_t status = cairo_status(raw());
  if (status == CAIRO_STATUS_SUCCESS) return;
  throw std::runtime_error(std::string("the picture cannot be drawn: ") +
                           cairo_status_to_string(status));
}

void Canvas::begin_part(const Rectangle& area) {
  whole_ = {0.0, 0.0, width_, height_};
  width_ = area.width;
  height_ = area.height;
  cairo_save(raw());
  cairo_rectangle(raw(), area.x, area.y, area.width, area.height);
  cairo_clip(raw());
  cairo_translate(raw(), area.x, area.y);
}

void Canvas::end_part() {
  cairo_restore(raw());
  width_ = whole_.width;
  height_ = whole_.height;
}

void Canvas::set(const Colour& colour) {
  cairo_set_source_rgba(raw(), colour.red, colour.green, colour.blue, colour.opacity);
}

void Canvas::fill_rectangle(const Rectangle& area, const Colour& colour) {
  cairo_rectangle(raw(), area.x, area.y, area.width, area.height);
  set(colour);
  cairo_fill(raw());
}

void Canvas::line(const Vector2d& from, const Vector2d& to) {
  cairo_move_to(raw(), from.x(), from.y());
  cairo_line_to(raw(), to.x(), to.y());
}

void Canvas::stroke(const Colour& colour, double line_width, const std::vector<double>& dashes) {
  set(colour);
  cairo_set_line_width(raw(), line_width);
  cairo_set_dash(raw(), dashes.data(), static_cast<int>(dashes.size()), 0.0);
  cairo_stroke(raw());
  cairo_set_dash(raw(), nullptr, 0, 0.0);
}

void Canvas::polygon(const std::vector<Vector2d>& corners) {
  cairo_new_sub_path(raw());
  for (const Vector2d& corner : corners) cairo_line_to(raw(), corner.x(), corner.y());
  cairo_close_path(raw());
}

void Canvas::disc(const Vector2d& middle, double radius) {
  cairo_new_sub_path(raw());
  cairo_arc(raw(), middle.x(), middle.y(), radius, 0.0, 6.283185307179586);
}

void Canvas::font(double size, bool bold) {
  cairo_select_font_face(raw(), "DejaVu Sans", CAIRO_FONT_SLANT_NORMAL,
                         bold ? CAIRO_FONT_WEIGHT_BOLD : CAIRO_FONT_WEIGHT_NORMAL);
  cairo_set_font_size(raw(), size);
}

double Canvas::text_width(const std::string& text) const {
  cairo_text_extents_t extents;
  cairo_text_extents(raw(), text.c_str(), &extents);
  return extents.x_advance;
}

std::vector<std::string> Canvas::wrapped(const std::string& text, double room) const {
  std::vector<std::string> lines{""};
  std::size_t start = 0;
  while (start < text.size()) {
    const std::size_t end = std::min(text.find(' ', start), text.size());
    const std::string word = text.substr(start, end - start);
    const std::string longer =
        lines.back().empty() ? word : fmt::format("{} {}", lines.back(), word);
    if (text_width(longer) <= room || lines.back().empty()) {
      lines.back() = longer;
    } else {
      lines.push_back(word);
    }
    start = end + 1;
  }
  return lines;
}

void Canvas::text(const Vector2d& baseline, const std::string& text, const Colour& colour) {
  set(colour);
  cairo_move_to(raw(), baseline.x(), baseline.y());
  cairo_show_text(raw(), text.c_str());
}

void Canvas::rimmed_text(const Vector2d& baseline, const std::string& text, const Colour& colour) {
  cairo_move_to(raw(), baseline.x(), baseline.y());
  cairo_text_path(raw(), text.c_str());
  stroke(kPaper.with_opacity(0.9), 3.0);
  this->text(baseline, text, colour);
}

std::string Canvas::finish() {
  check();
  cairo_surface_flush(surface_.get());
  if (format_ == PictureFormat::png) {
    if (cairo_surface_write_to_png_stream(surface_.get(), append, bytes_.get()) !=
        CAIRO_STATUS_SUCCESS) {
      throw std::runtime_error("the picture cannot be written as PNG");
    }
  } else {
    cairo_surface_finish(surface_.get());
  }
  return std::move(*bytes_);
}

}  // namespace gaze
