#pragma once

#include <span>
#include <string_view>

namespace gaze::serve {

/// A file of the page, as it is in `page/`.
struct PageFile {
  std::string_view name;  ///< "index.html"
  std::string_view text;
};

/// All of them, in the order of their names. Made when the library is built.
[[nodiscard]] std::span<const PageFile> page_files();

}  // namespace gaze::serve
