#pragma once

#include <string>
#include <string_view>

/// Bytes made small, and fit to stand in a page.
namespace gaze::serve {

/// Raw DEFLATE (RFC 1951).
[[nodiscard]] std::string deflated(std::string_view bytes);

/// Base64 (RFC 4648), padded.
[[nodiscard]] std::string base64_of(std::string_view bytes);

}  // namespace gaze::serve
