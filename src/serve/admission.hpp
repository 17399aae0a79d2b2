#pragma once

#include <cstdint>
#include <string>
#include <string_view>

namespace gaze::serve {

/// What a request says of where it comes from and where it wants to go.
struct Request {
  std::string_view host;
  std::string_view origin;  ///< Empty: none.
  std::string_view target;  ///< "/SECRET/draw.js"
  bool is_get = true;
  bool wants_talk = false;  ///< It asks for a WebSocket.
};

/// What becomes of a request.
struct Admission {
  std::string refusal;  ///< Why it is turned away; empty: it is let in.
  std::string_view file;
  bool is_talk = false;
};

/// Lets in what comes from a page of this server on this machine: the host is a name of this
/// machine with the right port, the origin, if there is one, the same, and the target begins with
/// the secret. Whoever talks has to have an origin.
[[nodiscard]] Admission admit(const Request& request, std::uint16_t port, std::string_view secret);

}  // namespace gaze::serve
